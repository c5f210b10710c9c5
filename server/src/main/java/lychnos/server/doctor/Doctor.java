package lychnos.server.doctor;

import jakarta.enterprise.context.ApplicationScoped;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Clock;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javax.sql.DataSource;
import lychnos.server.LychnosConfig;
import lychnos.server.text.DoctorText;
import lychnos.server.vantage.Vantages;
import org.eclipse.microprofile.config.inject.ConfigProperty;
import org.flywaydb.core.Flyway;

/** Looks at what the running server needs: its machine, its database, and its vantage points. */
@ApplicationScoped
public class Doctor {

    private final LychnosConfig config;
    private final DataSource database;
    private final Flyway flyway;
    private final Vantages vantages;
    private final Clock clock;
    private final Optional<List<Path>> certificates;

    Doctor(
            LychnosConfig config,
            DataSource database,
            Flyway flyway,
            Vantages vantages,
            Clock clock,
            @ConfigProperty(name = "quarkus.http.ssl.certificate.files") Optional<List<Path>> certificates) {
        this.config = config;
        this.database = database;
        this.flyway = flyway;
        this.vantages = vantages;
        this.clock = clock;
        this.certificates = certificates;
    }

    /** Everything that was looked at, what needs somebody first. */
    public List<DoctorLine> lines() {
        List<DoctorLine> lines = new ArrayList<>(new MachineExam(settings(), Path.of("/proc"), clock).lines());
        lines.addAll(database());
        vantages.all().forEach(vantage -> lines.add(of(vantage)));
        return inOrder(lines);
    }

    /** What needs somebody first; else as it was looked at. */
    static List<DoctorLine> inOrder(List<DoctorLine> lines) {
        return lines.stream()
                .sorted((one, other) -> other.state().compareTo(one.state()))
                .toList();
    }

    private MachineExam.MachineSettings settings() {
        Map<String, Path> folders = new LinkedHashMap<>();
        folders.put("the key", config.seal().keyFile().toAbsolutePath().getParent());
        folders.put("images", config.images());
        return new MachineExam.MachineSettings(
                config.lab(),
                config.reach().machines().orElse(List.of()),
                config.seal().keyFile(),
                folders,
                certificates.flatMap(files -> files.stream().findFirst()));
    }

    private List<DoctorLine> database() {
        try (Connection connection = database.getConnection()) {
            String role = connection.getMetaData().getUserName();
            return new DatabaseExam(connection, flyway.info(), role, config.lab(), clock).lines();
        } catch (SQLException e) {
            return List.of(DoctorLine.bad(DoctorText.DATABASE_DOES_NOT_ANSWER, e.getMessage())
                    .advised(DoctorText.DATABASE_START));
        }
    }

    static DoctorLine of(Vantages.VantageView vantage) {
        if (vantage.otherVersion()) {
            return DoctorLine.bad(DoctorText.VANTAGE_OF_ANOTHER_VERSION, vantage.name())
                    .advised(DoctorText.VANTAGE_UPDATE);
        }
        if (vantage.linked()) {
            return DoctorLine.good(DoctorText.VANTAGE_IS_CONNECTED, vantage.name());
        }
        DoctorLine.Found found = vantage.seenAt() == null
                ? DoctorLine.look(DoctorText.VANTAGE_NEVER_SEEN, vantage.name())
                : DoctorLine.look(
                        DoctorText.VANTAGE_NOT_CONNECTED,
                        vantage.name(),
                        vantage.seenAt().atZone(ZoneOffset.UTC).toLocalDate());
        return found.advised(DoctorText.VANTAGE_CONNECT);
    }
}
