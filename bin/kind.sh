# Descriptions of kinds in files. Sourced by lychnos.
if [ "${1:-}" = --help ] || [ $# -eq 0 ]; then
  cat <<'TXT'
usage: ./lychnos kind check FILE …
       ./lychnos kind dry-run FILE RECORDING …
       ./lychnos kind export FILE PACKAGE [RECORDING …]

check    reads descriptions of kinds, and packages (.zip), and lists every fault with its file, line and column. The
         recordings in a package are played.
dry-run  plays recordings of console lines (asciicast 2, as the bench gives them) against a description, without a
         machine, and lists what it would do differently.
export   writes a description and its recordings into one package, which is imported under Kinds.

Needs no server and no database. Ends with 1 if there are faults or differences.
TXT
  [ $# -gt 0 ] || exit 2
  exit 0
fi
[ -n "$(command -v java)" ] || { ensure_base; }
[ -d "$ROOT/server/target/quarkus-app/lib/main" ] || { ensure_base; ensure_node; ensure_built; }
app_java lychnos.server.kinds.KindMain "$@"
