# Every test. Sourced by lychnos.
if [ "${1:-}" = --help ]; then
  cat <<'TXT'
usage: ./lychnos test [MAVEN-ARGUMENT …]
       ./lychnos test --long [TIMES]

Fetches what the build needs, then builds and tests everything in a network namespace that has no way out,
with a database of its own. Arguments go to Maven, such as -pl core or -Dtest=PlacerTest.

With --long it runs instead what chance or a crash decides, 10 times or TIMES times as often as usual: random input,
random cuts of dialogues, kills of servers and machines, two servers, a whole hall; and once all tests with a code in
place of each text. Run it before a release; it takes hours.

  LYCHNOS_LANES_AT_ONCE   how many of the six lanes run in parallel   (3, or 1 on a machine with one processor)
TXT
  exit 0
fi

if [ "${1:-}" = --long ]; then
  case "${2:-10}" in
    *[!0-9]* | 0*) die "how often? --long takes a number, such as --long 10" ;;
  esac
  export LYCHNOS_TIMES=${2:-10}
  shift $(($# < 2 ? 1 : 2))
fi

if [ "${LYCHNOS_INSIDE:-}" != test ]; then
  begun=$SECONDS
  ensure_base
  ensure_node
  ensure_chromium
  ensure_services
  ensure_line_peers
  ensure_probe_peers
  ensure_web_packages
  find_namespaces || die "this machine grants no network namespaces, and without one a test could reach the network"
  say "building, and fetching what tests need"
  # all but the tests; one of them that needs nothing is run, so that what runs them is fetched too
  (cd "$ROOT" && mvn -B -q -Dstyle.color=never -Dtest=CanonicalJsonTest -Dsurefire.failIfNoSpecifiedTests=false \
    -Dspotless.check.skip=false package quarkus:go-offline >/dev/null) \
    || die "the build failed, or what it needs could not be fetched; see: mvn package -DskipTests"
  RUN=$(mktemp -d "${TMPDIR:-/tmp}/lychnos-test.XXXXXX")
  chmod 755 "$RUN"
  trap 'rm -rf "$RUN"' EXIT
  export RUN LYCHNOS_INSIDE=test LYCHNOS_MAPPED=$NS_MAPPED
  say "testing, offline"
  "${NS_COMMAND[@]}" "$ROOT/lychnos" test "$@" || die "tests failed (after $((SECONDS - begun)) s)"
  say "all tests passed, in $((SECONDS - begun)) s"
  exit
fi

# --- inside the namespace ---

# Some tests only: in this namespace, and everything is built again that has changed.
if [ $# -gt 0 ]; then
  make_stage
  cd "$ROOT"
  mvn -o -B -Dstyle.color=never --no-transfer-progress verify "$@"
  exit
fi

# All of them, in lanes, the longest first. Each has a copy of what was built in the place of the checkout, and a
# network, services and a database of its own. Tests wait for machines more than they compute: several lanes at once
# keep the processors busy.
TESTS=(-o -B -Dstyle.color=never --no-transfer-progress -Dweb.skip -Dsurefire.failIfNoSpecifiedTests=false)
lane_journeys_1() { mvn "${TESTS[@]}" -pl e2e "-Dtest=%regex[lychnos.e2e.(A|C|E|K)[a-zA-Z]*Test.class]" test; }
lane_journeys_2() { mvn "${TESTS[@]}" -pl e2e "-Dtest=%regex[lychnos.e2e.(?!A|B|C|E|K)[a-zA-Z]*Test.class]" test; }
lane_server_1() { server_tests '(B|C)[a-zA-Z]*Test.class'; }
lane_server_2() { server_tests '(?!B|C).*Test.class'; }
server_tests() { mvn "${TESTS[@]}" -pl core,lab,wire,server "-Dtest=%regex[lychnos.server.$1]" test; }
lane_wire() { mvn "${TESTS[@]}" -pl core,lab,wire "-Dtest=lychnos/wire/**/*Test" test; }
lane_small() {
  (cd web && npm run --silent format:check && npm run --silent check && npm run --silent lint \
    && npm run --silent types:check && npm run --silent test)
  mvn "${TESTS[@]}" -pl core test
  mvn "${TESTS[@]}" -pl e2e -Dtest=BenchesTest test
}
# With --long: the same tests with more rounds, or again and again.
LONG="-Dlychnos.times=${LYCHNOS_TIMES:-1}"
again() { # again COMMAND …: as often as asked for; the first failure ends it
  local i
  for ((i = 1; i <= LYCHNOS_TIMES; i++)); do
    say "round $i of $LYCHNOS_TIMES"
    "$@" || return 1
  done
}
long_server=RunsTest,AttacksTest,AccessAttacksTest,LoadAttacksTest
long_server+=,ConsoleTest,SharedViewsTest,GroupCommitTest,ConsolesTest
long_journeys=ConsoleKillTest,AccidentsTest,TwoServersTest,VantageTest,RunThroughTest,RestoreTest
long_wire=RobustnessTest,MisbehaviourTest,MachinesTest,LinesTest
long_rounds=BreaksTest,FuzzTest,BlankerTest,ConversationTest,RoundOrderTest
lane_long_rounds() { mvn "${TESTS[@]}" "$LONG" -pl core "-Dtest=$long_rounds" test; }
lane_long_journeys() { again mvn "${TESTS[@]}" -pl e2e "-Dtest=$long_journeys" test; }
lane_long_server() { again mvn "${TESTS[@]}" -pl core,lab,wire,server "-Dtest=$long_server" test; }
lane_long_codes() { mvn "${TESTS[@]}" -Pcodes -pl core,lab,wire,server test; }
lane_long_wire() { again mvn "${TESTS[@]}" -pl core,lab,wire "-Dtest=$long_wire" test; }
LANES=(journeys_1 journeys_2 server_1 server_2 small wire)
[ -z "${LYCHNOS_TIMES:-}" ] || LANES=(long_journeys long_server long_codes long_wire long_rounds)
AT_ONCE=${LYCHNOS_LANES_AT_ONCE:-$(($(nproc) > 1 ? 3 : 1))}

if [ -n "${LYCHNOS_LANE:-}" ]; then
  for kept in web/node_modules .tools; do
    mkdir -p "$RUN/tree/$kept"
    mount --bind "$ROOT/$kept" "$RUN/tree/$kept"
  done
  mount --rbind "$RUN/tree" "$ROOT"
  make_stage
  cd "$ROOT"
  "lane_$LYCHNOS_LANE"
  exit
fi

rm -rf "$ROOT"/*/target/surefire-reports # those of an earlier run say nothing about this one
run_lane() { # run_lane NAME: its log goes to NAME.log, how it ended to NAME.ended
  mkdir "$RUN/$1"
  chmod 755 "$RUN/$1"
  mkdir "$RUN/$1/tree"
  tar -C "$ROOT" --exclude=./.git --exclude=./web/node_modules --exclude=./.tools --exclude=./.lychnos -cf - . \
    | tar -C "$RUN/$1/tree" -xf -
  local ended=0 from=$SECONDS
  RUN=$RUN/$1 LYCHNOS_LANE=$1 unshare --net --mount --pid --fork --kill-child --mount-proc "$ROOT/lychnos" test \
    || ended=$?
  echo "$ended" >"$RUN/$1.ended"
  echo "$((SECONDS - from))" >"$RUN/$1.took"
}

if [ "$AT_ONCE" = 1 ]; then
  for lane in "${LANES[@]}"; do run_lane "$lane" 2>&1 | tee "$RUN/$lane.log"; done
else
  for lane in "${LANES[@]}"; do
    while [ "$(jobs -pr | wc -l)" -ge "$AT_ONCE" ]; do sleep 1; done
    run_lane "$lane" >"$RUN/$lane.log" 2>&1 &
  done
  wait
  for lane in "${LANES[@]}"; do cat "$RUN/$lane.log"; done
fi
failed=
for lane in "${LANES[@]}"; do
  state=passed
  [ "$(cat "$RUN/$lane.ended" 2>/dev/null)" = 0 ] || { state=FAILED; failed=1; }
  say "$lane: $state, $(cat "$RUN/$lane.took" 2>/dev/null) s"
  # where people look for them
  for reports in "$RUN/$lane/tree"/*/target/surefire-reports; do
    [ ! -d "$reports" ] || cp -r "$reports" "$ROOT/$(basename "$(dirname "$(dirname "$reports")")")/target/"
  done
done
# By class, the slowest first. What ends the list reads all of it: head would leave sort writing to a closed pipe, and
# fail the run.
say "seconds by class:"
grep -ho '<testsuite [^>]*' "$ROOT"/*/target/surefire-reports/TEST-*.xml \
  | sed -E 's/.* name="([^"]*)".*/\1 &/; s/^([^ ]*) .* time="([^"]*)".*/\2 \1/' | sort -rn | sed -n 1,25p >&2
# what failed, once more at the end: a long log is often cut at its beginning
for lane in "${LANES[@]}"; do
  [ "$(cat "$RUN/$lane.ended" 2>/dev/null)" != 0 ] || continue
  say "what failed in $lane:"
  { grep -aE -A 12 '\[ERROR\]|FAIL|[Ee]rror:|AssertionError' "$RUN/$lane.log" || tail -n 60 "$RUN/$lane.log"; } \
    | sed -n 1,120p >&2
done
[ -z "$failed" ] || exit 1
[ -z "${LYCHNOS_TIMES:-}" ] || exit 0
# a test that no lane ran would pass unseen
for source in $(cd "$ROOT" && find core wire server e2e -path '*/src/test/java/*' -name '*Test.java'); do
  class=${source#*/src/test/java/} class=${class%.java}
  [ -f "$ROOT/${source%%/*}/target/surefire-reports/TEST-${class//\//.}.xml" ] \
    || { say "no lane ran ${class//\//.}"; failed=1; }
done
[ -z "$failed" ] || exit 1
