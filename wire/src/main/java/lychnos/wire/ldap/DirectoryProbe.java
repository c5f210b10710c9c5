package lychnos.wire.ldap;

import com.unboundid.ldap.sdk.Filter;
import com.unboundid.ldap.sdk.LDAPConnection;
import com.unboundid.ldap.sdk.LDAPConnectionOptions;
import com.unboundid.ldap.sdk.LDAPException;
import com.unboundid.ldap.sdk.LDAPSearchException;
import com.unboundid.ldap.sdk.ResultCode;
import com.unboundid.ldap.sdk.SearchRequest;
import com.unboundid.ldap.sdk.SearchScope;
import com.unboundid.ldap.sdk.SimpleBindRequest;
import com.unboundid.ldap.sdk.extensions.StartTLSExtendedRequest;
import com.unboundid.util.ssl.SSLUtil;
import java.net.InetSocketAddress;
import java.security.GeneralSecurityException;
import java.time.Duration;
import java.util.regex.Pattern;
import lychnos.core.kind.Kind;
import lychnos.wire.fault.WireText;
import lychnos.wire.ldap.DirectoryQuestion.Protection;
import lychnos.wire.ldap.DirectorySeen.Result;
import lychnos.wire.tcp.BoundedSockets;
import lychnos.wire.tcp.Deadline;

/** Signs in at a directory with the service account and looks for a group, as a machine does, and changes nothing. */
public final class DirectoryProbe {

    /** No answer to these questions is longer: no attribute is asked for. */
    private static final int MOST_BYTES = 64 * 1024;
    /** The whole exchange takes as long as so many answers may. */
    private static final int WHOLE = 4;
    /** RFC 4511, section 4.5.1.8: no attributes. */
    private static final String NO_ATTRIBUTES = "1.1";
    /** RFC 4514, section 3: a distinguished name begins with the type of an attribute. */
    private static final Pattern DISTINGUISHED = Pattern.compile("[A-Za-z][A-Za-z0-9-]*=");

    /** Asks once. */
    public DirectorySeen probe(InetSocketAddress directory, DirectoryQuestion question, Duration timeout) {
        PinnedCertificate trust = new PinnedCertificate(question.certificate());
        try {
            return asked(directory, question, trust, timeout);
        } catch (LDAPException e) {
            return new DirectorySeen(fault(e, trust), said(e), trust.shown());
        } catch (GeneralSecurityException e) {
            return new DirectorySeen(Result.NO_TLS, String.valueOf(e.getMessage()), trust.shown());
        }
    }

    private static DirectorySeen asked(
            InetSocketAddress directory, DirectoryQuestion question, PinnedCertificate trust, Duration timeout)
            throws LDAPException, GeneralSecurityException {
        LDAPConnectionOptions options = new LDAPConnectionOptions();
        options.setUseSynchronousMode(true);
        options.setFollowReferrals(false);
        options.setAutoReconnect(false);
        options.setConnectTimeoutMillis((int) timeout.toMillis());
        options.setResponseTimeoutMillis(timeout.toMillis());
        options.setMaxMessageSize(MOST_BYTES);
        SSLUtil tls = new SSLUtil(trust);
        LDAPConnection connection = question.protection() == Protection.TLS
                ? new LDAPConnection(tls.createSSLSocketFactory(), options)
                : new LDAPConnection(new BoundedSockets(MOST_BYTES), options);
        try (connection;
                Deadline whole = Deadline.of(connection::close, timeout.multipliedBy(WHOLE))) {
            connection.connect(directory.getAddress(), directory.getPort(), (int) timeout.toMillis());
            if (question.protection() == Protection.START_TLS) {
                ResultCode started = connection
                        .processExtendedOperation(new StartTLSExtendedRequest(tls.createSSLSocketFactory()))
                        .getResultCode();
                if (!started.equals(ResultCode.SUCCESS)) {
                    return new DirectorySeen(Result.NO_TLS, started.getName(), "");
                }
            }
            Kind.Login login = question.login();
            if (login != null) {
                connection.bind(
                        new SimpleBindRequest(login.user(), login.phrase().<String>use(text -> text)));
            }
            return new DirectorySeen(found(connection, question), "", trust.shown());
        }
    }

    private static Result found(LDAPConnection connection, DirectoryQuestion question) throws LDAPException {
        SearchRequest base = new SearchRequest(
                question.base(), SearchScope.BASE, Filter.createPresenceFilter("objectClass"), NO_ATTRIBUTES);
        if (count(connection, base) == 0) {
            return Result.NO_BASE;
        }
        if (question.group().isEmpty()) {
            return Result.FOUND;
        }
        SearchRequest group = DISTINGUISHED.matcher(question.group()).lookingAt()
                ? new SearchRequest(
                        question.group(), SearchScope.BASE, Filter.createPresenceFilter("objectClass"), NO_ATTRIBUTES)
                : new SearchRequest(
                        question.base(),
                        SearchScope.SUB,
                        Filter.createEqualityFilter("cn", question.group()),
                        NO_ATTRIBUTES);
        // two are enough to know that the name does not tell which
        group.setSizeLimit(2);
        int found = count(connection, group);
        return found == 0 ? Result.NO_GROUP : found == 1 ? Result.FOUND : Result.SEVERAL_GROUPS;
    }

    private static int count(LDAPConnection connection, SearchRequest request) throws LDAPException {
        try {
            return connection.search(request).getEntryCount();
        } catch (LDAPSearchException e) {
            if (e.getResultCode().equals(ResultCode.NO_SUCH_OBJECT)
                    || e.getResultCode().equals(ResultCode.INVALID_DN_SYNTAX)
                    || e.getResultCode().equals(ResultCode.INSUFFICIENT_ACCESS_RIGHTS)) {
                return 0;
            }
            if (e.getResultCode().equals(ResultCode.SIZE_LIMIT_EXCEEDED)) {
                return e.getEntryCount();
            }
            throw e;
        }
    }

    private static Result fault(LDAPException fault, PinnedCertificate trust) {
        if (!fault.getResultCode().isClientSideResultCode()) {
            return Result.REFUSED;
        }
        return trust.shown().isEmpty() ? Result.SILENT : Result.NOT_TRUSTED;
    }

    /** What it said itself; a library's own sentence about a connection is not for people. */
    private static String said(LDAPException fault) {
        if (fault.getResultCode().isClientSideResultCode()) {
            return WireText.NO_LDAP_ANSWER.text();
        }
        String own = fault.getDiagnosticMessage();
        return own == null || own.isEmpty() ? fault.getResultCode().getName() : own;
    }
}
