package lychnos.server.configure;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import lychnos.core.address.Address;
import lychnos.core.address.Run;
import lychnos.core.fact.Mac;
import lychnos.core.fact.PasswordMaker;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.order.SetupStep;
import lychnos.core.proof.Settings;
import lychnos.core.proof.Verdict;
import lychnos.server.prove.Proofs;
import lychnos.server.prove.Targets;
import lychnos.server.run.HoldLost;
import lychnos.server.store.AddressRange;
import lychnos.server.store.SealedStore;
import lychnos.wire.fault.WireFault;
import lychnos.wire.icmp.Echo;
import lychnos.wire.redfish.Controller;
import lychnos.wire.redfish.RedfishClient;
import lychnos.wire.redfish.RedfishFault;
import lychnos.wire.tcp.PortState;
import lychnos.wire.vantage.Answering;
import lychnos.wire.vantage.Vantage;

/**
 * What each {@link SetupStep} does to one machine. Every step can be begun a second time after an interruption: it
 * looks first at what is there already. Nothing is written before {@link SetupStep#IDENTIFY} has held.
 */
final class Setup {

    private static final Duration FIND = Duration.ofSeconds(6);
    private static final Duration PING = Duration.ofSeconds(1);
    private static final Duration CONNECT = Duration.ofSeconds(3);
    private static final long FOLLOW_PAUSE_MILLIS = 400;
    private static final int PASSWORD_LENGTH = 20;

    /** Asks whether this server still holds the run. */
    @FunctionalInterface
    interface Hold {
        void look() throws HoldLost;
    }

    private final Targets.Subject subject;
    private final Kind kind;
    private final Vantage vantage;
    private final Targets targets;
    private final Proofs proofs;
    private final SealedStore sealed;
    private final PasswordMaker passwords;
    private final Duration followAtMost;
    private final List<AddressRange> ranges;
    private final long unitId;
    private final Mac mac;
    private final Address planned;
    private Address foundAt;
    private String accountPath;

    Setup(
            Targets.Subject subject,
            Kind kind,
            Vantage vantage,
            Targets targets,
            Proofs proofs,
            SealedStore sealed,
            PasswordMaker passwords,
            Duration followAtMost,
            List<AddressRange> ranges) {
        this.subject = subject;
        this.kind = kind;
        this.vantage = vantage;
        this.targets = targets;
        this.proofs = proofs;
        this.sealed = sealed;
        this.passwords = passwords;
        this.followAtMost = followAtMost;
        this.ranges = ranges;
        this.unitId = subject.unit().id;
        this.mac = subject.unit().mac;
        this.planned = subject.claim().address;
    }

    Address foundAt() {
        return foundAt;
    }

    void foundAt(Address address) {
        foundAt = address;
    }

    /**
     * Carries a step out.
     *
     * @param resumed whether the step was begun before and interrupted
     * @return what was seen, for the record
     */
    String carryOut(SetupStep step, boolean resumed, Hold hold) throws Surprise, HoldLost {
        try {
            return switch (step) {
                case FIND -> find();
                case IDENTIFY -> identify();
                case SEAL_PASSWORD -> sealPassword();
                case SET_PASSWORD -> setPassword(resumed);
                case PROVE_PASSWORD -> provePassword();
                case SET_TIME -> setTime();
                case SET_NETWORK -> setNetwork(resumed);
                case FOLLOW -> follow(hold);
                case READ_BACK -> readBack();
                case PROVE -> prove();
            };
        } catch (WireFault e) {
            throw new Surprise(sentence(step, e), advice(e));
        } catch (RedfishFault e) {
            throw new Surprise(
                    "While " + step.doing() + " it answered: " + e.getMessage(),
                    "See what the machine wants, then try again.");
        }
    }

    private String sentence(SetupStep step, WireFault fault) {
        return switch (fault.kind()) {
            case OTHER_CERTIFICATE ->
                "It shows another certificate than when it was identified (" + fault.getMessage() + ").";
            case GARBAGE -> "While " + step.doing() + " it answered with garbage: " + fault.getMessage() + ".";
            case NOT_DECLARED -> fault.getMessage();
            default -> "While " + step.doing() + " at " + foundAt + ": " + fault.getMessage() + ".";
        };
    }

