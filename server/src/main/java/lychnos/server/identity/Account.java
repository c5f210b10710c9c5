package lychnos.server.identity;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Instant;

/** A person who may sign in. */
@Entity
public class Account {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    public String login;
    public String name;
    public String role;

    @Column(name = "password_hash")
    public String passwordHash;

    /** Nobody signs in with it since then; null where it may be used. */
    @Column(name = "disabled_at")
    public Instant disabledAt;
}
