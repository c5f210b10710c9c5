# A vantage: this program in another network, for a server that it dials out to. Sourced by lychnos.
if [ "${1:-}" = --help ] || [ $# -eq 0 ]; then
  cat <<'TXT'
usage: ./lychnos vantage --join URL [--join URL …] --token-file FILE [--only PREFIX …] [--state DIRECTORY]

Runs a vantage point: works for a server in this network (checks, Redfish, console lines, serial ports of this
machine). It connects out to the server over WebSocket and listens on no port. A lead creates the token in Prove, under
“checks run from”, and can revoke it there. Instead of a file, LYCHNOS_VANTAGE_TOKEN can contain the token.

  --join URL         the server, such as https://lychnos.ardal.example; repeat it for several servers
  --only PREFIX      reach nothing outside of these networks, whatever the server says
  --state DIRECTORY  where results are kept while disconnected (lychnos-vantage)
TXT
  [ $# -gt 0 ] || exit 2
  exit 0
fi
[ -n "$(command -v java)" ] || { ensure_base; }
[ -d "$ROOT/server/target/quarkus-app/lib/main" ] || { ensure_base; ensure_node; ensure_built; }
app=$ROOT/server/target/quarkus-app
exec java -XX:TieredStopAtLevel=1 -cp "$app/app/*:$app/lib/main/*:$app/lib/boot/*" \
  lychnos.server.configure.remote.VantageMain "$@"