    private static String advice(WireFault fault) {
        return switch (fault.kind()) {
            case OTHER_CERTIFICATE ->
                "Compare the serial at the rack. Nothing was sent to it under the new certificate.";
            case GARBAGE -> "Restart the management controller, then try again.";
            default -> "Look at cable and power, then try again.";
        };
    }

    private String find() throws WireFault, Surprise {
        if (isOurs(planned)) {
            foundAt = planned;
            return "answers at its planned address " + planned + " already";
        }
        Address first = subject.unit().firstAddress;
        if (first != null && vantage.port(first, kind.port(), CONNECT) == PortState.OPEN) {
            foundAt = first;
            return "answers at " + first + ", its first address as on the label";
        }
        if (!vantage.hearsSilence()) {
            throw new Surprise(
                    "It does not answer at its first address" + (first == null ? ": none is known" : " " + first) + ".",
                    "Enter its first address with the label; hardware addresses cannot be asked for from here.");
        }
        List<Run> scopes = ranges.stream()
                .filter(range -> range.purpose.equals(AddressRange.DHCP))
                .map(AddressRange::run)
                .toList();
        if (scopes.isEmpty()) {
            throw new Surprise(
                    "Nobody knows its first address.",
                    "State the range that DHCP hands out, or its first address with the label.");
        }
        for (Run scope : scopes) {
            Optional<Address> found = vantage.findByMac(mac, scope, FIND);
            if (found.isPresent()) {
                foundAt = found.get();
                return mac + " answers at " + foundAt + ", handed out by DHCP";
            }
        }
        String where = scopes.stream().map(Run::toString).collect(Collectors.joining(", "));
        throw new Surprise(
                "No machine with " + mac + " answers in " + where + ".",
                "Look at power, cable and VLAN of " + subject.unit().position()
                        + "; compare the hardware address with the label.");
    }

    /** Whether this very machine answers at an address, as far as the segment tells. */
    private boolean isOurs(Address address) throws WireFault {
        if (!vantage.hearsSilence()) {
            return sealed.open(unitId, SealedStore.State.PROVEN).isPresent()
                    && vantage.port(address, kind.port(), CONNECT) == PortState.OPEN;
        }
        return vantage.ping(address, PING).state() != Echo.State.SILENT
                && vantage.neighbour(address).filter(mac::equals).isPresent()
                && vantage.port(address, kind.port(), CONNECT) == PortState.OPEN;
    }

    private RedfishClient client() {
        return new RedfishClient(vantage, foundAt, kind.port(), targets.fingerprint(subject));
    }

    private String identify() throws WireFault, RedfishFault, Surprise {
        boolean sameMac = false;
        if (vantage.hearsSilence()) {
            vantage.ping(foundAt, PING);
            Optional<Mac> neighbour = vantage.neighbour(foundAt);
            if (neighbour.isPresent() && !neighbour.get().equals(mac)) {
                throw new Surprise(
                        foundAt + " is answered by " + neighbour.get() + ", the label says " + mac + ".",
                        "Nothing was written to it. Compare the label with the machine in "
                                + subject.unit().position() + ".");
            }
            sameMac = neighbour.isPresent();
        }
        try (RedfishClient client = client()) {
            client.root();
            logInAsKnown(client);
            try {
                Controller.Identity identity = new Controller(client).identity();
                refuseOther(identity, "Nothing was written to it.");
                proofs.remember(subject, client.fingerprint());
                return "serial " + subject.unit().serial + " and " + mac + " as on the label";
            } catch (RedfishFault e) {
                if (!e.is("PasswordChangeRequired")) {
                    throw e;
                }
                if (!sameMac) {
                    throw new Surprise(
                            "It shows its serial only after its password is changed, and its hardware address cannot "
                                    + "be seen from here.",
                            "Set it up from a place on its own segment.");
                }
                proofs.remember(subject, client.fingerprint());
                return mac + " as on the label; it shows its serial only after the password is changed";
            }
        }
    }

    private void refuseOther(Controller.Identity identity, String written) throws Surprise {
        Optional<String> other = identity.differsFrom(subject.unit().serial, mac);
        if (other.isPresent()) {
            throw new Surprise(
                    "It is another machine: " + other.get() + ".",
                    written + " Compare the label with the machine in "
                            + subject.unit().position() + ".");
        }
    }

