# Measures. Sourced by lychnos.
if [ "${1:-}" = --help ]; then
  cat <<'TXT'
usage: ./lychnos bench [--small] [placing|proving|pings|hall|keeping|lines|images|learn|load …]

Measures speed as ratios within one run, on loopback in a network namespace. Absolute times depend on the
machine; the ratios compare with the simplest alternative on the same data. Without arguments: everything
but load, which simulates twenty engineers on 5,000 units for ten minutes (LYCHNOS_LOAD_ENGINEERS,
LYCHNOS_LOAD_SECONDS).
--small runs each row once in a tiny size, only to check that it works.
TXT
  exit 0
fi
if [ "${LYCHNOS_INSIDE:-}" != bench ]; then
  ensure_base
  ensure_node
  ensure_chromium
  ensure_services
  bring_program ping iputils-ping
  ensure_web_packages
  find_namespaces || die "this machine grants no network namespaces"
  say "building"
  (cd "$ROOT" && mvn -B -q -Dstyle.color=never -DskipTests package dependency:build-classpath \
    -Dmdep.outputFile=target/bench.classpath -Dmdep.includeScope=test) || die "the build failed"
  RUN=$(mktemp -d "${TMPDIR:-/tmp}/lychnos-bench.XXXXXX")
  chmod 755 "$RUN"
  trap 'rm -rf "$RUN"' EXIT
  export RUN LYCHNOS_INSIDE=bench LYCHNOS_MAPPED=$NS_MAPPED
  "${NS_COMMAND[@]}" "$ROOT/lychnos" bench "$@"
  exit
fi
SMALL=
if [ "${1:-}" = --small ]; then SMALL=-Dlychnos.bench.small=true; shift; fi
[ $# -gt 0 ] || set -- placing proving pings hall keeping lines images learn
ulimit -n "$(ulimit -Hn)"
make_stage
cd "$ROOT/e2e"
for what in "$@"; do
  heap=
  case $what in
    placing | proving | pings) module=wire main=lychnos.wire.bench.Bench ;;
    hall) module=e2e main=lychnos.e2e.HallBench ;;
    keeping) module=e2e main=lychnos.e2e.KeepingBench ;;
    load) module=e2e main=lychnos.e2e.LoadBench ;;
    learn) module=core main=lychnos.core.learn.LearnBench ;;
    images) module=server main=lychnos.server.image.ImagesBench heap=-Xmx64m ;;
    lines) module=e2e main=lychnos.e2e.LinesBench ;;
    *) die "there is nothing called “$what” to measure: ./lychnos bench --help" ;;
  esac
  target=$ROOT/$module/target
  java -XX:+UseParallelGC $heap $SMALL \
    -cp "$target/test-classes:$target/classes:$(cat "$target/bench.classpath")" $main "$what"
done
