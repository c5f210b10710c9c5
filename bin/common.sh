# What the commands share. Sourced; ROOT is set.
say() { printf 'lychnos: %s\n' "$*" >&2; }
die() { say "$*"; exit 1; }
DATA=${LYCHNOS_DATA:-$ROOT/.lychnos}
SERVER_JAR=$ROOT/server/target/quarkus-app/quarkus-run.jar
export MAVEN_OPTS=${MAVEN_OPTS:--XX:TieredStopAtLevel=1 -XX:+UseParallelGC}
PATH=$PATH:/usr/sbin:/sbin

# --- what must be installed ---------------------------------------------------------------------------------------

as_root() {
  if [ "$(id -u)" = 0 ]; then "$@"
  elif command -v sudo >/dev/null; then sudo "$@"
  else die "$1 wants root, and there is no sudo: run this as root once"; fi
}

# need PROGRAM PACKAGE …: notes the package for each program that is not there
need() {
  while [ $# -gt 0 ]; do
    command -v "$1" >/dev/null 2>&1 || [ -x "$1" ] || compgen -G "$1" >/dev/null || missing+=("$2")
    shift 2
  done
}

install_missing() {
  [ ${#missing[@]} -gt 0 ] || return 0
  command -v apt-get >/dev/null || die "missing: ${missing[*]}. This is not Debian: install them by hand"
  say "installing Debian packages: ${missing[*]}"
  # the package's own cluster is not wanted: the database runs in a directory of ours
  as_root env DEBIAN_FRONTEND=noninteractive apt-get update -qq \
    && as_root env DEBIAN_FRONTEND=noninteractive \
      apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null \
    || die "Debian's packages could not be fetched: ${missing[*]}. Check the network and apt-get update"
  missing=()
}

ensure_base() {
  missing=()
  need javac openjdk-17-jdk-headless mvn maven '/usr/lib/postgresql/*/bin/postgres' postgresql ip iproute2 socat socat \
    unshare util-linux setpriv util-linux /etc/ssl/certs/ca-certificates.crt ca-certificates
  install_missing
}

# A Node that Vite takes: the machine's own, or one in .tools/
ensure_node() {
  local version
  version=$(node --version 2>/dev/null || true)
  if ! { [ -n "$version" ] && node_is_new "$version" && command -v npm >/dev/null; }; then
    PATH=$ROOT/.tools/bin:$PATH
    version=$(node --version 2>/dev/null || true)
    if ! node_is_new "${version:-v0.0.0}" || [ ! -e "$ROOT/.tools/bin/npm" ]; then
      missing=()
      need node nodejs /usr/share/nodejs/registry-url node-registry-url
      install_missing
      say "fetching Node 24 and npm into .tools/ (the machine's Node is ${version:-missing})"
      NODE_EXTRA_CA_CERTS=${NODE_EXTRA_CA_CERTS:-/etc/ssl/certs/ca-certificates.crt} \
        node "$ROOT/bin/get-node.mjs" "$ROOT/.tools" || die "Node could not be fetched"
    fi
  fi
  NODE_EXTRA_CA_CERTS=${NODE_EXTRA_CA_CERTS:-/etc/ssl/certs/ca-certificates.crt}
  export NODE_EXTRA_CA_CERTS PATH npm_config_update_notifier=false
}

node_is_new() { # v20.19.0 or newer
  local major minor
  IFS=. read -r major minor _ <<<"${1#v}"
  [ "$major" -gt 20 ] || { [ "$major" -eq 20 ] && [ "$minor" -ge 19 ]; }
}

ensure_chromium() {
  missing=()
  need chromium chromium
  install_missing
}

ensure_web_packages() {
  local stamp=$ROOT/web/node_modules/.lychnos-lock
  cmp -s "$ROOT/web/package-lock.json" "$stamp" && return
  say "fetching the web application's packages"
  (cd "$ROOT/web" && npm ci --ignore-scripts --loglevel=error) \
    || die "the packages of the web application could not be fetched. Check whether npm's registry can be reached"
  cp "$ROOT/web/package-lock.json" "$stamp"
}

# Builds when a source is newer than what was built.
ensure_built() {
  local sources=("$ROOT"/{core,wire,lab,server}/{src,pom.xml} "$ROOT"/web/{src,index.html,package.json})
  sources+=("$ROOT"/kinds "$ROOT"/pom.xml)
  if [ -f "$SERVER_JAR" ] && [ -z "$(find "${sources[@]}" -newer "$SERVER_JAR" -print -quit)" ]; then
    return
  fi
  ensure_web_packages
  say "building (a few minutes the first time)"
  (cd "$ROOT" && mvn -B -q -Dmaven.test.skip=true -Dstyle.color=never -pl core,wire,lab,server package) \
    || die "the build failed. If the lines above name a failed transfer, Maven's repository cannot be reached"
  touch "$SERVER_JAR"
}

# --- the database -------------------------------------------------------------------------------------------------

pg_bin() { ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -n1; }

# PostgreSQL will not run as root: as root it runs as postgres, as the root of a user namespace as the user outside.
pg_as() {
  if [ -n "${LYCHNOS_MAPPED:-}" ]; then unshare --user --map-user="$LYCHNOS_MAPPED" --map-group="$LYCHNOS_MAPPED" "$@"
  elif [ "$(id -u)" = 0 ]; then setpriv --reuid=postgres --regid=postgres --init-groups "$@"
  else "$@"; fi
}

free_port() { # the first free one from $1 on
  local port=$1
  while (exec 3<>"/dev/tcp/127.0.0.1/$port") 2>/dev/null; do port=$((port + 1)); done
  echo "$port"
}

# pg_start DIR PORT fast|durable: initialises DIR where it is new, starts, waits until it answers
pg_start() {
  local dir=$1 port=$2 mode=$3 bin options=()
  bin=$(pg_bin)
  [ -n "$bin" ] || die "PostgreSQL is not installed"
  if [ ! -f "$dir/PG_VERSION" ]; then
    mkdir -p "$dir"; chmod 700 "$dir"
    [ "$(id -u)" != 0 ] || [ -n "${LYCHNOS_MAPPED:-}" ] || chown postgres: "$dir"
    if [ "$mode" = durable ]; then
      pg_as "$bin/initdb" -D "$dir" -U lychnos -A scram-sha-256 --pwfile="$4" -E UTF8 --locale=C.UTF-8 >/dev/null
    else
      pg_as "$bin/initdb" -D "$dir" -U lychnos -A trust -N -E UTF8 --locale=C.UTF-8 >/dev/null
    fi
  fi
  [ "$mode" = durable ] || options=(-c fsync=off -c synchronous_commit=off -c full_page_writes=off)
  pg_as "$bin/postgres" -D "$dir" -p "$port" -c listen_addresses=127.0.0.1 -c unix_socket_directories= -c timezone=UTC \
    -c max_connections=150 "${options[@]}" >"$dir.log" 2>&1 &
  PG_PID=$!
  # its port is open before it takes connections
  wait_for "the database" 30 "$dir.log" "$bin/pg_isready" -q -h 127.0.0.1 -p "$port"
}

# Makes the database's password where there is none yet; sets PWFILE to a copy that initdb's user may read.
pg_password() {
  [ -f "$DATA/pg.password" ] || head -c 24 /dev/urandom | od -An -tx1 | tr -d ' \n' >"$DATA/pg.password"
  PWFILE=$(mktemp)
  cp "$DATA/pg.password" "$PWFILE"
  [ "$(id -u)" != 0 ] || [ -n "${LYCHNOS_MAPPED:-}" ] || chown postgres: "$PWFILE"
}

pg_stop() { # pg_stop DIR: the fast way, which ends sessions and loses nothing
  kill -INT "$(head -n1 "$1/postmaster.pid")" && wait "$PG_PID"
}

# pg_roles PORT PASSWORD: the roles of a server for real work, whose passwords are new each time: one that owns
# everything and brings the database up to a version, and one that the server itself has, which owns nothing. What
# an earlier version of this program made belonged to the superuser; it is handed over here. Sets OWNER_PASSWORD and
# APP_PASSWORD.
pg_roles() {
  OWNER_PASSWORD=$(head -c 24 /dev/urandom | od -An -tx1 | tr -d ' \n')
  APP_PASSWORD=$(head -c 24 /dev/urandom | od -An -tx1 | tr -d ' \n')
  PGPASSWORD=$2 "$(pg_bin)/psql" -X -q -v ON_ERROR_STOP=1 -v owner_password="$OWNER_PASSWORD" \
    -v app_password="$APP_PASSWORD" -h 127.0.0.1 -p "$1" -U lychnos -d lychnos -f - >/dev/null <<'SQL'
do $$
declare each record;
begin
  if not exists (select from pg_roles where rolname = 'lychnos_owner') then
    create role lychnos_owner login nosuperuser;
  end if;
  if not exists (select from pg_roles where rolname = 'lychnos_app') then
    create role lychnos_app login nosuperuser;
  end if;
  alter database lychnos owner to lychnos_owner;
  alter schema public owner to lychnos_owner;
  for each in
    select c.oid::regclass as name,
      case c.relkind when 'S' then 'sequence' when 'v' then 'view' else 'table' end as sort
      from pg_class c
      where c.relnamespace = 'public'::regnamespace and c.relkind in ('r', 'v', 'S')
      and c.relowner <> 'lychnos_owner'::regrole
      and not exists (select from pg_depend d where d.objid = c.oid and d.deptype in ('e', 'a', 'i'))
      order by c.relkind <> 'r' loop
    execute format('alter %s %s owner to lychnos_owner', each.sort, each.name);
  end loop;
  for each in
    select p.oid::regprocedure as name from pg_proc p
      where p.pronamespace = 'public'::regnamespace and p.proowner <> 'lychnos_owner'::regrole
      and not exists (select from pg_depend d where d.objid = p.oid and d.deptype = 'e') loop
    execute format('alter function %s owner to lychnos_owner', each.name);
  end loop;
end $$;
alter role lychnos_owner password :'owner_password';
alter role lychnos_app password :'app_password';
SQL
}

# app_java MAIN ARGUMENT …: a program of the server's that is not the server
app_java() {
  local app=$ROOT/server/target/quarkus-app
  java -XX:TieredStopAtLevel=1 -Djava.util.logging.manager=org.jboss.logmanager.LogManager \
    -cp "$app/app/*:$app/lib/main/*:$app/lib/boot/*" "$@"
}

pg_createdb() { # pg_createdb PORT NAME [PASSWORD]
  PGPASSWORD=${3:-} "$(pg_bin)/psql" -q -h 127.0.0.1 -p "$1" -U lychnos -d postgres -c "create database $2" >/dev/null
}

# --- waiting ------------------------------------------------------------------------------------------------------

port_open() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }
line_in() { grep -q "$1" "$2" 2>/dev/null; }

# wait_for WHAT SECONDS LOG CONDITION …
wait_for() {
  local what=$1 end=$((SECONDS + $2)) log=$3
  shift 3
  until "$@"; do
    [ $SECONDS -lt $end ] || { tail -n 20 "$log" >&2; die "$what did not come up; its log is $log"; }
    read -rt 0.1 <> <(:) || true
  done
}

# --- the lab's own network ----------------------------------------------------------------------------------------

# Whether this machine grants namespaces, and how: sets NS_COMMAND.
find_namespaces() {
  [ -z "${LYCHNOS_NO_NAMESPACES:-}" ] || return 1 # to try the fall-back where there are namespaces
  local flags=(--net --mount --pid --fork --kill-child --mount-proc)
  if [ "$(id -u)" = 0 ] && unshare "${flags[@]}" true 2>/dev/null; then
    NS_COMMAND=(unshare "${flags[@]}")
    NS_MAPPED=${LYCHNOS_MAPPED:-} # root of a namespace already, perhaps
  elif unshare --user --map-root-user "${flags[@]}" true 2>/dev/null; then
    NS_COMMAND=(unshare --user --map-root-user "${flags[@]}")
    NS_MAPPED=$(id -u)
  else return 1; fi
}

# Run inside the namespace: makes the jump side here and the hall side behind it; sets HALL.
make_hall_network() {
  ip link set lo up
  unshare --net sleep infinity &
  HALL_PID=$!
  until [ "$(readlink /proc/$HALL_PID/ns/net)" != "$(readlink /proc/self/ns/net)" ]; do :; done
  HALL="nsenter --target $HALL_PID --net"
  ip link add lych-jump type veth peer name lych-hall netns "$HALL_PID"
  local net
  for net in 8 9 16 24; do ip addr add "10.40.$net.5/24" dev lych-jump; done
  ip addr add fd40:a4da:1:8::5/64 dev lych-jump nodad
  ip link set lych-jump up
  # a machine answers for its own address alone, from its own interface
  $HALL sh -c 'echo 1 >/proc/sys/net/ipv4/conf/all/arp_ignore; echo 2 >/proc/sys/net/ipv4/conf/all/arp_announce
    ip link set lo up; ip link set lych-hall up
    ip addr add 10.40.8.1/24 dev lych-hall; ip addr add 10.40.9.1/24 dev lych-hall
    ip addr add 10.40.16.1/24 dev lych-hall; ip addr add 10.40.24.1/24 dev lych-hall
    ip addr add fd40:a4da:1:8::1/64 dev lych-hall nodad'
  # ping without privileges, for the one group there is
  echo "0 0" >/proc/sys/net/ipv4/ping_group_range
  export HALL_PID HALL
}

# What journeys and measurements lean on: the hall, its services, a database, and a browser. Inside the namespace.
make_stage() {
  # as the root of a user namespace Java would take root's home for ours
  mkdir "$RUN/tmp"
  export JAVA_TOOL_OPTIONS="-Djava.io.tmpdir=$RUN/tmp"
  [ -z "${LYCHNOS_MAPPED:-}" ] || JAVA_TOOL_OPTIONS+=" -Duser.home=$HOME"
  make_hall_network
  if timeout 2 bash -c '</dev/tcp/192.0.2.1/443' 2>/dev/null; then die "this namespace has a way out"; fi
  start_services "$RUN/services"
  HALL_DIRECTORY_DIGEST=$(directory_digest "$RUN/services")
  export HALL_DIRECTORY_DIGEST
  PG=$(free_port 5440)
  pg_start "$RUN/pg" "$PG" fast
  pg_createdb "$PG" lychnos
  export LYCHNOS_TEST_NAME_KEY=$NAME_KEY LYCHNOS_TEST_NAME_KEY_NAME=$NAME_KEY_NAME
  export LYCHNOS_TEST_DB=jdbc:postgresql://127.0.0.1:$PG/lychnos
  export LYCHNOS_E2E_PG=$PG LYCHNOS_E2E_RUN=$RUN PSQL=$(pg_bin)/psql
  PLAYWRIGHT_NODEJS_PATH=$(command -v node)
  export PLAYWRIGHT_NODEJS_PATH PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD=1
  # the driver of the browser tests is the npm package of the same version
  mkdir -p "$RUN/playwright"
  ln -s "$ROOT/web/node_modules/playwright-core" "$RUN/playwright/package"
  export PLAYWRIGHT_CLI_DIR=$RUN/playwright
}

hall_classpath() { echo "$ROOT/lab/target/classes:$ROOT/lab/target/lib/*"; }

# --- an installed package -----------------------------------------------------------------------------------------

# The database of this installation, for its owner: sets DB_PORT, DB_OWNER and DB_PASSWORD.
installation_database() {
  if [ -n "${LYCHNOS_PACKAGED:-}" ]; then
    [ -r /etc/lychnos/migrate.env ] || die "run this as root: it reads /etc/lychnos/migrate.env"
    . /etc/lychnos/migrate.env
    DB_PORT=$(sed -n 's#^QUARKUS_DATASOURCE_JDBC_URL=jdbc:postgresql://[^:/]*:\([0-9]*\)/.*#\1#p' \
      /etc/lychnos/server.env)
    DB_OWNER=$LYCHNOS_DB_OWNER DB_PASSWORD=$LYCHNOS_DB_OWNER_PASSWORD
  else
    [ -f "$DATA/pg/postmaster.pid" ] || die "no server runs here: ./lychnos start"
    DB_PORT=$(sed -n 4p "$DATA/pg/postmaster.pid")
    DB_OWNER=lychnos DB_PASSWORD=$(cat "$DATA/pg.password")
  fi
}

# a package brings what it needs, and nothing of it is built here
if [ -n "${LYCHNOS_PACKAGED:-}" ]; then
  ensure_base() { :; }
  ensure_node() { :; }
  ensure_built() { :; }
fi