    /**
     * Logs in with what should be on it: our own password if it has logged in before, else the factory's. One attempt
     * each.
     */
    private void logInAsKnown(RedfishClient client) throws WireFault, RedfishFault, Surprise {
        for (SealedStore.State state : new SealedStore.State[] {SealedStore.State.PROVEN, SealedStore.State.MADE}) {
            Optional<Secret> ours = sealed.open(unitId, state);
            if (ours.isPresent() && tryLogIn(client, ours.get())) {
                return;
            }
        }
        if (!tryLogIn(client, kind.factory().phrase())) {
            throw new Surprise(
                    "It refuses the factory password.",
                    "Somebody has set it up before. Reset it to factory settings, or enter the password in use.");
        }
    }

    /** @return whether the log-in was taken */
    private boolean tryLogIn(RedfishClient client, Secret phrase) throws WireFault, RedfishFault {
        try {
            Optional<String> account = client.logIn(kind.factory().user(), phrase);
            accountPath = account.orElse(accountPath);
            return true;
        } catch (RedfishFault e) {
            if (e.status() == 401) {
                return false;
            }
            throw e;
        }
    }

    private String sealPassword() {
        if (sealed.open(unitId, SealedStore.State.PROVEN).isPresent()
                || sealed.open(unitId, SealedStore.State.MADE).isPresent()) {
            return "the one sealed before is used";
        }
        sealed.seal(unitId, passwords.make(PASSWORD_LENGTH));
        return "a password of " + PASSWORD_LENGTH + " letters is sealed";
    }

    private String setPassword(boolean resumed) throws WireFault, RedfishFault, Surprise {
        Optional<Secret> proven = sealed.open(unitId, SealedStore.State.PROVEN);
        if (proven.isPresent()) {
            return "it has ours already";
        }
        Secret made = sealed.open(unitId, SealedStore.State.MADE)
                .orElseThrow(() -> new Surprise("The sealed password is gone.", "Try again from the beginning."));
        try (RedfishClient client = client()) {
            // after an interruption nobody knows whether it was sent: the new one is tried first
            if (resumed && tryLogIn(client, made)) {
                return "it had taken the new one before the interruption";
            }
            if (!tryLogIn(client, kind.factory().phrase())) {
                if (!resumed && tryLogIn(client, made)) {
                    return "it has the sealed one already";
                }
                throw new Surprise(
                        "It refuses the factory password.",
                        "Somebody has set it up before. Reset it to factory settings, then try again.");
            }
            new Controller(client).setPassword(kind.factory().user(), accountPath, made);
            return "factory password replaced";
        } catch (WireFault e) {
            if (e.kind() != WireFault.Kind.UNKNOWN_OUTCOME) {
                throw e;
            }
            return e.getMessage() + "; the next step shows which password it has";
        }
    }

    private String provePassword() throws WireFault, RedfishFault, Surprise {
        boolean proven = sealed.open(unitId, SealedStore.State.MADE).isEmpty();
        Secret ours = sealed.open(unitId, proven ? SealedStore.State.PROVEN : SealedStore.State.MADE)
                .orElseThrow(() -> new Surprise("The sealed password is gone.", "Try again from the beginning."));
        try (RedfishClient client = client()) {
            if (!tryLogIn(client, ours)) {
                throw new Surprise(
                        "It does not let us in with the new password.",
                        "The old one is kept. Try again; if it stays so, reset the machine.");
            }
            Controller.Identity identity = new Controller(client).identity();
            refuseOther(identity, "Its password was changed and is sealed; nothing else was written.");
        }
        sealed.proven(unitId);
        return "the new password has logged in; serial " + subject.unit().serial;
    }

    private RedfishClient loggedIn() throws WireFault, RedfishFault, Surprise {
        Secret ours = sealed.open(unitId, SealedStore.State.PROVEN)
                .orElseThrow(() -> new Surprise("The sealed password is gone.", "Try again from the beginning."));
        RedfishClient client = client();
        if (!tryLogIn(client, ours)) {
            throw new Surprise(
                    "It refuses the password we set.",
                    "Somebody may have changed it since. Reset it, or enter the password in use.");
        }
        return client;
    }

