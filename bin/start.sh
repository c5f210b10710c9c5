# The server for real work. Sourced by lychnos.
if [ "${1:-}" = --help ]; then
  cat <<'TXT'
usage: ./lychnos start

Starts PostgreSQL in .lychnos/pg (durable, with a password) and the server on loopback, in the background.
The first time it prints a one-time code: with it the first lead sets a password in the browser.

  LYCHNOS_DATA        where the database, the keys and the logs are          (.lychnos)
  LYCHNOS_HTTP_PORT   the port of the web page                               (8080)
  LYCHNOS_HTTP_HOST   the address it listens at; put a TLS proxy before
                      it where browsers come from elsewhere, and set
                      LYCHNOS_COOKIE_SECURE=true                             (127.0.0.1)
  LYCHNOS_COOL_OFF    how long a released address is given to nobody         (24h)
  LYCHNOS_DHCP_LEASE_FILES
                      lease files on this machine, with commas between: what
                      they hold is given to nobody                           (none)
TXT
  exit 0
fi
ensure_base
ensure_node
ensure_built
mkdir -p "$DATA"
DATA=$(cd "$DATA" && pwd)
[ ! -f "$DATA/start.pid" ] || ! kill -0 "$(cat "$DATA/start.pid")" 2>/dev/null || die "it runs already: ./lychnos status"
if [ "$(id -u)" = 0 ] && [ -z "${LYCHNOS_MAPPED:-}" ] && ! setpriv --reuid=postgres --regid=postgres --init-groups test -x "$DATA"; then
  die "the database runs as postgres, who cannot reach $DATA: set LYCHNOS_DATA to a directory that others may enter, such as /var/lib/lychnos"
fi
umask 077
pg_password
PORT=$(free_port "${LYCHNOS_HTTP_PORT:-8080}")
[ "$PORT" = "${LYCHNOS_HTTP_PORT:-8080}" ] || die "port ${LYCHNOS_HTTP_PORT:-8080} is taken: set LYCHNOS_HTTP_PORT"
fresh=; [ -f "$DATA/pg/PG_VERSION" ] || fresh=1
export PORT DATA fresh PWFILE
# one process that holds both, so that stop ends them in order
setsid bash -c '
  . "$ROOT/bin/common.sh"
  PG=$(free_port 5450)
  pg_start "$DATA/pg" "$PG" durable "$PWFILE"
  rm -f "$PWFILE"
  password=$(cat "$DATA/pg.password")
  [ -z "$fresh" ] || pg_createdb "$PG" lychnos "$password"
  QUARKUS_DATASOURCE_JDBC_URL=jdbc:postgresql://127.0.0.1:$PG/lychnos QUARKUS_DATASOURCE_USERNAME=lychnos QUARKUS_DATASOURCE_PASSWORD=$password \
    QUARKUS_HTTP_PORT=$PORT QUARKUS_HTTP_HOST=${LYCHNOS_HTTP_HOST:-127.0.0.1} LYCHNOS_SEAL_KEY_FILE=$DATA/seal.key LYCHNOS_FIRST_LEAD_FILE=$DATA/first-lead.code \
    java -XX:TieredStopAtLevel=1 -XX:+UseSerialGC -jar "$SERVER_JAR" >>"$DATA/server.log" 2>&1 &
  server=$!
  trap "kill \$server 2>/dev/null" TERM INT
  # a signal ends the first wait, the second one sees the server out
  wait $server; wait $server 2>/dev/null
  pg_stop "$DATA/pg"
' >>"$DATA/start.log" 2>&1 </dev/null &
echo $! >"$DATA/start.pid"
echo "http://${LYCHNOS_HTTP_HOST:-127.0.0.1}:$PORT/" >"$DATA/start.url"
wait_for "the server" 90 "$DATA/start.log" port_open "$PORT"
say "open $(cat "$DATA/start.url")"
if [ -f "$DATA/first-lead.code" ]; then say "one-time code for the first lead: $(cat "$DATA/first-lead.code")"; fi
