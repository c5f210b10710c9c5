# A vantage: this program in another network, for a server that it dials out to. Sourced by lychnos.
if [ "${1:-}" = --help ] || [ $# -eq 0 ]; then
  cat <<'TXT'
usage: ./lychnos vantage --join URL [--join URL …] --token-file FILE [--only PREFIX …] [--state DIRECTORY]

Stands in another network and does there what a server asks: checks, Redfish, console lines, serial ports of this
machine. It dials out to the server over WebSocket; nothing listens here. A lead makes the token in Lychnos, in
Prove, at the place that checks run from, and can revoke it there; LYCHNOS_VANTAGE_TOKEN may hold it instead of a file.

  --join URL         the server, such as https://lychnos.ardal.example; of several servers each
  --only PREFIX      reach nothing outside of these networks, whatever the server says
  --state DIRECTORY  where is kept what happens while the link is cut (lychnos-vantage)
TXT
  [ $# -gt 0 ] || exit 2
  exit 0
fi
[ -n "$(command -v java)" ] || { ensure_base; }
[ -d "$ROOT/server/target/quarkus-app/lib/main" ] || { ensure_base; ensure_node; ensure_built; }
app=$ROOT/server/target/quarkus-app
exec java -XX:TieredStopAtLevel=1 -cp "$app/app/*:$app/lib/main/*:$app/lib/boot/*" lychnos.server.outpost.VantageMain "$@"
