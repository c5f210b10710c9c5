# Accounts of a server that ./lychnos start runs here. Sourced by lychnos.
account_usage() {
  cat <<'TXT'
usage: ./lychnos account add LOGIN NAME ROLE       ROLE is viewer, engineer or lead
       ./lychnos account list
       ./lychnos account disable LOGIN
       ./lychnos account reset-password LOGIN

For the server that ./lychnos start runs here; it must be running. add and reset-password print a link to set a
password; it works once, within three days. disable ends all sessions of the person. Leads can do the same on the
page People.

  LYCHNOS_DATA   where the database is   (.lychnos)
  LYCHNOS_URL    the URL of the server, used in links   (the one that start printed)
TXT
}
case ${1:-} in add|list|disable|reset-password) ;; --help) account_usage; exit 0 ;; *) account_usage >&2; exit 2 ;; esac
installation_database
URL=${LYCHNOS_URL:-$(cat "$DATA/start.url" 2>/dev/null || echo http://127.0.0.1:8080/)}

# account_sql NAME=VALUE … : runs what comes in; values go in as variables and never into the text
account_sql() {
  local set=()
  for each in "$@"; do set+=(-v "$each"); done
  PGPASSWORD=$DB_PASSWORD "$(pg_bin)/psql" -X -q -t -A -v ON_ERROR_STOP=1 -h 127.0.0.1 -p \
    "$DB_PORT" -U "$DB_OWNER" -d lychnos "${set[@]}" -f -
}

# account_link LOGIN: a link with which this person sets a password
account_link() {
  local token
  token=$(head -c 32 /dev/urandom | base64 | tr '+/' '-_' | tr -d '=\n')
  account_sql login="$1" digest="$(printf %s "$token" | sha256sum | cut -d' ' -f1)" <<'SQL' >/dev/null
insert into invitation (account_id, token_digest, made_by, ends_at)
  select id, decode(:'digest', 'hex'), null, now() + interval '3 days' from account where login = :'login'
  on conflict (account_id)
    do update set token_digest = excluded.token_digest, made_by = null, ends_at = excluded.ends_at;
insert into journal (actor, act) values ('command line', 'made a link for ' || :'login' || ' to set a password');
SQL
  echo "${URL%/}/invite#$token"
}

account_is() { # account_is LOGIN: ends where there is none
  local found="select count(*) from account where login = :'login' and disabled_at is null"
  [ "$(account_sql login="$1" <<<"$found")" = 1 ] \
    || die "there is no account “$1” that is enabled: ./lychnos account list"
}

case $1 in
  list)
    account_sql <<'SQL' ;;
select format('%-20s %-9s %-28s %s', login, role, name,
  case when disabled_at is not null then 'disabled' when password_hash is null then 'invited' else '' end)
  from account order by login;
SQL
  add)
    [ $# -eq 4 ] || { account_usage >&2; exit 2; }
    case $4 in viewer|engineer|lead) ;; *) die "“$4” is no role: viewer, engineer or lead" ;; esac
    [[ $2 =~ ^[a-z][a-z0-9._-]{1,31}$ ]] \
      || die "“$2” is no login: 2 to 32 lowercase letters, digits, dots and hyphens, and a letter first"
    [ "$(account_sql login="$2" <<<"select count(*) from account where login = :'login'")" = 0 ] \
      || die "there is an account “$2” already"
    account_sql login="$2" name="$3" role="$4" <<'SQL' >/dev/null \
      || die "the account could not be added; is “$3” a name of 1 to 80 characters?"
begin;
insert into account (login, name, role) values (:'login', :'name', :'role');
insert into journal (actor, act) values ('command line', 'invited ' || :'login' || ' as ' || :'role');
commit;
SQL
    say "$2 sets a password with this link, once, within three days:"
    account_link "$2" ;;
  disable)
    [ $# -eq 2 ] || { account_usage >&2; exit 2; }
    account_is "$2"
    others="select count(*) from account where role = 'lead' and disabled_at is null"
    others+=" and password_hash is not null and login <> :'login'"
    [ "$(account_sql login="$2" <<<"$others")" != 0 ] \
      || die "“$2” is the only lead: make somebody else a lead first"
    account_sql login="$2" <<'SQL' >/dev/null
begin;
update account set disabled_at = now() where login = :'login';
delete from sign_in where account_id = (select id from account where login = :'login');
delete from invitation where account_id = (select id from account where login = :'login');
insert into journal (actor, act) values ('command line', 'disabled the account ' || :'login');
select pg_notify('lychnos', '-1 sessions command-line');
commit;
SQL
    say "$2 is disabled and signed out" ;;
  reset-password)
    [ $# -eq 2 ] || { account_usage >&2; exit 2; }
    account_is "$2"
    say "$2 sets another password with this link, once, within three days; the old one works until then:"
    account_link "$2" ;;
esac
