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
  ensure_line_peers
  ensure_probe_peers
  ensure_web_packages
  find_namespaces || die "this machine grants no network namespaces, and without one a test could reach the network"
  say "fetching what the build needs"
  # everything but the tests; one of them that needs nothing is run, so that what runs them is fetched too
  (cd "$ROOT" && mvn -B -q -Dstyle.color=never -Dtest=CanonicalJsonTest -Dsurefire.failIfNoSpecifiedTests=false -Dweb.skip package quarkus:go-offline >/dev/null) \
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
make_stage
if [ $# -eq 0 ]; then
  (cd "$ROOT/web" && npm run --silent check && npm run --silent lint && npm run --silent test)
fi
cd "$ROOT"
mvn -o -B -Dstyle.color=never --no-transfer-progress verify "$@"
