# Verifies a pack without a server. Sourced by lychnos.
if [ "${1:-}" = --help ] || [ $# -ne 1 ]; then
  cat <<'TXT'
usage: ./lychnos verify FILE

Verifies a pack of a hand-over: every file, every record and the chain. Needs neither a server nor a database.
Exits with 0 if the pack is intact, 1 if not.
TXT
  [ "${1:-}" = --help ] && exit 0
  exit 2
fi
[ -n "$(command -v java)" ] || { ensure_base; }
[ -d "$ROOT/server/target/quarkus-app/lib/main" ] || { ensure_base; ensure_node; ensure_built; }
app=$ROOT/server/target/quarkus-app
exec java -XX:TieredStopAtLevel=1 -cp "$app/app/*:$app/lib/main/*:$app/lib/boot/*" \
  lychnos.server.handover.VerifyMain "$1"
