# Forgets everything that start and demo keep here. Sourced by lychnos.
if [ "${1:-}" = --help ]; then
  cat <<'TXT'
usage: ./lychnos reset [--yes]

Stops what is running and deletes everything here: the database of the server for real work, the key of its
passwords, its settings, and the demo. Only a backup can restore it. Asks for confirmation unless --yes is given.
(./lychnos demo --fresh deletes the demo only.)
TXT
  exit 0
fi
if [ ! -d "$DATA" ]; then
  say "nothing to delete"
  exit 0
fi
if [ "${1:-}" != --yes ]; then
  say "this deletes $DATA with the database and the sealing key; make a backup first (./lychnos backup)"
  printf 'Type “delete everything” to continue: ' >&2
  read -r typed || typed=
  [ "$typed" = "delete everything" ] || die "nothing was deleted"
fi
"$ROOT/lychnos" stop
rm -rf "$DATA" 2>/dev/null || as_root rm -rf "$DATA" # the database's files belong to postgres where root began it
say "everything was deleted"
