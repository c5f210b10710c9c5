# Everything that the server keeps, in one file, and the key of its sealed passwords in another. Sourced by lychnos.
if [ "${1:-}" = --help ] || [ $# -ne 1 ]; then
  cat <<'TXT'
usage: ./lychnos backup FILE

Writes the database to FILE (pg_dump, custom format) and the key of the sealed passwords to FILE.key, both for you
alone. The server may run meanwhile. Whoever has both has every password: keep the key somewhere else.

  LYCHNOS_DATA   where the database and the key are   (.lychnos)
TXT
  [ "${1:-}" = --help ] && exit 0
  exit 2
fi
ensure_base
[ -f "$DATA/pg/PG_VERSION" ] || die "there is no database in $DATA: nothing was ever started there"
DATA=$(cd "$DATA" && pwd)
umask 077
[ ! -e "$1" ] && [ ! -e "$1.key" ] || die "$1 is there already: a backup is never written over another"
started=
if ! PORT=$(sed -n 4p "$DATA/pg/postmaster.pid" 2>/dev/null) || ! port_open "$PORT"; then
  PORT=$(free_port 5450)
  pg_start "$DATA/pg" "$PORT" durable
  started=1
fi
trap '[ -z "$started" ] || pg_stop "$DATA/pg"' EXIT
PGPASSWORD=$(cat "$DATA/pg.password") "$(pg_bin)/pg_dump" -h 127.0.0.1 -p "$PORT" -U lychnos -d lychnos --format=custom --no-owner --file="$1" || { rm -f "$1"; die "the database could not be written to $1"; }
# as long as no password was ever sealed there is no key, and its file is empty
if [ -f "$DATA/seal.key" ]; then cp "$DATA/seal.key" "$1.key"; else : >"$1.key"; fi
say "written: $1 ($(du -h "$1" | cut -f1)), and its key: $1.key"
