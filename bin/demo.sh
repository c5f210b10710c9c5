# The demo hall. Sourced by lychnos.
if [ "${1:-}" = --help ]; then
  cat <<'TXT'
usage: ./lychnos demo [--port PORT]
       ./lychnos demo --run-through [--say-yes] [--pack FILE]

Starts a hall of stand-in machines in a network of its own that has no way out, a database and the
server, and prints the address to open and the accounts. Ends, and cleans up, with Ctrl+C or ./lychnos stop.

--run-through takes an untouched hall from its labels to a signed pack without a person, prints what it does, and ends.
  --say-yes   agrees to licence terms, types the values that can never be changed, and says yes to wipes and restarts;
              without it the run-through stops at the first of them, says which, and ends with 3
  --pack      where the pack goes (ardal-hall-2-pack.zip)
TXT
  exit 0
fi
if [ "${LYCHNOS_INSIDE:-}" != demo ]; then
  PORT=8080
  THROUGH= SAY_YES= PACK=$PWD/ardal-hall-2-pack.zip
  while [ $# -gt 0 ]; do
    case $1 in
      --port) PORT=${2:?--port wants a number}; shift ;;
      --run-through) THROUGH=1 ;;
      --say-yes) SAY_YES=--say-yes ;;
      --pack) PACK=$(realpath -m "${2:?--pack wants a file}"); shift ;;
      *) die "demo knows no “$1”: ./lychnos demo --help" ;;
    esac
    shift
  done
  [ -n "$THROUGH" ] || [ -z "$SAY_YES" ] || die "--say-yes is for --run-through"
  ensure_base
  ensure_node
  ensure_services
  ensure_built
  mkdir -p "$DATA"
  [ ! -f "$DATA/demo.pid" ] || ! kill -0 "$(cat "$DATA/demo.pid")" 2>/dev/null || die "a demo runs already: ./lychnos status"
  RUN=$(mktemp -d "${TMPDIR:-/tmp}/lychnos-demo.XXXXXX")
  chmod 755 "$RUN"
  DOOR=$(free_port "$PORT")
  [ "$DOOR" = "$PORT" ] || say "port $PORT is taken; using $DOOR"
  export RUN DOOR LYCHNOS_INSIDE=demo
  inside=
  cleanup() {
    trap - EXIT INT TERM
    [ -z "$inside" ] || kill -KILL "$inside" 2>/dev/null || true
    [ -z "${door:-}" ] || kill "$door" 2>/dev/null || true
    [ -z "${NO_NAMESPACES:-}" ] || pkill -KILL -g "$inside" 2>/dev/null || true
    rm -rf "$RUN" "$DATA/demo.pid" "$DATA/demo.url"
    say "the demo has ended"
  }
  trap cleanup EXIT
  trap 'exit 0' INT TERM
  echo $$ >"$DATA/demo.pid"
  echo "http://127.0.0.1:$DOOR/" >"$DATA/demo.url"
  LABELS=$ROOT/lab/labels/hall-2-row-b.csv
  if find_namespaces; then
    export LYCHNOS_MAPPED=$NS_MAPPED
    if [ -n "$THROUGH" ]; then
      export THROUGH SAY_YES PACK
      "${NS_COMMAND[@]}" "$ROOT/lychnos" demo &
      inside=$!
      if wait "$inside"; then over=0; else over=$?; fi
      [ -e "$RUN/through" ] || tail -n 20 "$RUN/log" >&2
      if [ $over = 0 ]; then "$ROOT/lychnos" verify "$PACK" || over=1; fi
      exit $over
    fi
    "${NS_COMMAND[@]}" "$ROOT/lychnos" demo &
    inside=$!
    wait_for "the demo" 120 "$RUN/log" test -S "$RUN/door"
    socat "TCP-LISTEN:$DOOR,bind=127.0.0.1,reuseaddr,fork" "UNIX-CONNECT:$RUN/door" &
    door=$!
  else
    [ -z "$THROUGH" ] || die "this machine grants no namespaces, and a run-through needs the hall's own network"
    say "this machine grants no namespaces: the hall is at 127.40.0.0/13 instead."
    say "what that cannot show: silence, hardware addresses (ARP), and the rung “answers”; it is left out, not green."
    export NO_NAMESPACES=1
    LABELS=$RUN/hall-2-row-b.csv
    set -m
    "$ROOT/lychnos" demo &
    inside=$!
    set +m
  fi
  wait_for "the demo" 180 "$RUN/log" line_in '^ready$' "$RUN/ready"
  cat >&2 <<TXT

  Lychnos demo hall:   http://127.0.0.1:$DOOR/

  sign in as   hall-lead    / lead-of-the-hall       (lead)
               rack-one     / engineer-at-rack-one   (engineer)
               night-watch  / only-looking-around    (viewer)

  43 units in three racks and on two virtualisation hosts. Row A is being set up right now, over Redfish; one machine will not come
  back, on purpose, one leaves a port open, and one name server lags behind another.
  In the core four are set up on their consoles by themselves, an array has come to a page that a relay refuses, a store for
  backups has its controllers set and waits at its name, a gateway will not come back, and a pair of interconnects waits at its first answers.
  The others of its thirteen kinds wait: some known, some not; there is one stranger on the wire, and one clock that lies.
  Row B waits for you. Its label list: $LABELS
  Ctrl+C ends it all.

TXT
  wait "$inside"
  exit
fi

