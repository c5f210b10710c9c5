#!/bin/bash
# A real directory (LDAP) with the accounts of the Ardal hall: two for machines, and the service account.
#
# directory.sh DIR ADDRESS [PORT [TLS_PORT]]
set -euo pipefail
dir=$1 address=$2 port=${3:-389} tls_port=${4:-636}
program=$(command -v slapd)
# where it was unpacked and not installed, its libraries, modules and schemas lie beside it
root=${program%/usr/sbin/slapd}
[ "$root" != "$program" ] || root=
export LD_LIBRARY_PATH=$root/usr/lib/$(uname -m)-linux-gnu
mkdir -p "$dir/data"
[ -f "$dir/cert.pem" ] || openssl req -x509 -newkey ec -pkeyopt ec_paramgen_curve:P-256 -nodes -days 30 \
  -subj /CN=directory.ardal.example -keyout "$dir/key.pem" -out "$dir/cert.pem" 2>/dev/null
cat >"$dir/slapd.conf" <<CONF
modulepath $root/usr/lib/ldap
moduleload back_mdb
include $root/etc/ldap/schema/core.schema
include $root/etc/ldap/schema/cosine.schema
include $root/etc/ldap/schema/inetorgperson.schema
pidfile $dir/pid
TLSCertificateFile $dir/cert.pem
TLSCertificateKeyFile $dir/key.pem
database mdb
suffix "dc=ardal,dc=example"
directory $dir/data
access to attrs=userPassword by anonymous auth by * none
access to * by users read by anonymous auth by * none
CONF
account() {
  printf 'dn: uid=%s,dc=ardal,dc=example\nobjectClass: inetOrgPerson\nuid: %s\ncn: %s\nsn: %s\nuserPassword: %s\n\n' \
    "$1" "$1" "$1" "$1" "$2"
}
group() {
  printf 'dn: cn=%s,%sdc=ardal,dc=example\nobjectClass: groupOfNames\ncn: %s\n' "$1" "$2" "$1"
  printf 'member: uid=%s,dc=ardal,dc=example\n\n' "${3:-night-visitor}"
}
[ -f "$dir/data/data.mdb" ] || {
  printf 'dn: dc=ardal,dc=example\nobjectClass: domain\ndc: ardal\n\n'
  printf 'dn: ou=old,dc=ardal,dc=example\nobjectClass: organizationalUnit\nou: old\n\n'
  account joins-arrays peat-and-heather-2
  account night-visitor over-the-fell-9
  account day-visitor under-the-fell-3
  account looks-up moss-on-the-wall-4
  group storage-team ''
  group storage-readers '' day-visitor
  # the same name twice, as after a move that was not finished
  group fabric-team ''
  group fabric-team ou=old,
} | "$root/usr/sbin/slapadd" -f "$dir/slapd.conf" 2>"$dir/add.log"
exec "$program" -h "ldap://$address:$port ldaps://$address:$tls_port" -f "$dir/slapd.conf" -d 256
