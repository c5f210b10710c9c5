# Ends what demo or start began. Sourced by lychnos.
if [ "${1:-}" = --help ]; then
  echo "usage: ./lychnos stop   ends the demo and the server that were started from here"
  exit 0
fi
stopped=0
for what in demo start; do
  file=$DATA/$what.pid
  if [ -f "$file" ] && kill -TERM "$(cat "$file")" 2>/dev/null; then
    pid=$(cat "$file")
    wait_for "the end of $what" 40 /dev/null eval "! kill -0 $pid 2>/dev/null"
    say "$what has stopped"
    stopped=1
  fi
  rm -f "$file"
done
[ $stopped = 1 ] || say "nothing was running"
