# Puts a backup back where nothing is. Sourced by lychnos.
restore_usage() {
  cat <<'TXT'
usage: ./lychnos restore FILE --key KEYFILE [--passphrase-file P]

Restores FILE and KEYFILE, written by ./lychnos backup, into a directory without a database. Without --passphrase-
file it asks for the passphrase. Decrypt a backup for a public key first: gpg --decrypt FILE >PLAIN. An existing
database is never overwritten: move it away, or set LYCHNOS_DATA to another directory. Then run ./lychnos start

  LYCHNOS_DATA   the directory to restore into   (.lychnos)
TXT
}
[ "${1:-}" = --help ] && { restore_usage; exit 0; }
FILE= KEYFILE= GIVEN=
while [ $# -gt 0 ]; do
  case $1 in
    --key) KEYFILE=${2:-}; shift ;;
    --passphrase-file) GIVEN=${2:-}; shift ;;
    -*) restore_usage >&2; exit 2 ;;
    *) FILE=$1 ;;
  esac
  shift
done
[ -n "$FILE" ] && [ -n "$KEYFILE" ] || { restore_usage >&2; exit 2; }
[ -f "$FILE" ] || die "there is no file $FILE"
[ -f "$KEYFILE" ] || die "its key is missing: $KEYFILE. Without it no password in the backup can ever be opened"
ensure_base
[ ! -e "$DATA/pg" ] && [ ! -e "$DATA/seal.key" ] \
  || die "there is a database in $DATA already, and nothing is restored over it: move it away, or set LYCHNOS_DATA"
mkdir -p "$DATA" # before the mask: the database runs as another user, who must be able to enter it
umask 077
PLAIN=$(mktemp -d)
trap 'rm -rf "$PLAIN"' EXIT
if [ "$(head -c 5 "$FILE")" = PGDMP ]; then
  DUMP=$FILE # decrypted already, or of an earlier version
else
  if [ -z "$GIVEN" ]; then
    [ -t 0 ] || die "$FILE is encrypted: --passphrase-file"
    read -rsp "Passphrase of the backup: " one; echo >&2
    printf %s "$one" >"$PLAIN/passphrase"; GIVEN=$PLAIN/passphrase
  fi
  [ -f "$GIVEN" ] || die "there is no file $GIVEN"
  DUMP=$PLAIN/dump
  app_java lychnos.server.secrets.SealMain open passphrase "$GIVEN" <"$FILE" >"$DUMP" \
    || die "$FILE could not be opened: is it a backup, and is the passphrase right?"
  [ "$(head -c 5 "$DUMP")" = PGDMP ] || die "$FILE is no backup"
fi
DATA=$(cd "$DATA" && pwd)
pg_password
PORT=$(free_port 5450)
pg_start "$DATA/pg" "$PORT" durable "$PWFILE"
rm -f "$PWFILE"
PGPASSWORD=$(cat "$DATA/pg.password")
export PGPASSWORD
restored=
pg_createdb "$PORT" lychnos "$PGPASSWORD"
"$(pg_bin)/pg_restore" -h 127.0.0.1 -p "$PORT" -U lychnos -d lychnos --no-owner --no-privileges --exit-on-error \
  --single-transaction "$DUMP" && restored=1
pg_stop "$DATA/pg"
# half a database would be taken for a whole one
[ -n "$restored" ] \
  || { rm -rf "$DATA/pg" "$DATA/pg.password"; die "$FILE could not be restored; nothing was kept of it"; }
[ ! -s "$KEYFILE" ] || cp "$KEYFILE" "$DATA/seal.key"
say "restored into $DATA. Now: ./lychnos start, and verify the record in Hand over"
