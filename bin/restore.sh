# Puts a backup back where nothing is. Sourced by lychnos.
if [ "${1:-}" = --help ] || [ $# -ne 1 ]; then
  cat <<'TXT'
usage: ./lychnos restore FILE

Puts FILE, which ./lychnos backup has written, into a directory that has no database yet, and FILE.key beside it. Never
over a database that is there: move that away, or set LYCHNOS_DATA to another directory. Then: ./lychnos start

  LYCHNOS_DATA   where it is put   (.lychnos)
TXT
  [ "${1:-}" = --help ] && exit 0
  exit 2
fi
[ -f "$1" ] || die "there is no file $1"
[ -f "$1.key" ] || die "its key is missing: $1.key. Without it no password in the backup can ever be opened"
[ "$(head -c 5 "$1")" = PGDMP ] || die "$1 is no backup"
ensure_base
[ ! -e "$DATA/pg" ] && [ ! -e "$DATA/seal.key" ] || die "there is a database in $DATA already, and nothing is restored over it: move it away, or set LYCHNOS_DATA"
mkdir -p "$DATA"
DATA=$(cd "$DATA" && pwd)
umask 077
pg_password
PORT=$(free_port 5450)
pg_start "$DATA/pg" "$PORT" durable "$PWFILE"
rm -f "$PWFILE"
PGPASSWORD=$(cat "$DATA/pg.password")
export PGPASSWORD
restored=
pg_createdb "$PORT" lychnos "$PGPASSWORD"
"$(pg_bin)/pg_restore" -h 127.0.0.1 -p "$PORT" -U lychnos -d lychnos --no-owner --exit-on-error --single-transaction "$1" && restored=1
pg_stop "$DATA/pg"
# half a database would be taken for a whole one
[ -n "$restored" ] || { rm -rf "$DATA/pg" "$DATA/pg.password"; die "$1 could not be restored; nothing was kept of it"; }
[ ! -s "$1.key" ] || cp "$1.key" "$DATA/seal.key"
say "restored into $DATA. Now: ./lychnos start, and verify the record in Hand over"