    private String setTime() throws WireFault, RedfishFault, Surprise {
        try (RedfishClient client = loggedIn()) {
            List<String> warnings = new Controller(client).setTime(subject.network().timeServers);
            return warnings.isEmpty()
                    ? String.join(", ", subject.network().timeServers)
                    : "it warns: " + String.join("; ", warnings);
        }
    }

    private String setNetwork(boolean resumed) throws WireFault, RedfishFault, Surprise {
        if (resumed && !foundAt.equals(planned) && isOurs(planned)) {
            return "it had moved before the interruption";
        }
        refuseStranger();
        try (RedfishClient client = loggedIn()) {
            List<String> warnings = new Controller(client).setNetwork(mac, subject.plan());
            return warnings.isEmpty()
                    ? planned + ", " + subject.claim().hostName
                    : "it warns: " + String.join("; ", warnings);
        } catch (WireFault e) {
            if (e.kind() == WireFault.Kind.UNKNOWN_OUTCOME || resumed && e.passing()) {
                return "the connection ended as the address moved";
            }
            throw e;
        }
    }

    /** Asks the wire once more right before an address is written into a machine. */
    private void refuseStranger() throws WireFault, Surprise {
        if (Answering.at(vantage, planned, PING) != Answering.ANSWERS) {
            return;
        }
        Optional<Mac> there = vantage.neighbour(planned);
        if (there.filter(mac::equals).isEmpty()) {
            throw new Surprise(
                    planned + " answers already"
                            + there.map(other -> ": " + other).orElse("") + ".",
                    "A stranger has the planned address. Find it, or place this unit anew.");
        }
    }

    private String follow(Hold hold) throws WireFault, Surprise, HoldLost {
        long deadline = System.nanoTime() + followAtMost.toNanos();
        Address old = foundAt;
        boolean left = false;
        while (System.nanoTime() < deadline) {
            hold.look();
            if (isOurs(planned)) {
                foundAt = planned;
                return "answers at " + planned;
            }
            boolean atOld = !old.equals(planned) && vantage.port(old, kind.port(), PING) == PortState.OPEN;
            if (left && atOld && isStillOurs(old)) {
                throw backAt(old);
            }
            left |= !atOld;
            pause();
        }
        if (!old.equals(planned) && vantage.port(old, kind.port(), PING) == PortState.OPEN && isStillOurs(old)) {
            throw backAt(old);
        }
        throw new Surprise(
                "It has not come back: silent at " + planned + (old.equals(planned) ? "" : " and " + old) + " for "
                        + followAtMost.toSeconds() + " s.",
                "Look at its power lamp. If it restarts for longer, try again later; it goes on from here.");
    }

    /**
     * Whether what answers at its old address is this machine, or at least nothing else as far as can be seen from
     * here.
     */
    private boolean isStillOurs(Address old) throws WireFault {
        return !vantage.hearsSilence()
                || vantage.neighbour(old).filter(mac::equals).isPresent();
    }

    private Surprise backAt(Address old) {
        return new Surprise(
                "It answers at its old address " + old + " instead of " + planned + ".",
                "It did not keep the setting. Try again; if it stays so, set the address at the machine.");
    }

    private static void pause() throws HoldLost {
        try {
            Thread.sleep(FOLLOW_PAUSE_MILLIS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new HoldLost("this server is stopping");
        }
    }

    private String readBack() throws WireFault, RedfishFault, Surprise {
        try (RedfishClient client = loggedIn()) {
            List<Settings.Field> fields = subject.plan().compare(new Controller(client).settings(mac));
            String off = Settings.differences(fields);
            if (!off.isEmpty()) {
                throw new Surprise("Read back, " + off + ".", "Set it at the machine, or try again.");
            }
            return fields.size() + " of " + fields.size() + " values as planned";
        }
    }

    private String prove() throws WireFault, Surprise {
        Verdict verdict = proofs.climb(subject);
        // a name that is missing is no reason to set a machine up again
        if (!verdict.ladder()) {
            throw new Surprise(verdict.sentence(), verdict.press());
        }
        return verdict.sentence();
    }
}
