# The hall's name, time and mail servers: real ones from Debian's packages, started inside the hall's namespace.
# Sourced.

NAME_KEY_NAME=lychnos.ardal.example
# shared by the demo's name servers and nobody else
NAME_KEY=bHljaG5vcyBpbiB0aGUgYXJkYWwgaGFsbCwgMzIgYnQ=

PATH=$PATH:$ROOT/.tools/debian/usr/sbin:$ROOT/.tools/debian/usr/bin:$ROOT/.tools/debian/bin

ensure_services() {
  missing=()
  need dig bind9-dnsutils openssl openssl /usr/bin/python3 python3 \
    /usr/lib/python3/dist-packages/aiosmtpd python3-aiosmtpd \
    '/usr/lib/*/libedit.so.2' libedit2 '/usr/lib/*/libseccomp.so.2' libseccomp2 \
    '/usr/lib/*/libgnutls.so.30' libgnutls30 '/usr/lib/*/libcap.so.2' libcap2
  install_missing
  bring_program named bind9
  bring_program chronyd chrony
  bring_program slapd slapd libltdl7 libldap-2.5-0 libsasl2-2 libwrap0 libnsl2 libtirpc3
  bring_program kea-dhcp4 kea-dhcp4-server kea-common liblog4cplus-2.0.5 libmariadb3
  # the libraries that dig came with may be older than the program
  named -v >/dev/null 2>&1 || {
    missing=(bind9-libs)
    install_missing
    named -v >/dev/null || die "named cannot be run"
  }
}

# Peers that the tests of console lines talk to.
ensure_line_peers() {
  missing=()
  need ssh-keygen openssh-client /usr/lib/python3/dist-packages/serial/rfc2217.py python3-serial \
    '/usr/lib/*/libgensio.so.4' libgensio4 \
    '/usr/lib/*/libyaml-0.so.2' libyaml-0-2 '/usr/lib/*/libwrap.so.0' libwrap0
  install_missing
  bring_program ser2net ser2net
  bring_program sshd openssh-server
}

# Peers that the tests of checks talk to, none of them started outside of a test.
ensure_probe_peers() {
  bring_program named-checkzone bind9-utils
  missing=()
  need gpg gnupg
  need curl curl
  need jq jq
  need unzip unzip
  need ping iputils-ping
  install_missing
  bring_program nginx nginx
  bring_program nft nftables libnftables1 libnftnl11 libmnl0 libjansson4 libxtables12
  bring_program tgtd tgt libaio1 libibverbs1 librdmacm1 libnl-route-3-200 libnl-3-200
  bring_program ipmi_sim openipmi libopenipmi0 libsnmp40 libpopt0
  bring_program snmpd snmpd libsnmp40 libpci3 libsensors5 libkmod2 libperl5.36
  bring_program ganesha.nfsd nfs-ganesha nfs-ganesha-mem libntirpc4.3 liburcu8 libnfsidmap1 libwbclient0 \
    libdbus-1-3 libgssapi-krb5-2 libkrb5-3 libk5crypto3 libkrb5support0 libkeyutils1
}

# bring_program PROGRAM PACKAGE …: the program alone, into .tools/, with the libraries that it lies beside.
# Installing these
# packages would start services on this machine, and take its own time keeper out.
bring_program() {
  command -v "$1" >/dev/null && return
  local package
  say "fetching $1 into .tools/debian (the package $2, unpacked and not installed)"
  mkdir -p "$ROOT/.tools/debian"
  # the program comes last: an interrupted start is repeated
  for package in "${@:3}" "$2"; do
    if ! apt-cache show "$package" >/dev/null 2>&1; then as_root apt-get update -qq; fi
    (cd "$ROOT/.tools/debian" && apt-get download -qq "$package" 2>/dev/null && dpkg -x "$package"_*.deb . \
      && rm "$package"_*.deb) || die "the package $package could not be fetched"
  done
}

