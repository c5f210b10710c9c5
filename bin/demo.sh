# The demo hall. Sourced by lychnos.
if [ "${1:-}" = --help ]; then
  cat <<'TXT'
usage: ./lychnos demo [--port PORT] [--fresh]
       ./lychnos demo --run-through [--say-yes] [--pack FILE]
       ./lychnos demo --licence REQUEST NUMBER

Starts a hall of stand-in machines in an isolated network, a database and the server, and prints the URL and
the accounts. Stop it with Ctrl+C or ./lychnos stop. Its state is kept in .lychnos/demo, and the next demo
continues from there.

--fresh       deletes the state of the demo and starts again
--run-through takes a new hall from labels to a signed pack without a person, prints each step, and ends.
  --say-yes   accepts licence terms, permanent values, wipes and restarts; without it the run-through stops at
              the first of them, names it, and exits with 3
  --pack      the file for the pack (ardal-hall-2-pack.zip)
--licence     answers the licence request of a stand-in machine, as its maker would: NUMBER is what was ordered
TXT
  exit 0
fi
# find_kept: sets KEEP to where the demo's data are, and KEPT where they are those of a demo that can be gone on with
find_kept() {
  local reason
  if [ "$(id -u)" = 0 ] && [ -z "${LYCHNOS_MAPPED:-}" ] \
    && ! setpriv --reuid=postgres --regid=postgres --init-groups test -x "$DATA"; then
    say "the database runs as postgres, who cannot reach $DATA: nothing of this demo is saved (see LYCHNOS_DATA)"
    return
  fi
  KEEP=$(cd "$DATA" && pwd)/demo
  find_namespaces || KEEP+=-loopback
  [ -d "$KEEP" ] || return 0
  if [ -n "$FRESH" ]; then reason="beginning again, as asked"
  elif [ ! -f "$KEEP/told" ]; then reason="the last demo was ended while it was still being set up; beginning again"
  elif [ "$(hall_stamp)" != "$(cat "$KEEP/stamp")" ]; then
    reason="the demo's hall is another one than the last time; beginning again"
  else KEPT=1; return; fi
  say "$reason"
  rm -rf "$KEEP" 2>/dev/null || as_root rm -rf "$KEEP"
}

