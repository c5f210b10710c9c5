#!/usr/bin/env bash
# usage: dhcp-check.sh FILE: whether Kea reads a file of subnets with reservations
set -euo pipefail
tools=$(cd "$(dirname "$0")/../.." && pwd)/.tools/debian
export LD_LIBRARY_PATH="$tools/usr/lib/$(uname -m)-linux-gnu:$tools/lib/$(uname -m)-linux-gnu${LD_LIBRARY_PATH:+:$LD_LIBRARY_PATH}"
exec "$(command -v kea-dhcp4 || echo "$tools/usr/sbin/kea-dhcp4")" -t "$1"
