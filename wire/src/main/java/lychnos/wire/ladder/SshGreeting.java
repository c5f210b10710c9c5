package lychnos.wire.ladder;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Part;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Trouble;
import lychnos.wire.fault.WireFault;
import lychnos.wire.ssh.HostKey;
import lychnos.wire.vantage.Vantage;

/** What SSH says of itself before anybody signs in (RFC 4253, section 4.2): its greeting and its host key. */
final class SshGreeting {

    static final int SSH = 22;
    private static final Duration GREETING = Duration.ofSeconds(4);

    private final Vantage vantage;
    private final Target target;
    private HostKey.Seen hostKey;

    SshGreeting(Vantage vantage, Target target) {
        this.vantage = vantage;
        this.target = target;
    }

    /** The host key that was shown; null before that. */
    HostKey.Seen hostKey() {
        return hostKey;
    }

    /** What keeps the rung from holding; nothing where it greets and has the host key that it had. */
    Optional<Outcome> look(List<Part> parts) throws WireFault {
        try {
            parts.add(Part.holds("SSH", vantage.greeting(target.address(), SSH, GREETING)));
            hostKey = vantage.hostKey(target.address(), SSH, GREETING);
        } catch (WireFault e) {
            parts.add(Part.broken(
                    parts.get(parts.size() - 1).name().equals("SSH") ? LadderText.HOST_KEY.text() : "SSH",
                    e.getMessage()));
            return Optional.of(RedfishWay.brokenUnlessUndeclared(e, Rung.SERVICE, Trouble.NO_SSH));
        }
        String known = target.known().hostKey();
        if (known == null || known.equals(hostKey.fingerprint())) {
            parts.add(Part.holds(
                    LadderText.HOST_KEY.text(),
                    known == null
                            ? LadderText.HOST_KEY_FIRST_SEEN.text(hostKey.fingerprint())
                            : hostKey.fingerprint()));
            return Optional.empty();
        }
        parts.add(Part.broken(LadderText.HOST_KEY.text(), LadderText.HOST_KEY_WAS.text(hostKey.fingerprint(), known)));
        return Optional.of(Outcome.broken(
                Rung.SERVICE,
                Trouble.HOST_KEY_CHANGED,
                LadderText.CHANGED_SHORT.text(shortened(known), shortened(hostKey.fingerprint()))));
    }

    private static String shortened(String key) {
        int most = 15;
        return key.length() <= most ? key : key.substring(0, most) + "…";
    }
}
