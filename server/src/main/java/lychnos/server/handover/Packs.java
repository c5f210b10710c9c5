package lychnos.server.handover;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.ObjectMapper;
import io.quarkus.narayana.jta.QuarkusTransaction;
import jakarta.enterprise.context.ApplicationScoped;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import lychnos.core.record.CanonicalJson;
import lychnos.core.record.Chain;
import lychnos.server.api.problem.Refusal;
import lychnos.server.configure.bench.Recordings;
import lychnos.server.handover.chain.Chaining;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.text.HandoverText;
import lychnos.server.units.BringUps;
import org.hibernate.Session;

/**
 * Makes the pack of a bring-up: what was signed, in every form that other teams ask for, in one file that can be
 * verified without a server.
 */
@ApplicationScoped
public class Packs {

    static final String RECORDS = "records.json";
    static final String FORMAT = "lychnos records 1";
    private static final int UNITS_A_VOLUME = 400;
    private static final TypeReference<Map<String, Object>> MAP = new TypeReference<>() {};

    private final Session db;
    private final BringUps bringUps;
    private final Exports exports;
    private final OpenItems items;
    private final Chaining chaining;
    private final Recordings recordings;
    private final Journal journal;
    private final ObjectMapper json;
    private final Clock clock;

    Packs(
            Session db,
            BringUps bringUps,
            Exports exports,
            OpenItems items,
            Chaining chaining,
            Recordings recordings,
            Journal journal,
            ObjectMapper json,
            Clock clock) {
        this.db = db;
        this.bringUps = bringUps;
        this.exports = exports;
        this.items = items;
        this.chaining = chaining;
        this.recordings = recordings;
        this.journal = journal;
        this.json = json;
        this.clock = clock;
    }

    /** A record that counts, and its unit. */
    private record Signed(long id, long unit) {}

    private List<Signed> signed(long bringUpId) {
        return db.createQuery(
                        "select r.id, r.unitId from SignedRecord r join Unit u on u.id = r.unitId where r.bringUpId "
                                + "= :id and r.endedAt is null order by u.number",
                        Object[].class)
                .setParameter("id", bringUpId)
                .getResultStream()
                .map(row -> new Signed((Long) row[0], (Long) row[1]))
                .toList();
    }

    /** What is done with the units of one volume. */
    @FunctionalInterface
    private interface Volume {
        void take(int number, List<PackSheets.Read> units) throws IOException;
    }

    /** Volume by volume, so that however many units there are, no more than those of one are held. */
    private void each(List<Signed> signed, Volume volume) throws IOException {
        for (int from = 0; from < signed.size(); from += UNITS_A_VOLUME) {
            List<Long> ids = signed.subList(from, Math.min(signed.size(), from + UNITS_A_VOLUME)).stream()
                    .map(Signed::id)
                    .toList();
            Map<Long, SignedRecord> records = db.createQuery("from SignedRecord where id in :ids", SignedRecord.class)
                    .setParameter("ids", ids)
                    .getResultStream()
                    .collect(Collectors.toMap(record -> record.id, Function.identity()));
            volume.take(
                    from / UNITS_A_VOLUME + 1,
                    ids.stream()
                            .map(records::get)
                            .map(record -> new PackSheets.Read(record, read(record)))
                            .toList());
            records.values().forEach(db::detach);
        }
    }

    /** What the first page counts. */
    private static final class Totals {
        int units;
        long endpoints;
        long names;
        final Set<String> places = new HashSet<>();

        void add(PackSheets.Read unit) {
            units++;
            names += unit.list("names").size();
            for (Map<String, Object> endpoint : unit.list("endpoints")) {
                endpoints++;
                if (!PackSheets.text(endpoint, "from").isEmpty()) {
                    places.add(PackSheets.text(endpoint, "from"));
                }
            }
        }
    }

    private Map<String, Object> read(SignedRecord record) {
        try {
            return json.readValue(record.body, MAP);
        } catch (IOException e) {
            throw new IllegalStateException("record " + record.id + " is no JSON any more", e);
        }
    }

    /**
     * Makes a pack in a directory of its own, for somebody to stream and to delete.
     *
     * @throws Refusal where nothing is signed yet
     */
    public Path make(long bringUpId, PackPage.Paper paper, Who.Person person) throws IOException {
        Path directory = Files.createTempDirectory("lychnos-pack");
        SortedMap<String, Path> files = new TreeMap<>();
        Path pack = directory.resolve("pack.zip");
        QuarkusTransaction.requiringNew().timeout(600).call(() -> {
            List<Signed> signed = signed(bringUpId);
            if (signed.isEmpty()) {
                throw Refusal.conflict(HandoverText.NO_UNIT_IS_SIGNED_YET.said());
            }
            for (Exports.File file : exports.of(
                            bringUpId, signed.stream().map(Signed::unit).collect(Collectors.toSet()))
                    .values()) {
                write(directory, files, file.name(), file.writer());
            }
            List<Chain.Link> chain = chaining.since(bringUpId);
            Totals totals = new Totals();
            write(directory, files, RECORDS, out -> records(out, bringUpId, signed, totals, chain));
            copySchema(directory, files);
            each(signed, (number, units) -> {
                for (PackSheets.Read each : units) {
                    recordings(directory, files, each);
                }
            });
            pdf(
                    directory,
                    files,
                    bringUpId,
                    paper,
                    signed,
                    totals,
                    chain.get(chain.size() - 1).digest());
            String manifest;
            try (OutputStream out = Files.newOutputStream(pack)) {
                manifest =
                        PackFile.write(out, files, chain.get(chain.size() - 1).digest());
            }
            long id = ((Number) db.createNativeQuery(
                                    "insert into pack (bring_up_id, manifest, made_by, made_at) values (:bringUp, "
                                            + ":manifest, :by, :at) returning id",
                                    Long.class)
                            .setParameter("bringUp", bringUpId)
                            .setParameter("manifest", manifest)
                            .setParameter("by", person.id())
                            .setParameter("at", clock.instant())
                            .getSingleResult())
                    .longValue();
            journal.write(
                    person,
                    bringUpId,
                    null,
                    HandoverText.CREATED_A_PACK.text(signed.size(), SignOff.shortened(manifest)),
                    null,
                    null);
            chaining.append(Chaining.PACK, id, manifest);
            return null;
        });
        for (Path each : files.values()) {
            Files.delete(each);
        }
        return pack;
    }

