package lychnos.server.identity;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import lychnos.server.api.problem.OneLine;
import lychnos.server.api.problem.Refusal;
import lychnos.server.api.problem.Refusal.FieldFault;
import lychnos.server.api.problem.Shapes;
import lychnos.server.identity.caller.Credential;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.secrets.Digest;
import lychnos.server.text.IdentityText;
import org.hibernate.Session;
import org.jspecify.annotations.Nullable;

/**
 * Tokens for programs that act for a person: with a role of their own, never more than that person's, until a day that
 * is stated.
 * A token is shown once and kept as its digest.
 */
@ApplicationScoped
public class ApiTokens {

    static final String PREFIX = "lyc_";

    private static final int LONGEST_DAYS = 366;

    private final Session db;
    private final Shapes shapes;
    private final Journal journal;
    private final Live live;
    private final Clock clock;

    ApiTokens(Session db, Shapes shapes, Journal journal, Live live, Clock clock) {
        this.live = live;
        this.db = db;
        this.shapes = shapes;
        this.journal = journal;
        this.clock = clock;
    }

    /** One of a person's tokens. */
    public record TokenView(long id, String name, String role, Instant endsAt, @Nullable Instant usedAt) {}

    /** What is wanted. */
    public record TokenWanted(
            @OneLine(message = "PROGRAM_NAME") String name,
            String role,
            @Min(value = 1, message = "DAYS") @Max(value = LONGEST_DAYS, message = "DAYS") int days) {}

    /** A token that was made; it is shown this once. */
    public record NewToken(long id, String token, Instant endsAt) {}

    @Transactional
    public List<TokenView> of(Who.Person person) {
        return db.createNativeQuery(
                        "select id, name, role, ends_at, used_at from api_token where account_id = :account and "
                                + "revoked_at is null order by name",
                        Object[].class)
                .setParameter("account", person.id())
                .getResultStream()
                .map(row -> new TokenView(
                        ((Number) row[0]).longValue(), (String) row[1], (String) row[2], (Instant) row[3], (Instant)
                                row[4]))
                .toList();
    }

    @Transactional
    public NewToken make(TokenWanted wanted, Who.Person person) {
        List<FieldFault> faults = shapes.faults(wanted);
        int most = SignInMechanism.ROLES.indexOf(person.role());
        int role = SignInMechanism.ROLES.indexOf(String.valueOf(wanted.role));
        if (role < 0 || role > most) {
            faults.add(new FieldFault(
                    "role",
                    IdentityText.TOKEN_CANNOT_HAVE_A_HIGHER_ROLE_THAN_YOU.said(
                            String.join(", ", SignInMechanism.ROLES.subList(0, most + 1)))));
        }
        if (!faults.isEmpty()) {
            throw Refusal.fields(faults);
        }
        String name = wanted.name.strip();
        String token = PREFIX + Digest.token();
        Instant ends = clock.instant().plus(Duration.ofDays(wanted.days));
        List<Long> made = db.createNativeQuery(
                        "insert into api_token (account_id, name, token_digest, role, made_at, ends_at) values "
                                + "(:account, :name, :digest, :role, :now, :ends)"
                                + " on conflict (account_id, name) where revoked_at is null do nothing returning id",
                        Long.class)
                .setParameter("account", person.id())
                .setParameter("name", name)
                .setParameter("digest", digest(token))
                .setParameter("role", wanted.role)
                .setParameter("now", clock.instant())
                .setParameter("ends", ends)
                .getResultList();
        if (made.isEmpty()) {
            throw Refusal.conflict(IdentityText.YOU_ALREADY_HAVE_A_TOKEN.said(name));
        }
        journal.write(
                person,
                null,
                null,
                IdentityText.CREATED_THE_TOKEN_FOR_A_PROGRAM.text(
                        name, wanted.role, ends.toString().substring(0, 10)),
                null,
                null);
        return new NewToken(made.get(0), token, ends);
    }

    @Transactional
    public void revoke(long id, Who.Person person) {
        List<String> names = db.createNativeQuery(
                        "update api_token set revoked_at = :now where id = :id and account_id = :account and "
                                + "revoked_at is null returning name",
                        String.class)
                .setParameter("now", clock.instant())
                .setParameter("id", id)
                .setParameter("account", person.id())
                .getResultList();
        if (names.isEmpty()) {
            throw Refusal.notFound(IdentityText.YOU_HAVE_NO_SUCH_TOKEN.said());
        }
        journal.write(person, null, null, IdentityText.REVOKED_THE_TOKEN.text(names.get(0)), null, null);
        live.tell(Sessions.NO_BRING_UP, Sessions.TOPIC);
    }

    /**
     * Whom a token acts for, with the role that it has, if it is good. A person whose role is lower by now acts with
     * less.
     */
    @Transactional
    Optional<Sessions.SessionHolder> holder(String token) {
        Optional<Object[]> row = db.createNativeQuery(
                        "update api_token t set used_at = now() from account a where a.id = t.account_id and "
                                + "t.token_digest = :digest and t.revoked_at is null and t.ends_at > now() and "
                                + "a.disabled_at is null returning a.id, a.login, a.name, a.role, t.role as "
                                + "own, t.id as token",
                        Object[].class)
                .setParameter("digest", digest(token))
                .getResultStream()
                .findFirst();
        return row.map(each -> {
            int role = Math.min(
                    SignInMechanism.ROLES.indexOf((String) each[3]), SignInMechanism.ROLES.indexOf((String) each[4]));
            Who.Person person = new Who.Person(
                    ((Number) each[0]).longValue(),
                    (String) each[1],
                    (String) each[2],
                    SignInMechanism.ROLES.get(role));
            return new Sessions.SessionHolder(
                    person, new Credential(Credential.Sort.TOKEN, ((Number) each[5]).longValue(), null));
        });
    }

    private static String digest(String token) {
        return HexFormat.of().formatHex(Digest.of(token));
    }
}
