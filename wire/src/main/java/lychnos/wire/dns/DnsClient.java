package lychnos.wire.dns;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import lychnos.core.service.NameSample;
import lychnos.core.service.Reply;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireText;
import org.xbill.DNS.DClass;
import org.xbill.DNS.Flags;
import org.xbill.DNS.Message;
import org.xbill.DNS.Name;
import org.xbill.DNS.Rcode;
import org.xbill.DNS.Record;
import org.xbill.DNS.SOARecord;
import org.xbill.DNS.Section;
import org.xbill.DNS.SimpleResolver;
import org.xbill.DNS.TSIG;
import org.xbill.DNS.TextParseException;
import org.xbill.DNS.Type;
import org.xbill.DNS.Update;
import org.xbill.DNS.ZoneTransferException;
import org.xbill.DNS.ZoneTransferIn;

/** Speaks to one name server directly, never through the system's resolver (RFC 1035; RFC 2136; RFC 5936; RFC 8945). */
public final class DnsClient {

    /** Records in one update message: far below the 64 kilobytes that fit over TCP. */
    private static final int BATCH = 400;

    /** Records that are taken from one transfer; a zone of a hall has some ten thousand. */
    public static final int MOST_RECORDS = 200_000;

    private static final long TTL_SECONDS = 3600;

    private final InetSocketAddress server;
    private final Duration timeout;

    public DnsClient(InetSocketAddress server, Duration timeout) {
        this.server = server;
        this.timeout = timeout;
    }

    private SimpleResolver resolver(boolean tcp, NameKey key) {
        SimpleResolver resolver = new SimpleResolver(server);
        resolver.setTimeout(timeout);
        resolver.setTCP(tcp);
        if (key != null) {
            resolver.setTSIGKey(key.tsig());
        }
        return resolver;
    }

    /**
     * Asks whether it answers over both transports, for the serials of zones, whether it recurses, and with a key
     * whether it lets us update: by removing a name that does not exist, which changes nothing.
     *
     * @param keys by zone; a zone without one is not asked about updates
     */
    public NameSample sample(List<String> zones, Map<String, NameKey> keys) {
        Map<String, Long> serials = new LinkedHashMap<>();
        List<Reply> updates = new ArrayList<>();
        boolean udp = false;
        boolean recursion = false;
        String fault = "";
        for (String zone : zones.isEmpty() ? List.of("") : zones) {
            try {
                Message answer =
                        resolver(false, null).send(Message.newQuery(Record.newRecord(name(zone), Type.SOA, DClass.IN)));
                udp = true;
                recursion |= answer.getHeader().getFlag(Flags.RA);
                soa(answer).ifPresent(serial -> serials.put(zone, serial));
            } catch (IOException e) {
                fault = reason(e);
                // who is silent about one zone is silent about the next
                break;
            }
        }
        boolean tcp = false;
        try {
            resolver(true, null)
                    .send(Message.newQuery(
                            Record.newRecord(name(zones.isEmpty() ? "" : zones.get(0)), Type.SOA, DClass.IN)));
            tcp = true;
        } catch (IOException e) {
            fault = reason(e);
        }
        if (tcp) {
            keys.forEach((zone, key) -> updates.add(mayUpdate(zone, key)));
        }
        return new NameSample(udp, tcp, serials, recursion, updates, fault);
    }

    private static Optional<Long> soa(Message answer) {
        if (!answer.getHeader().getFlag(Flags.AA)) {
            return Optional.empty();
        }
        return answer.getSection(Section.ANSWER).stream()
                .filter(SOARecord.class::isInstance)
                .map(record -> ((SOARecord) record).getSerial())
                .findFirst();
    }

    private Reply mayUpdate(String zone, NameKey key) {
        try {
            Update update = new Update(name(zone));
            update.delete(name("_lychnos-asks." + zone), Type.TXT);
            Message answer = resolver(true, key).send(update);
            return answer.getRcode() == Rcode.NOERROR && signed(answer)
                    ? Reply.accepted(Reply.Request.UPDATE, zone)
                    : Reply.refused(Reply.Request.UPDATE, zone, refusal(answer));
        } catch (IOException e) {
            return Reply.refused(Reply.Request.UPDATE, zone, reason(e));
        }
    }

