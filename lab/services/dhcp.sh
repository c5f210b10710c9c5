#!/bin/bash
# A real DHCP server, for machines that lease their first address through a relay agent on the same loopback. Its leases are in
# DIR/leases.csv.
#
# dhcp.sh DIR PORT RELAY SUBNET POOL ROUTER
set -euo pipefail
dir=$1 port=$2 relay=$3 subnet=$4 pool=$5 router=$6
mkdir -p "$dir"
rm -f "$dir"/*.pid # of one in another namespace, whose number may be somebody else's here
cat >"$dir/dhcp.json" <<JSON
{ "Dhcp4": {
  "interfaces-config": { "interfaces": [ "lo/127.0.0.1" ], "dhcp-socket-type": "udp" },
  "lease-database": { "type": "memfile", "persist": true, "name": "$dir/leases.csv", "lfc-interval": 0 },
  "valid-lifetime": 86400,
  "subnet4": [ { "subnet": "$subnet", "relay": { "ip-addresses": [ "$relay" ] }, "pools": [ { "pool": "$pool" } ],
    "option-data": [ { "name": "routers", "data": "$router" } ] } ],
  "loggers": [ { "name": "kea-dhcp4", "severity": "INFO", "output_options": [ { "output": "stdout" } ] } ]
} }
JSON
program=$(command -v kea-dhcp4)
# where it was unpacked and not installed, its libraries lie beside it
export LD_LIBRARY_PATH=${program%/sbin/kea-dhcp4}/lib/$(uname -m)-linux-gnu
export KEA_PIDFILE_DIR=$dir KEA_LOCKFILE_DIR=none
exec "$program" -c "$dir/dhcp.json" -p "$port" -P "$((port + 1))"
