# Every test. Sourced by lychnos.
if [ "${1:-}" = --help ]; then
  cat <<'TXT'
usage: ./lychnos test [MAVEN-ARGUMENT …]

Fetches what the build needs, then builds and tests everything in a network namespace that has no way out,
with a database of its own. Arguments go to Maven, such as -pl core or -Dtest=PlacerTest.
TXT
  exit 0
fi

if [ "${LYCHNOS_INSIDE:-}" != test ]; then
  begun=$SECONDS
  ensure_base
  ensure_node
  ensure_chromium
  ensure_services
  ensure_web_packages
  find_namespaces || die "this machine grants no network namespaces, and without one a test could reach the network"
  say "fetching what the build needs"
  # everything but the tests; one of them that needs nothing is run, so that what runs them is fetched too
  (cd "$ROOT" && mvn -B -q -Dstyle.color=never -Dtest=HandoverCsvTest -Dsurefire.failIfNoSpecifiedTests=false -Dweb.skip package quarkus:go-offline >/dev/null) \
    || die "the build failed; see: mvn package -DskipTests"
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
# as the root of a user namespace Java would take root's home for ours
mkdir "$RUN/tmp"
export JAVA_TOOL_OPTIONS="-Djava.io.tmpdir=$RUN/tmp"
[ -z "${LYCHNOS_MAPPED:-}" ] || JAVA_TOOL_OPTIONS+=" -Duser.home=$HOME"
make_hall_network
if timeout 2 bash -c '</dev/tcp/192.0.2.1/443' 2>/dev/null; then die "this namespace has a way out"; fi
start_services "$RUN/services"
PG=$(free_port 5440)
pg_start "$RUN/pg" "$PG" fast
pg_createdb "$PG" lychnos
export LYCHNOS_TEST_NAME_KEY=$NAME_KEY LYCHNOS_TEST_NAME_KEY_NAME=$NAME_KEY_NAME
export LYCHNOS_TEST_DB=jdbc:postgresql://127.0.0.1:$PG/lychnos LYCHNOS_E2E_PG=$PG LYCHNOS_E2E_RUN=$RUN PSQL=$(pg_bin)/psql
PLAYWRIGHT_NODEJS_PATH=$(command -v node)
export PLAYWRIGHT_NODEJS_PATH PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD=1
# the driver of the browser tests is the npm package of the same version
mkdir -p "$RUN/playwright"
ln -s "$ROOT/web/node_modules/playwright-core" "$RUN/playwright/package"
export PLAYWRIGHT_CLI_DIR=$RUN/playwright
if [ $# -eq 0 ]; then
  (cd "$ROOT/web" && npm run --silent check && npm run --silent lint && npm run --silent test)
fi
cd "$ROOT"
mvn -o -B -Dstyle.color=never --no-transfer-progress verify "$@"
