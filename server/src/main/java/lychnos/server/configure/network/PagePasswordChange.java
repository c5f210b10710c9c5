package lychnos.server.configure.network;

import io.quarkus.narayana.jta.QuarkusTransaction;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import lychnos.core.address.Address;
import lychnos.core.dialogue.PageFill;
import lychnos.core.fact.PasswordMaker;
import lychnos.core.fact.Secret;
import lychnos.core.kind.PagePassword;
import lychnos.core.order.SetupStep;
import lychnos.server.jobs.CheckQueue;
import lychnos.server.secrets.SealedStore;
import lychnos.server.secrets.SealedStore.SealedState;
import lychnos.server.text.ConfigureText;
import lychnos.wire.fault.WireFault;
import lychnos.wire.ladder.Target;
import lychnos.wire.pages.MachinePages;
import lychnos.wire.pages.MachinePages.Login;
import lychnos.wire.pages.PageFault;
import lychnos.wire.vantage.Vantage;

/**
 * Replaces the password of a machine's pages over their documented interface. Where several members have pages of their
 * own, they have the password in common, so that it is replaced on every member.
 */
final class PagePasswordChange implements StepWork {

    /**
     * Pages of one member.
     *
     * @param fingerprint of the certificate that was accepted there; empty where none was
     */
    record Place(Address address, int usualPort, Target.Pages pages, String fingerprint) {}

    /** What the work is done with. */
    record Means(Vantage vantage, SealedStore sealed, PasswordMaker passwords, CheckQueue checks) {}

    private final long unitId;
    private final PagePassword password;
    private final List<Place> places;
    private final Means means;

    /** @param places at least one */
    PagePasswordChange(long unitId, PagePassword password, List<Place> places, Means means) {
        this.unitId = unitId;
        this.password = password;
        this.places = places;
        this.means = means;
    }

    @Override
    public Address foundAt() {
        return places.get(0).address;
    }

    @Override
    public void foundAt(Address address) {
        // its addresses are planned: it is not looked for anywhere else
    }

    @Override
    public String carryOut(SetupStep step, boolean resumed, Hold hold) throws Surprise {
        try {
            return switch (step) {
                case FIND -> find();
                case IDENTIFY -> identify();
                case SEAL_PASSWORD -> seal();
                case SET_PASSWORD -> set(resumed);
                case PROVE_PASSWORD -> prove();
                case PROVE -> check();
                default -> throw new IllegalArgumentException("is no step of a password change: " + step);
            };
        } catch (WireFault e) {
            throw new Surprise(
                    ConfigureText.AT_THE_STEP.text(step.doing()) + e.getMessage() + ".",
                    ConfigureText.CHECK_CABLE_AND_POWER.text(),
                    e.passing());
        } catch (PageFault e) {
            throw e.refusesLogin()
                    ? new Surprise(
                            ConfigureText.PAGES_REFUSE_THE_PASSWORD.text(),
                            ConfigureText.PASSWORD_MAY_HAVE_BEEN_CHANGED_SINCE.text())
                    : new Surprise(
                            ConfigureText.CONTROLLER_ANSWERED_AT_STEP.text(
                                    ConfigureText.AT_THE_STEP.text(step.doing()), e.getMessage()),
                            ConfigureText.CORRECT_THE_REFUSED_VALUE.text());
        }
    }

    private Optional<Secret> old() {
        return means.sealed.open(unitId, password.fact(), SealedState.PROVEN);
    }

    private Optional<Secret> made() {
        return means.sealed.open(unitId, password.fact(), SealedState.MADE);
    }

    private Secret wanted() throws Surprise {
        return made().orElseThrow(() -> new Surprise(
                ConfigureText.SEALED_PASSWORD_IS_GONE.text(), ConfigureText.TRY_AGAIN_FROM_THE_BEGINNING.text()));
    }

    /** Opens the pages; no password goes to another certificate than the accepted one. */
    private MachinePages open(Place place) throws WireFault, Surprise {
        MachinePages pages = new MachinePages(means.vantage, place.pages.at(), place.usualPort);
        String shown = pages.see();
        if (!shown.equals(place.fingerprint)) {
            throw new Surprise(
                    ConfigureText.PAGES_SHOW_ANOTHER_CERTIFICATE.text(shown),
                    ConfigureText.COMPARE_THE_SERIAL_AT_THE_RACK.text());
        }
        return pages;
    }