# zone_file ZONE: SOA and servers, and nothing else yet
zone_file() {
  printf '$TTL 3600\n@ IN SOA ns1.ardal.example. hall.ardal.example. ( 2026112301 900 300 86400 300 )\n'
  printf '@ IN NS ns1.ardal.example.\n@ IN NS ns2.ardal.example.\n'
  [ "$1" != ardal.example ] \
    || printf 'ns1 IN A 10.40.8.3\nns2 IN A 10.40.8.4\nrelay IN A 10.40.8.20\n@ IN MX 10 relay\n'
}

HALL_ZONES="ardal.example 8.40.10.in-addr.arpa 9.40.10.in-addr.arpa 16.40.10.in-addr.arpa 24.40.10.in-addr.arpa"
HALL_ZONES+=" 8.0.0.0.1.0.0.0.a.d.4.a.0.4.d.f.ip6.arpa"

# name_server DIR ADDRESS primary|secondary
name_server() {
  local dir=$1 address=$2 role=$3 zone
  mkdir -p "$dir"
  {
    printf 'options { directory "%s"; pid-file "%s/pid"; session-keyfile "%s/session.key"; ' "$dir" "$dir" "$dir"
    printf 'managed-keys-directory "%s";\n' "$dir"
    printf ' notify-source %s; transfer-source %s; listen-on { %s; }; ' "$address" "$address" "$address"
    printf 'listen-on-v6 { none; }; recursion no; dnssec-validation no; empty-zones-enable no;\n '
    printf 'notify explicit; notify-delay 0; also-notify { 10.40.8.4; }; };\n'
    printf 'controls { };\nkey "%s" { algorithm hmac-sha256; secret "%s"; };\n' "$NAME_KEY_NAME" "$NAME_KEY"
    for zone in $HALL_ZONES; do
      if [ "$role" = primary ]; then
        [ -f "$dir/$zone.zone" ] || zone_file "$zone" >"$dir/$zone.zone"
        printf 'zone "%s" { type primary; file "%s.zone"; ' "$zone" "$zone"
        printf 'update-policy { grant %s zonesub ANY; }; ' "$NAME_KEY_NAME"
        printf 'allow-transfer { key %s; 10.40.8.4; }; };\n' "$NAME_KEY_NAME"
      else
        printf 'zone "%s" { type secondary; file "%s.copy"; masterfile-format text; ' "$zone" "$zone"
        printf 'primaries { 10.40.8.3; }; allow-transfer { key %s; }; };\n' "$NAME_KEY_NAME"
      fi
    done
  } >"$dir/named.conf"
  $HALL named -c "$dir/named.conf" -n 1 -g -4 >"$dir/log" 2>&1 &
}

# lag_behind DIR ADDRESS NAME: a secondary that has not heard of a name yet, though it knows everything before and after
lag_behind() {
  local dir=$1 copy=$1/ardal.example.copy pid
  # what it is told while it is away would be asked for only after the refresh time of the zone
  wait_for "the second name server's transfers" 20 "$dir/log" knows_what_the_first_knows "$2"
  # what it knows, and not its journal: the same state of the zone, and one name less
  $HALL dig -y "hmac-sha256:$NAME_KEY_NAME:$NAME_KEY" "@$2" ardal.example AXFR \
    | awk -v name="$3.ardal.example." '/^[^;]/ && $3 == "IN" && $1 != name && !($4 == "SOA" && soa++)' >"$copy.less"
  pid=$(cat "$dir/pid")
  kill -TERM "$pid"
  wait_for "the end of the second name server" 20 "$dir/log" eval "! kill -0 $pid 2>/dev/null"
  mv "$copy.less" "$copy"
  rm -f "$copy.jnl"
  $HALL named -c "$dir/named.conf" -n 1 -g -4 >"$dir/log" 2>&1 &
  wait_for "the second name server" 20 "$dir/log" knows_its_zones "$2"
}

# knows_what_the_first_knows ADDRESS
knows_what_the_first_knows() {
  local zone
  for zone in $HALL_ZONES; do
    [ "$(soa "$1" "$zone")" = "$(soa 10.40.8.3 "$zone")" ] || return 1
  done
}

soa() { $HALL dig +short +time=1 +tries=1 "@$1" "$2" SOA; }

