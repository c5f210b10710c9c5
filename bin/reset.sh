# Forgets everything that start and demo keep here. Sourced by lychnos.
if [ "${1:-}" = --help ]; then
  cat <<'TXT'
usage: ./lychnos reset [--yes]

Ends what runs, and deletes everything that the server for real work keeps here: its database, the key that its passwords
are sealed with, its settings; and the demo hall with it. There is no way back but a backup. Asks first; --yes says it beforehand.
(./lychnos demo --fresh forgets the demo alone.)
TXT
  exit 0
fi
if [ ! -d "$DATA" ]; then
  say "nothing is kept here"
  exit 0
fi
if [ "${1:-}" != --yes ]; then
  printf 'This deletes %s: database, sealing key and all. Make a backup first (./lychnos backup), or type “forget it all” to go on: ' "$DATA" >&2
  read -r typed || typed=
  [ "$typed" = "forget it all" ] || die "nothing was deleted"
fi
"$ROOT/lychnos" stop
rm -rf "$DATA" 2>/dev/null || as_root rm -rf "$DATA" # the database's files belong to postgres where root began it
say "nothing is kept here any more"
