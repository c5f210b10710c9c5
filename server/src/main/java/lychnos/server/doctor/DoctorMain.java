package lychnos.server.doctor;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import lychnos.server.text.DoctorText;
import org.flywaydb.core.Flyway;

/**
 * Looks at what a server needs without one: for {@code ./lychnos doctor}. Exits with 1 where something that it needs is
 * missing.
 *
 * <p>From the environment: {@code LYCHNOS_DATA}, the folder of the installation; {@code LYCHNOS_REACH_MACHINES}, and
 * {@code QUARKUS_HTTP_SSL_CERTIFICATE_FILES}, as the server has them; {@code QUARKUS_DATASOURCE_JDBC_URL}, {@code
 * QUARKUS_DATASOURCE_USERNAME} and {@code QUARKUS_DATASOURCE_PASSWORD} of an owner of the database, if it runs; {@code
 * LYCHNOS_SERVER_ROLE}, the role of the server there.
 */
public final class DoctorMain {

    private DoctorMain() {}

    public static void main(String[] args) {
        Path data = Path.of(System.getenv().getOrDefault("LYCHNOS_DATA", ".lychnos"));
        Map<String, Path> folders = new LinkedHashMap<>();
        folders.put("the installation", data);
        List<DoctorLine> lines = new ArrayList<>(new MachineExam(
                        new MachineExam.MachineSettings(
                                false,
                                list("LYCHNOS_REACH_MACHINES"),
                                data.resolve("seal.key"),
                                folders,
                                list("QUARKUS_HTTP_SSL_CERTIFICATE_FILES").stream()
                                        .map(Path::of)
                                        .findFirst()),
                        Path.of("/proc"),
                        Clock.systemUTC())
                .lines());
        lines.addAll(database());
        List<DoctorLine> shown = Doctor.inOrder(lines);
        shown.forEach(DoctorMain::print);
        System.exit(shown.stream().anyMatch(line -> line.state() == DoctorState.BAD) ? 1 : 0);
    }

    private static List<DoctorLine> database() {
        String url = System.getenv("QUARKUS_DATASOURCE_JDBC_URL");
        if (url == null) {
            return List.of(DoctorLine.look(DoctorText.DATABASE_IS_NOT_RUNNING).advised(DoctorText.DATABASE_START));
        }
        String user = System.getenv("QUARKUS_DATASOURCE_USERNAME");
        String password = System.getenv("QUARKUS_DATASOURCE_PASSWORD");
        try (Connection connection = DriverManager.getConnection(url, user, password)) {
            Flyway flyway = Flyway.configure().dataSource(url, user, password).load();
            return new DatabaseExam(
                            connection, flyway.info(), System.getenv("LYCHNOS_SERVER_ROLE"), false, Clock.systemUTC())
                    .lines();
        } catch (SQLException e) {
            return List.of(DoctorLine.bad(DoctorText.DATABASE_DOES_NOT_ANSWER, e.getMessage())
                    .advised(DoctorText.DATABASE_START));
        }
    }

    private static List<String> list(String name) {
        return Optional.ofNullable(System.getenv(name)).stream()
                .flatMap(value -> Stream.of(value.split(",")))
                .filter(each -> !each.isBlank())
                .toList();
    }

    private static void print(DoctorLine line) {
        String mark =
                switch (line.state()) {
                    case GOOD -> "good";
                    case LOOK -> "look";
                    case BAD -> "BAD ";
                };
        System.out.println(mark + "  " + line.text());
        if (line.advice() != null) {
            System.out.println("      " + line.advice());
        }
    }
}
