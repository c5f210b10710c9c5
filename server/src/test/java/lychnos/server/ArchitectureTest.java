package lychnos.server;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.domain.JavaModifier;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;

/** The arrows between the modules point one way. */
class ArchitectureTest {

    private static final JavaClasses ALL = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages("lychnos");

    @Test
    void coreKnowsNoFrameworkNoSocketNoDatabaseAndNoClock() {
        assertTrue(
                ALL.stream().anyMatch(type -> type.getPackageName().startsWith("lychnos.core")), "core is looked at");
        classes()
                .that()
                .resideInAPackage("lychnos.core..")
                .should()
                .onlyDependOnClassesThat()
                .resideInAnyPackage(
                        "lychnos.core..",
                        "java.lang..",
                        "java.util..",
                        "java.time..",
                        "java.io..",
                        "java.nio",
                        "java.nio.charset..",
                        "java.security..",
                        "org.apache.commons.csv..",
                        "org.snakeyaml.engine..")
                .check(ALL);
        noClasses()
                .that()
                .resideInAPackage("lychnos.core..")
                .should()
                .callMethod(java.time.Instant.class, "now")
                .orShould()
                .callMethod(System.class, "currentTimeMillis")
                .orShould()
                .callMethod(java.time.LocalDate.class, "now")
                .orShould()
                .callMethod(System.class, "nanoTime")
                .check(ALL);
    }

    /** A ticker and a clock are passed in, so that a test can turn them. */
    @Test
    void serverAndWireReadNoClockThemselves() {
        noClasses()
                .that()
                .resideInAnyPackage("lychnos.server..", "lychnos.wire..")
                .and()
                .doNotHaveSimpleName("Ticker")
                .and()
                .doNotHaveSimpleName("Outbox") // waits on a monitor, which knows real time alone
                .and()
                .doNotHaveSimpleName("SealMain") // a command of its own
                .should()
                .callMethod(java.time.Instant.class, "now")
                .orShould()
                .callMethod(System.class, "currentTimeMillis")
                .orShould()
                .callMethod(java.time.LocalDate.class, "now")
                .orShould()
                .callMethod(System.class, "nanoTime")
                .check(ALL);
    }

    /** Entities that other packages still see; the others are known in their own package alone. */
    private static final List<String> SEEN_BY_OTHERS = List.of(
            "Account",
            "AddressRange",
            "BringUp",
            "Claim",
            "GivenFact",
            "MeasuredService",
            "MemberDialogue",
            "Network",
            "Proof",
            "Round",
            "Run",
            "RunStep",
            "Site",
            "SiteResourceRow",
            "Unit",
            "UnknownDevice");

    @Test
    void entitiesStayInTheirPackages() {
        List<String> seen = ALL.stream()
                .filter(type -> type.isAnnotatedWith(jakarta.persistence.Entity.class))
                .filter(type -> type.getModifiers().contains(JavaModifier.PUBLIC))
                .map(JavaClass::getSimpleName)
                .sorted()
                .toList();
        assertEquals(SEEN_BY_OTHERS, seen);
    }

    /** What two packages need of each other belongs into a third one, or they are one. */
    @Test
    void noPackagesNeedEachOther() {
        for (String module : List.of("core", "wire", "server", "lab")) {
            slices().matching("lychnos." + module + ".(**)")
                    .should()
                    .beFreeOfCycles()
                    .check(ALL);
        }
    }

    /** The packages of the server, each of which needs none but those before it. */
    static final List<String> ORDER = List.of(
            "text",
            "time",
            "log",
            "database",
            "api.problem",
            "identity.caller",
            "live",
            "journal",
            "secrets",
            "identity",
            "live.sockets",
            "site",
            "image",
            "kinds",
            "units",
            "allocate",
            "api",
            "jobs",
            "vantage",
            "doctor",
            "configure.model",
            "configure.plan",
            "configure.line",
            "configure.remote",
            "configure",
            "prove",
            "prove.notices",
            "configure.network",
            "configure.bench",
            "handover.chain",
            "handover",
            "requests",
            "board",
            "prepare");

    @Test
    void packagesOfTheServerNeedOnlyThoseBeforeThem() {
        for (int i = 0; i < ORDER.size(); i++) {
            noClasses()
                    .that()
                    .resideInAPackage("lychnos.server." + ORDER.get(i))
                    .should()
                    .dependOnClassesThat()
                    .resideInAnyPackage(ORDER.subList(i + 1, ORDER.size()).stream()
                            .map(later -> "lychnos.server." + later)
                            .toArray(String[]::new))
                    .check(ALL);
        }
        assertTrue(
                ALL.stream()
                        .map(JavaClass::getPackageName)
                        .filter(name -> name.startsWith("lychnos.server."))
                        .map(name -> name.substring("lychnos.server.".length()))
                        .allMatch(ORDER::contains),
                "a package of the server has no place in the order");
    }

    @Test
    void wireDependsOnCoreAlone() {
        noClasses()
                .that()
                .resideInAPackage("lychnos.wire..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(
                        "lychnos.server..",
                        "lychnos.lab..",
                        "jakarta.ws..",
                        "jakarta.inject..",
                        "jakarta.enterprise..",
                        "jakarta.persistence..",
                        "jakarta.transaction..",
                        "org.hibernate..",
                        "java.sql..")
                .check(ALL);
    }

    @Test
    void theLabStandsApart() {
        noClasses()
                .that()
                .resideInAPackage("lychnos.lab..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("lychnos.core..", "lychnos.wire..", "lychnos.server..")
                .check(ALL);
        noClasses()
                .that()
                .resideInAPackage("lychnos.server..")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("lychnos.lab..")
                .check(ALL);
    }

    @Test
    void onlyTheWireOpensConnectionsToMachines() {
        noClasses()
                .that()
                .resideInAPackage("lychnos.server..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("java.net.http..", "javax.net..")
                .check(ALL);
        // a FileChannel alone, which is no connection
        noClasses()
                .that()
                .resideInAPackage("lychnos.server..")
                .should()
                .dependOnClassesThat(JavaClass.Predicates.resideInAPackage("java.nio.channels..")
                        .and(DescribedPredicate.not(JavaClass.Predicates.equivalentTo(FileChannel.class))))
                .check(ALL);
        noClasses()
                .that()
                .resideInAPackage("lychnos.server..")
                .should()
                .dependOnClassesThat()
                .haveFullyQualifiedName("java.net.Socket")
                .check(ALL);
    }

    @Test
    void theWebApplicationAsksNoOtherOrigin() throws IOException {
        try (var files = Files.walk(Path.of("../web/src"))) {
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                String text = Files.readString(file).replace("http://www.w3.org/2000/svg", "");
                assertFalse(text.contains("http://") || text.contains("https://"), file + " names another origin");
            }
        }
    }
}