# time_server DIR ADDRESS
time_server() {
  mkdir -p -m 700 "$1"
  rm -f "$1/pid" # of one in another namespace
  {
    printf 'port 123\nbindaddress %s\nallow 10.40.0.0/13\nlocal stratum 3\nmanual\ncmdport 0\n' "$2"
    printf 'bindcmdaddress %s/commands\npidfile %s/pid\n' "$1" "$1"
  } >"$1/chrony.conf"
  $HALL chronyd -x -d -u root -f "$1/chrony.conf" >"$1/log" 2>&1 &
}

# let_lie DIR SECONDS: a time server tells another time from now on, as one does that was set by hand
let_lie() {
  wait_for "the time server that is to lie" 20 "$1/log" told_time "$1" "$2"
}

told_time() {
  $HALL chronyc -h "$1/commands" settime "$(date -d "+$2 seconds" '+%b %d, %Y %H:%M:%S')" 2>/dev/null \
    | grep 'Clock was' >/dev/null
}

# start_services DIR: everything that row A leans on, at its own addresses in the hall
start_services() {
  local dir=$1 address
  for address in 2 3 4 6 7 8 9 20 21 23 25; do $HALL ip addr add "10.40.8.$address/32" dev lych-hall; done
  mkdir -p "$dir"
  [ -f "$dir/relay.pem" ] || openssl req -x509 -newkey ec -pkeyopt ec_paramgen_curve:P-256 -nodes -days 30 \
    -subj /CN=relay.ardal.example -keyout "$dir/relay.key" -out "$dir/relay.pem" 2>/dev/null
  # the secondary asks once and then not again for minutes, so the primary has to be ready before it
  name_server "$dir/ns1" 10.40.8.3 primary
  wait_for "the first name server" 20 "$dir/ns1/log" knows_its_zones 10.40.8.3
  name_server "$dir/ns2" 10.40.8.4 secondary
  for address in 6 7 8; do time_server "$dir/ntp$address" "10.40.8.$address"; done
  time_server "$dir/ntp9" 10.40.8.9
  let_lie "$dir/ntp9" 120
  $HALL "$ROOT/lab/services/directory.sh" "$dir/directory" 10.40.8.21 >"$dir/directory.log" 2>&1 &
  $HALL /usr/bin/python3 "$ROOT/lab/services/relay.py" 10.40.8.20 25 10.40.8.3 "$dir/relay.pem" "$dir/relay.key" \
    >"$dir/relay.log" 2>&1 &
  wait_for "the directory" 20 "$dir/directory.log" line_in 'slapd starting' "$dir/directory.log"
  wait_for "the relay" 20 "$dir/relay.log" line_in '^relay ready' "$dir/relay.log"
  wait_for "the second name server" 20 "$dir/ns2/log" knows_its_zones 10.40.8.4
}

# directory_digest DIR: of the certificate that the directory shows, for those who compare it
directory_digest() {
  openssl x509 -in "$1/directory/cert.pem" -outform der | sha256sum | cut -d ' ' -f 1
}

# dhcp_server DIR BASE: for machines that lease their first address; started in the hall where there is one
dhcp_server() {
  mkdir -p "$1"
  $HALL "$ROOT/lab/services/dhcp.sh" "$1" 10067 127.0.0.2 "$2.8.0/24" "$2.8.28 - $2.8.30" "$2.8.1" >"$1/log" 2>&1 &
  wait_for "the DHCP server" 20 "$1/log" line_in DHCP4_STARTED "$1/log"
}

# forget_reverse NUMBER …: takes PTR records of 10.40.8.0/24 out at the primary, as a careless update does
forget_reverse() {
  {
    printf 'server 10.40.8.3\nzone 8.40.10.in-addr.arpa\n'
    printf 'update delete %s.8.40.10.in-addr.arpa PTR\n' "$@"
    echo send
  } | $HALL nsupdate -y "hmac-sha256:$NAME_KEY_NAME:$NAME_KEY"
}

# knows_its_zones ADDRESS
knows_its_zones() {
  local zone
  for zone in $HALL_ZONES; do
    soa "$1" "$zone" 2>/dev/null | grep 2026 >/dev/null || return 1
  done
}
