# Says what runs. Sourced by lychnos.
if [ "${1:-}" = --help ]; then
  echo "usage: ./lychnos status   says what runs, and where; exits 3 when nothing does"
  exit 0
fi
any=3
for what in demo start; do
  if [ -f "$DATA/$what.pid" ] && kill -0 "$(cat "$DATA/$what.pid")" 2>/dev/null; then
    echo "$what runs (process $(cat "$DATA/$what.pid")) at $(cat "$DATA/$what.url")"
    any=0
  fi
done
[ $any = 0 ] || echo "nothing runs"
exit $any