    private static void write(Path directory, SortedMap<String, Path> files, String name, Exports.Writer writer)
            throws IOException {
        Path file = directory.resolve(String.valueOf(files.size()));
        try (BufferedWriter out = Files.newBufferedWriter(file)) {
            writer.write(out);
        }
        files.put(name, file);
    }

    private static void copySchema(Path directory, SortedMap<String, Path> files) throws IOException {
        Path file = directory.resolve("schema");
        try (InputStream in = Packs.class.getResourceAsStream("/records.schema.json")) {
            Files.copy(in, file);
        }
        files.put("records.schema.json", file);
    }

    private void recordings(Path directory, SortedMap<String, Path> files, PackSheets.Read unit) throws IOException {
        for (Map<String, Object> each : unit.list("recordings")) {
            long dialogue = ((Number) each.get("dialogue")).longValue();
            write(
                    directory,
                    files,
                    "recordings/" + PackSheets.text(each, "file"),
                    out -> out.append(recordings.asciicast(dialogue)));
        }
    }

    /** Everything, machine-readable: each record with its body as it was signed, and the chain that they stand in. */
    private void records(Appendable out, long bringUpId, List<Signed> signed, Totals totals, List<Chain.Link> chain)
            throws IOException {
        BringUps.BringUpName named = bringUps.named(bringUpId);
        out.append("{\"format\":")
                .append(CanonicalJson.write(FORMAT))
                .append(",\"site\":")
                .append(CanonicalJson.write(named.site()))
                .append(",\"bringUp\":")
                .append(CanonicalJson.write(named.name()))
                .append(",\"records\":[\n");
        each(signed, (number, units) -> {
            for (PackSheets.Read unit : units) {
                out.append(totals.units == 0 ? "" : ",\n")
                        .append("{\"digest\":\"")
                        .append(unit.record().digest)
                        .append("\",\"body\":")
                        .append(unit.record().body)
                        .append('}');
                totals.add(unit);
            }
        });
        out.append("\n],\"chain\":[\n");
        for (int i = 0; i < chain.size(); i++) {
            Chain.Link link = chain.get(i);
            Map<String, Object> written = new LinkedHashMap<>(Map.of(
                    "number",
                    link.number(),
                    "sort",
                    link.sort(),
                    "body",
                    link.body(),
                    "previous",
                    link.previous(),
                    "digest",
                    link.digest()));
            out.append(i == 0 ? "" : ",\n").append(CanonicalJson.write(written));
        }
        out.append("\n]}\n");
    }

    // --- the pages ---

    private void pdf(
            Path directory,
            SortedMap<String, Path> files,
            long bringUpId,
            PackPage.Paper paper,
            List<Signed> signed,
            Totals totals,
            String digest)
            throws IOException {
        int volumes = (signed.size() + UNITS_A_VOLUME - 1) / UNITS_A_VOLUME;
        each(signed, (volume, of) -> {
            PackPage page = new PackPage(
                    paper,
                    PackPdf.FONT,
                    front(bringUpId, totals, digest, volumes == 1 ? "" : ", volume " + volume + " of " + volumes),
                    PackSheets.lines(of),
                    of.stream().map(PackSheets::sheet).toList());
            String name = volumes == 1 ? "pack.pdf" : String.format("pack-%02d.pdf", volume);
            Path file = directory.resolve(name);
            try (OutputStream out = Files.newOutputStream(file)) {
                PackPdf.write(page.xhtml(), out);
            }
            files.put(name, file);
        });
    }

    private PackPage.Front front(long bringUpId, Totals totals, String digest, String volume) {
        BringUps.BringUpName named = bringUps.named(bringUpId);
        int units = bringUps.units(bringUpId).size();
        int places = totals.places.size();
        List<OpenItems.OpenItemView> open = items.of(bringUpId);
        String at = PackSheets.minute(clock.instant());
        return new PackPage.Front(
                HandoverText.MANAGEMENT_ENDPOINTS.text(named.name(), volume),
                HandoverText.MADE_ON_ALL_TIMES_ARE_UTC.text(named.site(), at),
                digest,
                List.of(
                        new PackPage.Figure(String.valueOf(totals.units), HandoverText.UNITS_SIGNED.text(units)),
                        new PackPage.Figure(String.valueOf(totals.endpoints), HandoverText.ENDPOINTS_SEEN.text(places)),
                        new PackPage.Figure(String.valueOf(totals.names), HandoverText.NAME_RECORDS.text()),
                        new PackPage.Figure(String.valueOf(open.size()), HandoverText.OPEN_ITEMS.text(open.size()))),
                open.stream().map(OpenItems.OpenItemView::sentence).toList());
    }
}
