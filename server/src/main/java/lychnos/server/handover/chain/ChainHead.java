package lychnos.server.handover.chain;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Status;
import jakarta.transaction.Synchronization;
import jakarta.transaction.TransactionSynchronizationRegistry;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Optional;
import lychnos.core.record.Chain.Link;
import lychnos.server.LychnosConfig;
import org.jboss.logging.Logger;

/**
 * The newest end of the chain that this server has seen, in a file of its own beside the database: somebody who can
 * write the whole database can compute another chain, and not this file. Packs that were given away hold such ends too.
 */
@ApplicationScoped
class ChainHead {

    private static final Logger LOG = Logger.getLogger(ChainHead.class);

    private final Optional<Path> file;
    private final TransactionSynchronizationRegistry transaction;

    ChainHead(LychnosConfig config, TransactionSynchronizationRegistry transaction) {
        this.file = config.chainHeadFile();
        this.transaction = transaction;
    }

    /** A link by its number and digest. */
    record Seen(long number, String digest) {}

    /** Remembers a link once the transaction that has appended it is committed. */
    void remember(Link link) {
        if (file.isEmpty()) {
            return;
        }
        transaction.registerInterposedSynchronization(new Synchronization() {
            @Override
            public void beforeCompletion() {}

            @Override
            public void afterCompletion(int status) {
                if (status == Status.STATUS_COMMITTED) {
                    write(link);
                }
            }
        });
    }

    private synchronized void write(Link link) {
        try {
            if (seen().map(Seen::number).orElse(0L) >= link.number()) {
                return;
            }
            Path half = file.get().resolveSibling(file.get().getFileName() + ".new");
            Files.writeString(half, link.number() + " " + link.digest() + "\n");
            Files.move(half, file.get(), StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
        } catch (IOException e) {
            LOG.errorf("The end of the chain cannot be written to %s (%s).", file.get(), e.getMessage());
        }
    }

    /** What was seen last; empty where nothing was yet. */
    Optional<Seen> seen() throws IOException {
        if (file.isEmpty() || !Files.exists(file.get())) {
            return Optional.empty();
        }
        String[] words = Files.readString(file.get()).strip().split(" ");
        return words.length == 2 && words[0].matches("\\d{1,18}")
                ? Optional.of(new Seen(Long.parseLong(words[0]), words[1]))
                : Optional.empty();
    }
}
