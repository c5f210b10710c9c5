package lychnos.server.configure.network;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import lychnos.core.address.Address;
import lychnos.core.fact.PasswordMaker;
import lychnos.core.fact.Secret;
import lychnos.core.kind.PagePassword;
import lychnos.core.order.SetupStep;
import lychnos.server.configure.network.PagePasswordChange.Place;
import lychnos.server.jobs.CheckQueue;
import lychnos.server.jobs.HoldLost;
import lychnos.server.secrets.SealedStore;
import lychnos.server.secrets.SealedStore.SealedState;
import lychnos.server.text.ConfigureText;
import lychnos.wire.fault.WireFault;
import lychnos.wire.http.HttpAnswer;
import lychnos.wire.http.HttpCall;
import lychnos.wire.ladder.Target;
import lychnos.wire.tls.TlsSeen;
import lychnos.wire.vantage.Vantage;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Two members with pages of their own and one password. */
class PagePasswordChangeTest {

    private static final long UNIT = 7;
    private static final String NAME = "web-password";
    private static final List<Address> MEMBERS = List.of(Address.parse("10.40.8.20"), Address.parse("10.40.8.21"));

    private final Vantage vantage = mock(Vantage.class);
    private final SealedStore sealed = mock(SealedStore.class);
    /** By member, the passwords that its pages accept. */
    private final Map<Address, List<String>> accepted = new HashMap<>();
    /** Every request: member, method and password. */
    private final List<String> asked = new ArrayList<>();

    private final Map<SealedState, String> stored = new HashMap<>();

    @BeforeEach
    void machines() throws WireFault {
        MEMBERS.forEach(member -> accepted.put(member, new ArrayList<>(List.of("the-old-one"))));
        stored.put(SealedState.PROVEN, "the-old-one");
        when(vantage.tls(any(), anyInt(), any())).thenReturn(shows("aa"));
        when(vantage.http(any())).thenAnswer(call -> answer(call.getArgument(0)));
        when(sealed.open(anyLong(), eq(NAME), any()))
                .thenAnswer(call -> Optional.ofNullable(stored.get(call.<SealedState>getArgument(2)))
                        .map(Secret::of));
        doAnswer(call ->
                        stored.put(SealedState.MADE, call.<Secret>getArgument(2).use(text -> text)))
                .when(sealed)
                .seal(anyLong(), eq(NAME), any());
        doAnswer(call -> stored.put(SealedState.PROVEN, stored.remove(SealedState.MADE)))
                .when(sealed)
                .proven(UNIT, NAME);
    }

    private static TlsSeen shows(String fingerprint) {
        Instant now = Instant.parse("2026-12-01T08:00:00Z");
        return new TlsSeen(
                "TLSv1.3", fingerprint, "", "", true, now, now, List.of(), "EC 256", false, "", List.of(), "");
    }

    private HttpAnswer answer(HttpCall call) throws IOException {
        String login = new String(
                Base64.getDecoder().decode(call.headers().get("Authorization").substring("Basic ".length())),
                StandardCharsets.UTF_8);
        String password = login.substring(login.indexOf(':') + 1);
        asked.add(call.address() + " " + call.method() + " " + password);
        if (!accepted.get(call.address()).contains(password)) {
            return new HttpAnswer(401, Map.of(), new byte[0], "aa");
        }
        if (call.method().equals("PUT")) {
            accepted.put(
                    call.address(),
                    new ArrayList<>(List.of(new ObjectMapper()
                            .readTree(call.body())
                            .path("phrase")
                            .asText())));
        }
        return new HttpAnswer(200, Map.of(), "{\"serial\":\"BK-1\"}".getBytes(StandardCharsets.UTF_8), "aa");
    }

    private PagePasswordChange change() {
        List<Place> places = MEMBERS.stream()
                .map(member -> new Place(
                        member,
                        443,
                        new Target.Pages(
                                "https://" + member + "/open",
                                new Target.Login("curator", Secret.of("the-old-one")),
                                new Target.Login("curator", Secret.of("factory")),
                                "/about",
                                Map.of("/serial", "BK-1"),
                                Map.of()),
                        "aa"))
                .toList();
        return new PagePasswordChange(
                UNIT,
                new PagePassword(NAME, "/account", "/phrase"),
                places,
                new PagePasswordChange.Means(
                        vantage, sealed, new PasswordMaker(new Random(1)), mock(CheckQueue.class)));
    }

    private void upTo(PagePasswordChange change, SetupStep last) throws Surprise, HoldLost {
        for (SetupStep step : SetupStep.PASSWORD_CHANGE) {
            change.carryOut(step, false, () -> {});
            if (step == last) {
                return;
            }
        }
    }

    @Test
    void bothMembersTakeTheNewOneBeforeItCounts() throws Surprise, HoldLost {
        upTo(change(), SetupStep.SET_PASSWORD);
        assertEquals("the-old-one", stored.get(SealedState.PROVEN));
        upTo(change(), SetupStep.PROVE_PASSWORD);
        String now = stored.get(SealedState.PROVEN);
        assertEquals(20, now.length());
        MEMBERS.forEach(member -> assertEquals(List.of(now), accepted.get(member)));
        assertEquals(2, asked.stream().filter(each -> each.contains(" PUT ")).count(), asked::toString);
    }

    @Test
    void anotherCertificateGetsNoPassword() throws WireFault {
        when(vantage.tls(eq(MEMBERS.get(1)), anyInt(), any())).thenReturn(shows("bb"));
        Surprise surprise = assertThrows(Surprise.class, () -> upTo(change(), SetupStep.PROVE));
        assertEquals(ConfigureText.PAGES_SHOW_ANOTHER_CERTIFICATE.text("bb"), surprise.getMessage());
        assertEquals(List.of(), asked);
    }

    @Test
    void anotherMachineIsNotWrittenTo() {
        accepted.get(MEMBERS.get(0)).clear();
        assertThrows(Surprise.class, () -> upTo(change(), SetupStep.PROVE));
        assertEquals(List.of(MEMBERS.get(0) + " GET the-old-one"), asked, "tried once, and nothing else");
    }

    /** A server died between the two members. */
    @Test
    void anInterruptedChangeIsFinishedOnTheOtherMember() throws Surprise, HoldLost {
        stored.put(SealedState.MADE, "the-new-one-that-was-sent");
        accepted.put(MEMBERS.get(0), new ArrayList<>(List.of("the-new-one-that-was-sent")));
        PagePasswordChange change = change();
        change.carryOut(SetupStep.SET_PASSWORD, true, () -> {});
        change.carryOut(SetupStep.PROVE_PASSWORD, false, () -> {});
        MEMBERS.forEach(member -> assertEquals(List.of("the-new-one-that-was-sent"), accepted.get(member)));
        assertEquals("the-new-one-that-was-sent", stored.get(SealedState.PROVEN));
        assertEquals(1, asked.stream().filter(each -> each.contains(" PUT ")).count(), asked::toString);
    }

    @Test
    void anOldPasswordThatStillWorksIsTold() throws Surprise, HoldLost {
        PagePasswordChange change = change();
        upTo(change, SetupStep.SET_PASSWORD);
        accepted.get(MEMBERS.get(1)).add("the-old-one");
        Surprise surprise =
                assertThrows(Surprise.class, () -> change.carryOut(SetupStep.PROVE_PASSWORD, false, () -> {}));
        assertEquals(ConfigureText.OLD_PASSWORD_STILL_WORKS.text(), surprise.getMessage());
        assertEquals(List.of(stored.get(SealedState.PROVEN)), accepted.get(MEMBERS.get(0)), "the new one counts");
    }
}
