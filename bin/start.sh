# The server for real work. Sourced by lychnos.
if [ "${1:-}" = --help ]; then
  cat <<'TXT'
usage: ./lychnos start [--reach PREFIX,…] [--reach-notices PREFIX,…]

Starts PostgreSQL in .lychnos/pg (durable, with a password) and the server on loopback, in the background.
The first time it prints a one-time code: with it the first lead sets a password in the browser. ./lychnos account
adds others.

--reach          prefixes that the server may reach: the management networks and services of your sites must be inside.
                 Until it is set, nothing is reached. The value is saved; a new one replaces it.
--reach-notices  further prefixes for webhooks and mail relays

  LYCHNOS_DATA        where the database, the keys and the logs are          (.lychnos)
  LYCHNOS_HTTP_PORT   the port of the web page                               (8080)
  LYCHNOS_HTTP_HOST   the address it listens at. Any other than loopback only
                      with TLS: of its own (QUARKUS_HTTP_SSL_CERTIFICATE_FILES
                      and …_KEY_FILES), or of a proxy that is named in
                      LYCHNOS_TRUSTED_PROXY                                  (127.0.0.1)
  LYCHNOS_TRUSTED_PROXY
                      the address of the TLS proxy in front of the server: its
                      forwarding headers are trusted, and the cookie is sent
                      over HTTPS only                                        (none)
  LYCHNOS_SESSION_IDLE, LYCHNOS_SESSION_LONGEST
                      idle and absolute limit of sessions                    (4h, 20h)
  LYCHNOS_COOL_OFF    how long a released address is held back               (24h)
  LYCHNOS_DHCP_LEASE_FILES
                      lease files on this machine, separated by commas:
                      leased addresses are not allocated                     (none)
TXT
  exit 0
fi
while [ $# -gt 0 ]; do
  case $1 in
    --reach|--reach-notices)
      [[ ${2:-} =~ ^[0-9a-fA-F.:/,]+$ ]] \
        || die "$1 needs prefixes separated by commas, such as 10.40.0.0/13,fd40:a4da:1::/48"
      mkdir -p "$DATA"; echo "$2" >"$DATA/${1#--}"; shift ;;
    *) die "unknown option “$1”: ./lychnos start --help" ;;
  esac
  shift
done
HOST=${LYCHNOS_HTTP_HOST:-127.0.0.1}
case $HOST in
  127.*|::1|localhost) ;;
  *) [ -n "${LYCHNOS_TRUSTED_PROXY:-}" ] || [ -n "${QUARKUS_HTTP_SSL_CERTIFICATE_FILES:-}" ] \
       || die "the server does not listen at $HOST without TLS, since passwords would cross the network unencrypted." \
         "Give it a certificate, or name its TLS proxy in LYCHNOS_TRUSTED_PROXY (./lychnos start --help)" ;;
esac
if [ -n "${LYCHNOS_TRUSTED_PROXY:-}" ]; then
  export QUARKUS_HTTP_PROXY_PROXY_ADDRESS_FORWARDING=true QUARKUS_HTTP_PROXY_ENABLE_FORWARDED_HOST=true \
    QUARKUS_HTTP_PROXY_TRUSTED_PROXIES=$LYCHNOS_TRUSTED_PROXY
fi
if [ -n "${LYCHNOS_TRUSTED_PROXY:-}${QUARKUS_HTTP_SSL_CERTIFICATE_FILES:-}" ]; then
  export LYCHNOS_COOKIE_SECURE=${LYCHNOS_COOKIE_SECURE:-true}
fi
ensure_base
ensure_node
ensure_built
mkdir -p "$DATA"
DATA=$(cd "$DATA" && pwd)
[ ! -f "$DATA/start.pid" ] || ! kill -0 "$(cat "$DATA/start.pid")" 2>/dev/null \
  || die "the server is already running: ./lychnos status"