# --- from here on inside the namespace, or on plain loopback where there is none ---
[ -z "${THROUGH:-}" ] || exec 3>&1
exec >>"$RUN/log" 2>&1
mkdir "$RUN/tmp"
java=(java -XX:TieredStopAtLevel=1 -XX:ReservedCodeCacheSize=160m "-Djava.io.tmpdir=$RUN/tmp")
export LYCHNOS_LAB=true LYCHNOS_VANTAGE_NAME="hall-2 jump host" LYCHNOS_SEAL_KEY_FILE=$RUN/seal.key LYCHNOS_RUN_FOLLOW_AT_MOST=45s
export LYCHNOS_DEMO_ACCOUNTS="hall-lead:Hall lead:lead:lead-of-the-hall;rack-one:Engineer at rack one:engineer:engineer-at-rack-one;night-watch:Night watch:viewer:only-looking-around"
cp "$ROOT"/lab/halls/demo.txt "$RUN/hall.txt"
cp "$ROOT"/lab/halls/consoles.txt "$RUN/consoles.txt"
cp "$ROOT"/lab/labels/*.csv "$RUN/"
HTTP=8080
if [ -z "${NO_NAMESPACES:-}" ]; then
  make_hall_network
  start_services "$RUN/services" &
  services=$!
  if [ -n "${THROUGH:-}" ]; then
    # an untouched hall in which nothing is broken on purpose, and a laptop that can be put on a service port
    sed -i 's/never-back/-/; s/telnet-open/-/' "$RUN/hall.txt"
    sed -i 's/,never-returns//' "$RUN/consoles.txt"
    ip addr add 10.47.254.5/24 dev lych-jump
    $HALL ip route add 10.47.254.0/24 dev lych-hall
  else
    # somebody's machine that nobody here knows of
    $HALL ip addr add 10.40.8.150/32 dev lych-hall
  fi
  hall=(--device lych-hall --port 443 --directory 10.40.8.21 --proxy 10.40.8.25)
  BASE=10.40
else
  HALL=
  HTTP=$DOOR
  BASE=127.40
  hall=(--loopback --port 8443)
  export LYCHNOS_LAB_PORT=8443 LYCHNOS_VANTAGE_HEARS_SILENCE=false
  # no hardware addresses here: what shows its serial only after its password is changed could not be identified
  sed -i 's/10\.40\./127.40./g; s/password-change-required,//; s/,\?password-change-required//; s/\t\s*$/\t-/' "$RUN/hall.txt"
  sed -i 's/10\.4\([07]\)\./127.4\1./g' "$RUN/consoles.txt"
  # and nobody can be found by one: the label lists tell the first addresses
  for row in a b; do
    awk 'FNR == NR { if ($1 !~ /^#/) first[$1] = $3; next } { sub(/\r$/, ""); split($0, cell, ","); print $0 "," (FNR == 1 ? "first address" : first[cell[1]]) }' \
      "$RUN/hall.txt" "$RUN/hall-2-row-$row.csv" >"$RUN/row" && mv "$RUN/row" "$RUN/hall-2-row-$row.csv"
  done
fi
dhcp_server "$RUN/services/dhcp" "$BASE"
export LYCHNOS_DHCP_LEASE_FILES=$RUN/services/dhcp/leases.csv
PG=$(free_port 5440)
pg_start "$RUN/pg" "$PG" fast
pg_createdb "$PG" lychnos
$HALL "${java[@]}" -cp "$(hall_classpath)" lychnos.lab.Hall --machines "$RUN/hall.txt" --consoles "$RUN/consoles.txt" --lines "$BASE.8.2" --dhcp 127.0.0.1:10067/127.0.0.2:10068 "${hall[@]}" --restart-millis "${LYCHNOS_DEMO_RESTART_MILLIS:-3000}" --state "$RUN/state" >"$RUN/hall.log" 2>&1 &
QUARKUS_DATASOURCE_JDBC_URL=jdbc:postgresql://127.0.0.1:$PG/lychnos QUARKUS_DATASOURCE_USERNAME=lychnos QUARKUS_DATASOURCE_PASSWORD=none \
  QUARKUS_HTTP_PORT=$HTTP "${java[@]}" -jar "$SERVER_JAR" >"$RUN/server.log" 2>&1 &
[ -z "${services:-}" ] || wait "$services" || die "the services of the hall did not come up"
wait_for "the hall" 60 "$RUN/hall.log" line_in '^hall ready' "$RUN/hall.log"
wait_for "the server" 90 "$RUN/server.log" port_open "$HTTP"
if [ -n "${THROUGH:-}" ]; then
  touch "$RUN/through"
  # shellcheck disable=SC2086 # nothing where it is not asked for
  if "${java[@]}" -cp "$(hall_classpath)" lychnos.lab.RunThrough "http://127.0.0.1:$HTTP" "$RUN" "$PACK" "$NAME_KEY_NAME" "$NAME_KEY" $SAY_YES >&3; then exit 0; else exit $?; fi
fi
"${java[@]}" -cp "$(hall_classpath)" lychnos.lab.Story "http://127.0.0.1:$HTTP" "$BASE" "$RUN" "$NAME_KEY_NAME" "$NAME_KEY"
# and somebody has taken two records out of a zone
[ -n "${NO_NAMESPACES:-}" ] || forget_reverse 103 104
echo ready >"$RUN/ready"
"${java[@]}" -cp "$(hall_classpath)" lychnos.lab.ConsoleStory "http://127.0.0.1:$HTTP" &
"${java[@]}" -cp "$(hall_classpath)" lychnos.lab.LeadStory "http://127.0.0.1:$HTTP" &
if [ -z "${NO_NAMESPACES:-}" ]; then
  socat "UNIX-LISTEN:$RUN/door,fork,mode=600" "TCP:127.0.0.1:$HTTP" &
  # while the second name server has not heard of a third
  lag_behind "$RUN/services/ns2" 10.40.8.4 ard-srv-008-oob
fi
wait
