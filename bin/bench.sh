# Measures. Sourced by lychnos.
if [ "${1:-}" = --help ]; then
  cat <<'TXT'
usage: ./lychnos bench [placing]

Measures speed as ratios within one run, on loopback in a network namespace. Absolute times depend on the
machine; the ratios say how much more is done than the plainest thing with the same data.
TXT
  exit 0
fi
if [ "${LYCHNOS_INSIDE:-}" != bench ]; then
  ensure_base
  find_namespaces || die "this machine grants no network namespaces"
  say "building"
  (cd "$ROOT" && mvn -B -q -Dstyle.color=never -pl core,lab,wire -am -DskipTests package dependency:build-classpath -Dmdep.outputFile=target/bench.classpath -Dmdep.includeScope=test) || die "the build failed"
  export LYCHNOS_INSIDE=bench
  exec "${NS_COMMAND[@]}" "$ROOT/lychnos" bench "$@"
fi
ip link set lo up
ulimit -n "$(ulimit -Hn)"
exec java -XX:+UseParallelGC -cp "$ROOT/wire/target/test-classes:$ROOT/wire/target/classes:$ROOT/core/target/classes:$ROOT/lab/target/classes:$(cat "$ROOT/wire/target/bench.classpath")" lychnos.wire.bench.Bench "$@"
