# Makes what is derived from the code and kept with it. Sourced by lychnos.
if [ "${1:-}" = --help ]; then
  cat <<'TXT'
usage: ./lychnos record [KIND …]

Sets up each stand-in with a console once, or those of the kinds that are named, saves the recordings to kinds/recordings and writes
docs/kind-reference.md, docs/kind-language.md and docs/coverage.md. Writes the types of the web from the OpenAPI document of the server.
Run it when a stand-in, a kind or the interface has changed.
TXT
  exit 0
fi
if [ "${LYCHNOS_INSIDE:-}" != record ]; then
  ensure_base
  ensure_node
  ensure_web_packages
  find_namespaces || die "this machine grants no network namespaces"
  say "building"
  (cd "$ROOT" && mvn -B -q -Dstyle.color=never -DskipTests -Dweb.skip \
    -pl core,lab,wire,server package dependency:build-classpath -Dmdep.outputFile=target/record.classpath \
    -Dmdep.includeScope=test) || die "the build failed"
  export LYCHNOS_INSIDE=record
  (cd "$ROOT/web" && npm run --silent types)
  "${NS_COMMAND[@]}" "$ROOT/lychnos" record "$@"
  exit
fi
ip link set lo up
cd "$ROOT"
java -cp "wire/target/test-classes:wire/target/classes:$(cat wire/target/record.classpath)" \
  lychnos.wire.console.Recorder kinds/recordings docs/kind-reference.md docs/kind-language.md docs/coverage.md "$@"
