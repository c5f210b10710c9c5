# Everything that the server keeps, encrypted, in one file, and the key of its sealed passwords in another place.
# Sourced by lychnos.
backup_usage() {
  cat <<'TXT'
usage: ./lychnos backup FILE --key KEYFILE (--passphrase-file P | --for PUBLIC-KEY)

Writes the database to FILE, encrypted (OpenPGP, AES-256) with the passphrase in file P or for an ASCII-armored
OpenPGP public key. Without either it asks for a passphrase. The key of the sealed passwords is written to KEYFILE,
which must be in another directory: FILE, KEYFILE and the passphrase together give access to all passwords. The
server can keep running.

  LYCHNOS_DATA   where the database and the key are   (.lychnos)
TXT
}
[ "${1:-}" = --help ] && { backup_usage; exit 0; }
FILE= KEYFILE= HOW= GIVEN=
while [ $# -gt 0 ]; do
  case $1 in
    --key) KEYFILE=${2:-}; shift ;;
    --passphrase-file) HOW=passphrase GIVEN=${2:-}; shift ;;
    --for) HOW=key GIVEN=${2:-}; shift ;;
    -*) backup_usage >&2; exit 2 ;;
    *) FILE=$1 ;;
  esac
  shift
done
[ -n "$FILE" ] && [ -n "$KEYFILE" ] || { backup_usage >&2; exit 2; }
ensure_base
[ -f "$DATA/pg/PG_VERSION" ] || die "there is no database in $DATA: nothing was ever started there"
DATA=$(cd "$DATA" && pwd)
umask 077
[ ! -e "$FILE" ] && [ ! -e "$KEYFILE" ] \
  || die "$FILE or $KEYFILE is there already: a backup is never written over another"
[ "$(realpath -m "$(dirname "$FILE")")" != "$(realpath -m "$(dirname "$KEYFILE")")" ] \
  || die "$KEYFILE must be in another directory than $FILE: a copy of both together opens every password"
started= typed=
trap '[ -z "$typed" ] || rm -f "$typed"; [ -z "$started" ] || pg_stop "$DATA/pg"' EXIT
if [ -z "$HOW" ]; then
  [ -t 0 ] || die "a passphrase or a public key is needed: --passphrase-file or --for"
  read -rsp "Passphrase for the backup: " one; echo >&2
  read -rsp "Once more: " two; echo >&2
  [ "$one" = "$two" ] || die "the two are not the same"
  typed=$(mktemp); printf %s "$one" >"$typed"; HOW=passphrase GIVEN=$typed
fi
[ -f "$GIVEN" ] || die "there is no file $GIVEN"
[ "$HOW" = key ] || [ "$(tr -d '\n' <"$GIVEN" | wc -m)" -ge 16 ] \
  || die "a passphrase for a backup has at least 16 characters"
if ! PORT=$(sed -n 4p "$DATA/pg/postmaster.pid" 2>/dev/null) || ! port_open "$PORT"; then
  PORT=$(free_port 5450)
  pg_start "$DATA/pg" "$PORT" durable
  started=1
fi
PGPASSWORD=$(cat "$DATA/pg.password") "$(pg_bin)/pg_dump" -h 127.0.0.1 -p "$PORT" -U lychnos -d lychnos \
  --format=custom --no-owner --no-privileges \
  | app_java lychnos.server.secrets.SealMain seal "$HOW" "$GIVEN" >"$FILE" \
    || { rm -f "$FILE"; die "the database could not be written to $FILE"; }
# as long as no password was ever sealed there is no key, and its file is empty
if [ -f "$DATA/seal.key" ]; then cp "$DATA/seal.key" "$KEYFILE"; else : >"$KEYFILE"; fi
say "written: $FILE ($(du -h "$FILE" | cut -f1), encrypted), and its key apart from it: $KEYFILE"
