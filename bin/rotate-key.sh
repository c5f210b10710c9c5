# A new key for the sealed passwords. Sourced by lychnos.
rotate_usage() {
  cat <<'TXT'
usage: ./lychnos rotate-key

Makes a new key and seals every password with it. The server must be stopped. The key file has both keys until all
passwords are sealed with the new one: after a crash, run the command again. An earlier backup still needs the key
that was written with it. Several servers that share a database: stop all of them, run this on one, and copy its key
file to the others.

  LYCHNOS_DATA   where the database and the key are   (.lychnos)
TXT
}
case ${1:-} in '') ;; --help) rotate_usage; exit 0 ;; *) rotate_usage >&2; exit 2 ;; esac
[ -f "$DATA/pg/PG_VERSION" ] || die "there is no database in $DATA: nothing was ever started there"
[ -f "$DATA/seal.key" ] || die "there is no key in $DATA: no password was sealed yet"
DATA=$(cd "$DATA" && pwd)
[ ! -f "$DATA/pg/postmaster.pid" ] || ! port_open "$(sed -n 4p "$DATA/pg/postmaster.pid")" \
  || die "the server runs: ./lychnos stop, then rotate the key"
ensure_base
ensure_node
ensure_built
umask 077
PORT=$(free_port 5450)
pg_start "$DATA/pg" "$PORT" durable
trap 'pg_stop "$DATA/pg"' EXIT
QUARKUS_DATASOURCE_JDBC_URL=jdbc:postgresql://127.0.0.1:$PORT/lychnos QUARKUS_DATASOURCE_USERNAME=lychnos \
  QUARKUS_DATASOURCE_PASSWORD=$(cat "$DATA/pg.password") \
  LYCHNOS_SEAL_KEY_FILE=$DATA/seal.key app_java lychnos.server.secrets.RotateMain \
    || die "the key was not rotated; each password is sealed with one of the keys of the file: run it again"
say "the key was rotated. Make a backup now: earlier ones need the earlier key"