    /** A failed signature does not throw: it has to be looked at. */
    private static boolean signed(Message answer) {
        return answer.isSigned() && answer.isVerified();
    }

    private static String refusal(Message answer) {
        if (answer.getTSIG() != null && answer.getTSIG().getError() != 0) {
            return WireText.DNS_KEY_UNKNOWN.text(
                    Rcode.TSIGstring(answer.getTSIG().getError()));
        }
        return answer.getRcode() == Rcode.NOERROR ? WireText.DNS_NOT_SIGNED.text() : Rcode.string(answer.getRcode());
    }

    /**
     * The data of all records of a name, as this server has them. Where the name is an alias, what it leads to is not
     * among them.
     *
     * @throws WireFault SILENT where it does not answer
     */
    public List<String> ask(String fqdn, String type) throws WireFault {
        try {
            Name asked = name(fqdn);
            Message answer =
                    resolver(false, null).send(Message.newQuery(Record.newRecord(asked, Type.value(type), DClass.IN)));
            int code = answer.getRcode();
            if (code != Rcode.NOERROR && code != Rcode.NXDOMAIN) {
                throw new WireFault(WireFault.Kind.REFUSED, WireText.DNS_CODE.text(Rcode.string(code)));
            }
            return answer.getSection(Section.ANSWER).stream()
                    .filter(record -> record.getType() == Type.value(type)
                            && record.getName().equals(asked))
                    .map(record -> data(record))
                    .toList();
        } catch (IOException e) {
            throw new WireFault(WireFault.Kind.SILENT, WireText.DNS_SILENT.text(server, reason(e)), e);
        }
    }

    private static String data(Record record) {
        String text = record.rdataToString().toLowerCase(Locale.ROOT);
        return text.endsWith(".") ? text.substring(0, text.length() - 1) : text;
    }

    /**
     * Makes records, each only where its name bears none of its type and no alias, so that nobody else's is ever
     * changed (RFC 2136 section 2.4). Batches first; a batch that is refused is halved until each record has its own
     * answer.
     *
     * @return one answer for each record, in order
     */
    public List<Pushed> make(String zone, NameKey key, List<ZoneRecord> records) {
        return batches(zone, key, records, true);
    }

    /** Removes exactly these records; others of the same name stay. */
    public List<Pushed> remove(String zone, NameKey key, List<ZoneRecord> records) {
        return batches(zone, key, records, false);
    }

    private List<Pushed> batches(String zone, NameKey key, List<ZoneRecord> records, boolean make) {
        List<Pushed> pushed = new ArrayList<>();
        for (int from = 0; from < records.size(); from += BATCH) {
            pushed.addAll(send(zone, key, records.subList(from, Math.min(records.size(), from + BATCH)), make));
        }
        return pushed;
    }

    private List<Pushed> send(String zone, NameKey key, List<ZoneRecord> records, boolean make) {
        Message answer;
        try {
            answer = resolver(true, key).send(update(zone, records, make));
        } catch (TextParseException e) {
            return all(records, Pushed.State.REFUSED, WireText.DNS_ILLEGAL_NAME.text(e.getMessage()));
        } catch (IOException e) {
            return all(records, Pushed.State.UNKNOWN, WireText.DNS_NO_ANSWER.text(reason(e)));
        }
        if (answer.getRcode() == Rcode.NOERROR && signed(answer)) {
            return all(records, Pushed.State.DONE, "");
        }
        boolean taken = answer.getRcode() == Rcode.YXRRSET || answer.getRcode() == Rcode.YXDOMAIN;
        if (!taken) {
            return all(
                    records,
                    Pushed.State.REFUSED,
                    WireText.DNS_REFUSED.text(server.getAddress().getHostAddress(), refusal(answer)));
        }
        if (records.size() == 1) {
            return List.of(stands(records.get(0)));
        }
        int half = records.size() / 2;
        List<Pushed> pushed = new ArrayList<>(send(zone, key, records.subList(0, half), make));
        pushed.addAll(send(zone, key, records.subList(half, records.size()), make));
        return pushed;
    }