if [ "$(id -u)" = 0 ] && [ -z "${LYCHNOS_MAPPED:-}" ] \
  && ! setpriv --reuid=postgres --regid=postgres --init-groups test -x "$DATA"; then
  die "the database runs as postgres, who cannot reach $DATA: set LYCHNOS_DATA, such as to /var/lib/lychnos"
fi
umask 077
pg_password
PORT=$(free_port "${LYCHNOS_HTTP_PORT:-8080}")
[ "$PORT" = "${LYCHNOS_HTTP_PORT:-8080}" ] || die "port ${LYCHNOS_HTTP_PORT:-8080} is taken: set LYCHNOS_HTTP_PORT"
fresh=; [ -f "$DATA/pg/PG_VERSION" ] || fresh=1
REACH=$(cat "$DATA/reach" 2>/dev/null || true) NOTICES=$(cat "$DATA/reach-notices" 2>/dev/null || true)
export PORT DATA HOST fresh PWFILE REACH NOTICES
# one process that holds both, so that stop ends them in order
setsid bash -c '
  . "$ROOT/bin/common.sh"
  PG=$(free_port 5450)
  pg_start "$DATA/pg" "$PG" durable "$PWFILE"
  rm -f "$PWFILE"
  password=$(cat "$DATA/pg.password")
  [ -z "$fresh" ] || pg_createdb "$PG" lychnos "$password"
  pg_roles "$PG" "$password"
  export QUARKUS_DATASOURCE_JDBC_URL=jdbc:postgresql://127.0.0.1:$PG/lychnos QUARKUS_DATASOURCE_USERNAME=lychnos_app
  LYCHNOS_DB_OWNER=lychnos_owner LYCHNOS_DB_OWNER_PASSWORD=$OWNER_PASSWORD \
    app_java lychnos.server.database.MigrateMain || { pg_stop "$DATA/pg"; exit 1; }
  [ -z "$REACH" ] || export LYCHNOS_REACH_MACHINES=$REACH
  [ -z "$NOTICES" ] || export LYCHNOS_REACH_NOTICES=$NOTICES
  # the log is turned over by the server itself; what comes before it, and what a crash leaves, is in server.out
  QUARKUS_DATASOURCE_PASSWORD=$APP_PASSWORD QUARKUS_FLYWAY_MIGRATE_AT_START=false \
    LYCHNOS_CHAIN_HEAD_FILE=$DATA/chain.head LYCHNOS_IMAGES=$DATA/images \
    QUARKUS_LOG_FILE_ENABLED=true QUARKUS_LOG_FILE_PATH=$DATA/server.log QUARKUS_LOG_FILE_ROTATION_MAX_FILE_SIZE=10M \
      QUARKUS_LOG_FILE_ROTATION_MAX_BACKUP_INDEX=5 QUARKUS_LOG_CONSOLE_ENABLED=false \
    QUARKUS_HTTP_PORT=$PORT QUARKUS_HTTP_HOST=$HOST LYCHNOS_SEAL_KEY_FILE=$DATA/seal.key \
      LYCHNOS_FIRST_LEAD_FILE=$DATA/first-lead.code \
    java -XX:+UseSerialGC -jar "$SERVER_JAR" >"$DATA/server.out" 2>&1 &
  server=$!
  trap "kill \$server 2>/dev/null" TERM INT
  # a signal ends the first wait, the second one sees the server out
  wait $server; wait $server 2>/dev/null
  pg_stop "$DATA/pg"
' >>"$DATA/start.log" 2>&1 </dev/null &
echo $! >"$DATA/start.pid"
echo "http://$HOST:$PORT/" >"$DATA/start.url"
wait_for "the server" 180 "$DATA/start.log" port_open "$PORT"
say "open $(cat "$DATA/start.url")"
[ -n "$REACH" ] || say "the server may not reach any network yet: ./lychnos stop, then" \
  "./lychnos start --reach PREFIX,… with your management networks"
if [ -f "$DATA/first-lead.code" ]; then say "one-time code for the first lead: $(cat "$DATA/first-lead.code")"; fi
