package lychnos.server.allocate;

import jakarta.enterprise.context.ApplicationScoped;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import lychnos.core.address.Address;
import lychnos.core.existing.ExistingList;
import lychnos.core.existing.InUse;
import lychnos.core.fact.CsvText;
import lychnos.server.LychnosConfig;
import lychnos.server.api.problem.Refusal;
import lychnos.server.text.AllocateText;

/** What DHCP servers on this machine have leased, read again each time that somebody asks. */
@ApplicationScoped
public class Leases {

    private final LychnosConfig config;

    Leases(LychnosConfig config) {
        this.config = config;
    }

    /**
     * By address, its lease.
     *
     * @throws Refusal when a configured file cannot be read: then leases are unknown
     */
    public Map<Address, InUse> held() {
        Map<Address, InUse> held = new HashMap<>();
        for (Path file : config.dhcpLeaseFiles().orElse(List.of())) {
            try {
                if (Files.size(file) > CsvText.MAX_LENGTH) {
                    throw unreadable(file, AllocateText.IS_LONGER_THAN_BYTES.text(CsvText.MAX_LENGTH));
                }
                ExistingList list = ExistingList.parse(Files.readString(file, StandardCharsets.ISO_8859_1));
                list.uses().forEach(use -> held.put(use.address(), use));
            } catch (IOException e) {
                throw unreadable(file, AllocateText.CANNOT_BE_READ.text(e.getMessage()));
            }
        }
        return held;
    }

    private static Refusal unreadable(Path file, String why) {
        return Refusal.conflict(AllocateText.DHCP_LEASE_FILE_IS_CONFIGURED.said(file, why));
    }
}