    /** Something stands under the name: ours from an earlier try, or somebody else's. */
    private Pushed stands(ZoneRecord record) {
        try {
            List<String> there = ask(record.owner(), record.type());
            if (there.equals(List.of(record.data()))) {
                return new Pushed(record, Pushed.State.THERE, "");
            }
            List<String> alias = there.isEmpty() ? ask(record.owner(), "CNAME") : List.of();
            String what = there.isEmpty()
                    ? (alias.isEmpty() ? WireText.ANOTHER_RECORD.text() : WireText.AN_ALIAS.text(alias.get(0)))
                    : String.join(", ", there);
            return new Pushed(record, Pushed.State.REFUSED, WireText.RECORD_NOT_OURS.text(record.owner(), what));
        } catch (WireFault e) {
            return new Pushed(record, Pushed.State.UNKNOWN, e.getMessage());
        }
    }

    private static Update update(String zone, List<ZoneRecord> records, boolean make) throws IOException {
        Update update = new Update(name(zone));
        for (ZoneRecord record : records) {
            Name owner = name(record.owner());
            int type = Type.value(record.type());
            String data =
                    record.type().equals("A") || record.type().equals("AAAA") ? record.data() : record.data() + ".";
            Record made = Record.fromString(owner, type, DClass.IN, TTL_SECONDS, data, Name.root);
            if (make) {
                update.absent(owner, type);
                if (type != Type.CNAME) {
                    update.absent(owner, Type.CNAME);
                }
                update.add(made);
            } else {
                update.delete(made);
            }
        }
        return update;
    }

    private static List<Pushed> all(List<ZoneRecord> records, Pushed.State state, String why) {
        return records.stream().map(record -> new Pushed(record, state, why)).toList();
    }

    /**
     * A whole zone (AXFR).
     *
     * @param key a key, or null
     * @throws WireFault REFUSED where the server gives none; GARBAGE where it breaks off before the closing SOA record,
     *     so that half a zone is never taken for the whole
     */
    public List<ZoneRecord> transfer(String zone, NameKey key) throws WireFault {
        try {
            TSIG tsig = key == null ? null : key.tsig();
            ZoneTransferIn transfer = ZoneTransferIn.newAXFR(name(zone), server, tsig);
            transfer.setTimeout(timeout);
            List<ZoneRecord> records = new ArrayList<>();
            transfer.run(new Keeper(records));
            return records;
        } catch (ZoneTransferException e) {
            boolean refused = String.valueOf(e.getMessage()).matches(".*(REFUSED|NOTAUTH|SERVFAIL|NXDOMAIN).*");
            throw new WireFault(
                    refused ? WireFault.Kind.REFUSED : WireFault.Kind.GARBAGE,
                    refused
                            ? WireText.ZONE_REFUSED.text(zone, e.getMessage())
                            : WireText.ZONE_BROKEN.text(zone, e.getMessage()),
                    e);
        } catch (java.io.EOFException e) {
            throw new WireFault(WireFault.Kind.GARBAGE, WireText.ZONE_CUT.text(zone), e);
        } catch (IOException e) {
            throw new WireFault(WireFault.Kind.SILENT, WireText.NAME_SERVER_SILENT.text(reason(e)), e);
        }
    }

    /** Keeps the kinds of record that concern addresses, and not without bound. */
    private record Keeper(List<ZoneRecord> records) implements ZoneTransferIn.ZoneTransferHandler {

        @Override
        public void startAXFR() {}

        @Override
        public void startIXFR() {}

        @Override
        public void startIXFRDeletes(Record soa) {}

        @Override
        public void startIXFRAdds(Record soa) {}

        @Override
        public void handleRecord(Record record) throws ZoneTransferException {
            if (records.size() >= MOST_RECORDS) {
                throw new ZoneTransferException(WireText.ZONE_TOO_LARGE.text(MOST_RECORDS));
            }
            if (List.of(Type.A, Type.AAAA, Type.PTR, Type.CNAME).contains(record.getType())) {
                records.add(new ZoneRecord(
                        record.getName().toString(true).toLowerCase(Locale.ROOT),
                        Type.string(record.getType()),
                        data(record)));
            }
        }
    }

    private static Name name(String text) throws TextParseException {
        return text.isEmpty() ? Name.root : Name.fromString(text.endsWith(".") ? text : text + ".");
    }

    private static String reason(IOException e) {
        return e instanceof java.net.SocketTimeoutException
                        || String.valueOf(e.getMessage()).contains("imed out")
                ? WireText.NO_ANSWER_IN_TIME.text()
                : String.valueOf(e.getMessage());
    }
}
