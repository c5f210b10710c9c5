# What this machine and the database give the server, and what is missing. Sourced by lychnos.
if [ $# -gt 0 ]; then
  cat <<'TXT'
usage: ./lychnos doctor

Looks at what the server needs: what it may reach, ICMP, raw sockets, namespaces, disk, clock, key, certificate, and
the database if it runs. Says what to do where something is missing, and changes nothing. Leads see the same, and the
vantage points, on the page “Server” in their menu.

Exits with 0 if nothing is missing, 1 if something is.

  LYCHNOS_DATA   where the database, the keys and the logs are   (.lychnos)
TXT
  case $1 in --help) exit 0 ;; *) exit 2 ;; esac
fi
ensure_base
ensure_node
ensure_built
export LYCHNOS_DATA=$DATA
if [ -n "${LYCHNOS_PACKAGED:-}" ]; then
  set -a; . /etc/lychnos/server.env; set +a
else
  [ ! -f "$DATA/reach" ] || LYCHNOS_REACH_MACHINES=$(cat "$DATA/reach")
fi
export LYCHNOS_REACH_MACHINES=${LYCHNOS_REACH_MACHINES:-} LYCHNOS_SERVER_ROLE=lychnos_app
unset QUARKUS_DATASOURCE_JDBC_URL
if [ -n "${LYCHNOS_PACKAGED:-}" ] \
  || { [ -f "$DATA/pg/postmaster.pid" ] && port_open "$(sed -n 4p "$DATA/pg/postmaster.pid")"; }; then
  installation_database
  export QUARKUS_DATASOURCE_JDBC_URL=jdbc:postgresql://127.0.0.1:$DB_PORT/lychnos
  export QUARKUS_DATASOURCE_USERNAME=$DB_OWNER QUARKUS_DATASOURCE_PASSWORD=$DB_PASSWORD
fi
app_java lychnos.server.doctor.DoctorMain