# What the kept data were made from.
hall_stamp() {
  cat "$ROOT"/lab/halls/*.txt "$ROOT"/lab/labels/*.csv "$ROOT"/lab/src/main/java/lychnos/lab/*Story.java | sha256sum
}

# The database is shut down and not killed, where there is time for it.
end_inside() {
  local first=$inside end=$((SECONDS + 15))
  # of a namespace the first process is asked, the child of the one that made it
  [ -n "${NO_NAMESPACES:-}" ] || first=$(cat "/proc/$inside/task/$inside/children" 2>/dev/null || true)
  # shellcheck disable=SC2086 # a number and a blank
  kill -TERM ${first:-$inside} 2>/dev/null || true
  while kill -0 "$inside" 2>/dev/null && [ $SECONDS -lt $end ]; do read -rt 0.1 <> <(:) || true; done
  kill -KILL "$inside" 2>/dev/null || true
}

if [ "${LYCHNOS_INSIDE:-}" != demo ]; then
  PORT=8080
  THROUGH= SAY_YES= FRESH= PACK=$PWD/ardal-hall-2-pack.zip
  while [ $# -gt 0 ]; do
    case $1 in
      --port) PORT=${2:?--port wants a number}; shift ;;
      --fresh) FRESH=1 ;;
      --run-through) THROUGH=1 ;;
      --say-yes) SAY_YES=--say-yes ;;
      --licence)
        ensure_base
        ensure_node
        ensure_built
        exec java -cp "$(hall_classpath)" lychnos.lab.console.LicenceOffice "${2:-}" "${3:-}" ;;
      --pack) PACK=$(realpath -m "${2:?--pack wants a file}"); shift ;;
      *) die "unknown option “$1”: ./lychnos demo --help" ;;
    esac
    shift
  done
  [ -n "$THROUGH" ] || [ -z "$SAY_YES" ] || die "--say-yes is for --run-through"
  ensure_base
  ensure_node
  ensure_services
  ensure_built
  mkdir -p "$DATA"
  # everything that belongs to a demo has it open: where only its first process was killed, the rest is not gone yet
  exec 9>"$DATA/demo.lock"
  flock -n 9 || die "a demo is already running: ./lychnos status"
  case $(cat "$DATA/demo.run" 2>/dev/null) in
    */lychnos-demo.*) rm -rf "$(cat "$DATA/demo.run")" ;; # of a demo that was killed
  esac
  RUN=$(mktemp -d "${TMPDIR:-/tmp}/lychnos-demo.XXXXXX")
  echo "$RUN" >"$DATA/demo.run"
  chmod 755 "$RUN"
  KEEP=$RUN/keep KEPT=
  [ -n "$THROUGH" ] || find_kept
  DOOR=$(free_port "$PORT")
  [ "$DOOR" = "$PORT" ] || say "port $PORT is taken; using $DOOR"
  export RUN KEEP KEPT DOOR LYCHNOS_INSIDE=demo
  inside=
  cleanup() {
    trap - EXIT INT TERM
    [ -z "$inside" ] || end_inside
    [ -z "${door:-}" ] || kill "$door" 2>/dev/null || true
    [ -z "${NO_NAMESPACES:-}" ] || pkill -KILL -g "$inside" 2>/dev/null || true
    rm -rf "$RUN" "$DATA/demo.pid" "$DATA/demo.url" "$DATA/demo.run"
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
      setpriv --pdeathsig KILL "${NS_COMMAND[@]}" "$ROOT/lychnos" demo &
      inside=$!
      if wait "$inside"; then over=0; else over=$?; fi
      [ -e "$RUN/through" ] || tail -n 20 "$RUN/log" >&2
      if [ $over = 0 ]; then "$ROOT/lychnos" verify "$PACK" || over=1; fi
      exit $over
    fi
    setpriv --pdeathsig KILL "${NS_COMMAND[@]}" "$ROOT/lychnos" demo &
    inside=$!
    wait_for "the demo" 120 "$RUN/log" test -S "$RUN/door"
    setpriv --pdeathsig KILL socat "TCP-LISTEN:$DOOR,bind=127.0.0.1,reuseaddr,fork" "UNIX-CONNECT:$RUN/door" 9>&- &
    door=$!
  else
    [ -z "$THROUGH" ] || die "this machine grants no namespaces, and a run-through needs the hall's own network"
    say "this machine grants no namespaces: the hall is at 127.40.0.0/13 instead."
    say "not available there: silence, MAC addresses (ARP) and the rung “answers”; it is left out, not green."
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

TXT
  if [ -n "$KEPT" ]; then
    cat >&2 <<TXT
  49 units in three racks and on two virtualisation hosts, as they were when the last demo ended; whatever was in
  the middle
  of its setup was without power meanwhile. ./lychnos demo --fresh forgets all that and begins again.
TXT
  else
    cat >&2 <<TXT
  49 units in three racks and on two virtualisation hosts. Row A is being set up right now, over Redfish; one machine
  will not come
  back, on purpose, one leaves a port open, and one name server lags behind another.
  In the core four are set up on their consoles by themselves, an array has come to a page that a relay refuses, a
  store for
  backups has its controllers set and waits at its name, a gateway will not come back, and a pair of interconnects
  waits at its first answers.
  A load balancer has shown its licence request and waits for the answer.
  The others of its nineteen kinds wait: some known, some not; there is one unknown device on the wire, and one
  clock that lies.
TXT
  fi
  cat >&2 <<TXT
  Row B waits for you. Its label list: $LABELS
  Ctrl+C ends it all; what was done in it stays for the next time.

TXT
  wait "$inside"
  exit
fi

# --- from here on inside the namespace, or on plain loopback where there is none ---
[ -z "${THROUGH:-}" ] || exec 3>&1
exec >>"$RUN/log" 2>&1
trap 'exit 0' TERM # the first process of a namespace hears nothing that it does not ask for
mkdir "$RUN/tmp"
mkdir -p "$KEEP"
[ -n "$KEPT" ] || hall_stamp >"$KEEP/stamp"
java=(java -XX:TieredStopAtLevel=1 -XX:ReservedCodeCacheSize=160m "-Djava.io.tmpdir=$RUN/tmp")
export LYCHNOS_LAB=true LYCHNOS_VANTAGE_NAME="hall-2 jump host" LYCHNOS_SEAL_KEY_FILE=$KEEP/seal.key \
  LYCHNOS_IMAGES=$KEEP/images LYCHNOS_RUN_FOLLOW_AT_MOST=45s
LYCHNOS_DEMO_ACCOUNTS="hall-lead:Hall lead:lead:lead-of-the-hall"
LYCHNOS_DEMO_ACCOUNTS+=";rack-one:Engineer at rack one:engineer:engineer-at-rack-one"
export LYCHNOS_DEMO_ACCOUNTS+=";night-watch:Night watch:viewer:only-looking-around"
cp "$ROOT"/lab/halls/demo.txt "$RUN/hall.txt"
cp "$ROOT"/lab/halls/consoles.txt "$RUN/consoles.txt"
cp "$ROOT"/lab/labels/*.csv "$RUN/"
HTTP=8080
if [ -z "${NO_NAMESPACES:-}" ]; then
  make_hall_network
  start_services "$KEEP/services" &
  services=$!
  if [ -n "${THROUGH:-}" ]; then
    # an untouched hall in which nothing is broken on purpose, and a laptop that can be put on a service port
    sed -i 's/never-back/-/; s/telnet-open/-/' "$RUN/hall.txt"
    sed -i 's/,never-returns//' "$RUN/consoles.txt"
    ip addr add 10.47.254.5/24 dev lych-jump
    $HALL ip route add 10.47.254.0/24 dev lych-hall
  else
    # a device that was not allocated here
    $HALL ip addr add 10.40.8.150/32 dev lych-hall
  fi
  hall=(--device lych-hall --port 443 --proxy 10.40.8.25)
  BASE=10.40
else
  HALL=
  HTTP=$DOOR
  BASE=127.40
  hall=(--loopback --port 8443)
  export LYCHNOS_LAB_PORT=8443 LYCHNOS_VANTAGE_HEARS_SILENCE=false
  # no MAC addresses here: what shows its serial only after its password is changed could not be identified
  sed -i 's/10\.40\./127.40./g; s/password-change-required,//; s/,\?password-change-required//; s/\t\s*$/\t-/' \
    "$RUN/hall.txt"
  sed -i 's/10\.4\([07]\)\./127.4\1./g' "$RUN/consoles.txt"
  # and nobody can be found by one: the label lists tell the first addresses
  for row in a b; do
    awk 'FNR == NR { if ($1 !~ /^#/) first[$1] = $3; next }
      { sub(/\r$/, ""); split($0, cell, ","); print $0 "," (FNR == 1 ? "first address" : first[cell[1]]) }' \
      "$RUN/hall.txt" "$RUN/hall-2-row-$row.csv" >"$RUN/row" && mv "$RUN/row" "$RUN/hall-2-row-$row.csv"
  done
fi
dhcp_server "$KEEP/services/dhcp" "$BASE"
export LYCHNOS_DHCP_LEASE_FILES=$KEEP/services/dhcp/leases.csv
PG=$(free_port 5440)
rm -f "$KEEP/pg/postmaster.pid" # of one that was killed; no other can be there, since there is one demo
pg_start "$KEEP/pg" "$PG" fast
[ -n "$KEPT" ] || pg_createdb "$PG" lychnos
$HALL "${java[@]}" -cp "$(hall_classpath)" lychnos.lab.hall.Hall --machines "$RUN/hall.txt" \
  --consoles "$RUN/consoles.txt" --lines "$BASE.8.2" --dhcp 127.0.0.1:10067/127.0.0.2:10068 "${hall[@]}" \
  --restart-millis "${LYCHNOS_DEMO_RESTART_MILLIS:-3000}" --state "$KEEP/state" >"$RUN/hall.log" 2>&1 &
QUARKUS_DATASOURCE_JDBC_URL=jdbc:postgresql://127.0.0.1:$PG/lychnos QUARKUS_DATASOURCE_USERNAME=lychnos \
  QUARKUS_DATASOURCE_PASSWORD=none \
  QUARKUS_HTTP_PORT=$HTTP "${java[@]}" -jar "$SERVER_JAR" >"$RUN/server.log" 2>&1 &
server=$!
trap 'kill $server || true; wait $server || true; pg_stop "$KEEP/pg" || true; exit 0' TERM
if [ -n "${services:-}" ]; then
  wait "$services" || die "the services of the hall did not come up"
  HALL_DIRECTORY_DIGEST=$(directory_digest "$KEEP/services")
  export HALL_DIRECTORY_DIGEST
fi
wait_for "the hall" 60 "$RUN/hall.log" line_in '^hall ready' "$RUN/hall.log"
"${java[@]}" -cp "$(hall_classpath)" lychnos.lab.image.MadeImages "$KEEP/images"
wait_for "the server" 180 "$RUN/server.log" port_open "$HTTP"
if [ -n "${THROUGH:-}" ]; then
  touch "$RUN/through"
  # shellcheck disable=SC2086 # nothing where it is not asked for
  if "${java[@]}" -cp "$(hall_classpath)" lychnos.lab.RunThrough "http://127.0.0.1:$HTTP" "$RUN" "$PACK" \
    "$NAME_KEY_NAME" "$NAME_KEY" $SAY_YES >&3; then exit 0; else exit $?; fi
fi
if [ -z "$KEPT" ]; then
  "${java[@]}" -cp "$(hall_classpath)" lychnos.lab.Story "http://127.0.0.1:$HTTP" "$BASE" "$RUN" "$NAME_KEY_NAME" \
    "$NAME_KEY" &
  wait $! # and not in the foreground, where nothing would be heard meanwhile
  # and somebody has taken two records out of a zone
  [ -n "${NO_NAMESPACES:-}" ] || forget_reverse 103 104
fi
[ -n "${NO_NAMESPACES:-}" ] || socat "UNIX-LISTEN:$RUN/door,fork,mode=600" "TCP:127.0.0.1:$HTTP" &
echo ready >"$RUN/ready"
if [ -z "$KEPT" ]; then
  "${java[@]}" -cp "$(hall_classpath)" lychnos.lab.ConsoleStory "http://127.0.0.1:$HTTP" &
  consoles=$!
  "${java[@]}" -cp "$(hall_classpath)" lychnos.lab.LeadStory "http://127.0.0.1:$HTTP" &
  lead=$!
  # while the second name server has not heard of a third
  [ -n "${NO_NAMESPACES:-}" ] || lag_behind "$KEEP/services/ns2" 10.40.8.4 ard-srv-008-oob
  if wait $consoles && wait $lead; then touch "$KEEP/told"; fi
fi
wait