    private static Login login(Place place, Secret phrase) {
        return new Login(place.pages.ours().user(), phrase);
    }

    private String find() throws WireFault, Surprise {
        for (Place place : places) {
            open(place);
        }
        return ConfigureText.ANSWERS.text(places.get(0).address);
    }

    /** Tries each password once; gives what the machine tells of itself, and which one was accepted. */
    private Map.Entry<Secret, Map<String, String>> about(MachinePages pages, Place place, List<Secret> tried)
            throws WireFault, PageFault {
        PageFault last = null;
        for (Secret phrase : tried) {
            try {
                return Map.entry(phrase, pages.read(place.pages.about(), login(place, phrase)));
            } catch (PageFault e) {
                if (!e.refusesLogin()) {
                    throw e;
                }
                last = e;
            }
        }
        if (last == null) {
            throw new IllegalStateException("no password of the unit is known");
        }
        throw last;
    }

    private String identify() throws WireFault, PageFault, Surprise {
        Map<String, String> evidence = new LinkedHashMap<>();
        for (Place place : places) {
            Map<String, String> shown = about(
                            open(place),
                            place,
                            Stream.concat(old().stream(), made().stream()).toList())
                    .getValue();
            for (Map.Entry<String, String> must : place.pages.must().entrySet()) {
                String is = shown.getOrDefault(must.getKey(), "");
                if (!is.equals(must.getValue())) {
                    throw new Surprise(
                            ConfigureText.PAGES_ARE_OF_ANOTHER_MACHINE.text(
                                    place.pages.at(), is.isEmpty() ? "missing" : is, must.getValue()),
                            ConfigureText.COMPARE_THE_SERIAL_AT_THE_RACK.text());
                }
                evidence.put(must.getKey(), is);
            }
        }
        return String.join(", ", evidence.values());
    }

    private String seal() {
        if (made().isPresent()) {
            return ConfigureText.ONE_SEALED_BEFORE_IS_USED.text();
        }
        means.sealed.seal(unitId, password.fact(), means.passwords.make(ControllerWork.PASSWORD_LENGTH));
        return ConfigureText.PASSWORD_OF_CHARACTERS_IS_SEALED.text(ControllerWork.PASSWORD_LENGTH);
    }

    private String set(boolean resumed) throws WireFault, PageFault, Surprise {
        Secret wanted = wanted();
        boolean written = false;
        for (Place place : places) {
            MachinePages pages = open(place);
            // after an interruption, or on members that share it, it is not known whether it has arrived already
            List<Secret> tried = resumed || written
                    ? Stream.concat(Stream.of(wanted), old().stream()).toList()
                    : Stream.concat(old().stream(), Stream.of(wanted)).toList();
            Secret accepted = about(pages, place, tried).getKey();
            if (!accepted.equals(wanted)) {
                pages.write(
                        password.resource(),
                        login(place, accepted),
                        new PageFill.Entry(Map.of(), Map.of(password.at(), wanted)));
                written = true;
            }
        }
        return written ? ConfigureText.PASSWORD_REPLACED.text() : ConfigureText.HAD_TAKEN_THE_NEW_ONE_BEFORE.text();
    }

    private String prove() throws WireFault, PageFault, Surprise {
        Secret wanted = wanted();
        for (Place place : places) {
            about(open(place), place, List.of(wanted));
        }
        Optional<Secret> old = old();
        // from here on the new one is the one that works, whatever comes of the old one
        means.sealed.proven(unitId, password.fact());
        for (Place place : places) {
            if (old.isPresent() && admits(place, old.get())) {
                throw new Surprise(
                        ConfigureText.OLD_PASSWORD_STILL_WORKS.text(),
                        ConfigureText.END_THE_OLD_PASSWORD_BY_HAND.text());
            }
        }
        return ConfigureText.NEW_PASSWORD_WORKS_OLD_REFUSED_BY_PAGES.text();
    }

    private boolean admits(Place place, Secret phrase) throws WireFault, PageFault, Surprise {
        try {
            about(open(place), place, List.of(phrase));
            return true;
        } catch (PageFault e) {
            if (!e.refusesLogin()) {
                throw e;
            }
            return false;
        }
    }

    /** The ladder is climbed by the next worker that is free. */
    private String check() {
        QuarkusTransaction.requiringNew().run(() -> means.checks.askAfterSetup(unitId));
        return ConfigureText.A_CHECK_FOLLOWS.text();
    }
}
