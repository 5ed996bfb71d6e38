# The private PostgreSQL cluster: made once, loopback only, own port, own password.

# As root the server runs as the postgres system user, which cannot enter root's own folders.
if [ "$(id -u)" -eq 0 ]; then
  DATA=${LOWFELL_DATA:-/var/lib/lowfell}
else
  DATA=${LOWFELL_DATA:-${XDG_DATA_HOME:-$HOME/.local/share}/lowfell}
fi
CLUSTER=$DATA/cluster
DB_PORT=${LOWFELL_DB_PORT:-54210}
SECRET=$DATA/database-password
PG_PID=""

# Roles: 'lowfell' made the cluster and may do everything in it; only this script uses it. The owner migrates. The one that serves may
# read and write what is meant to be written, and only add to what has happened.
OWNER=lowfell_owner
SERVE=lowfell_serve

# Prefix that runs a program as the owner of the cluster and ties it to the script: it dies with it.
# A prefix and not a function, so that a program started in the background keeps the number that $! tells.
if [ "$(id -u)" -eq 0 ]; then
  AS_DB=(setpriv --reuid=postgres --regid=postgres --init-groups --pdeathsig INT -- env "HOME=$DATA")
else
  AS_DB=(setpriv --pdeathsig INT --)
fi

# One Lowfell at a time in a data folder: the lock is held as long as this script or anything it started lives.
lock_data() {
  mkdir -p "$DATA" || fail "the data folder $DATA cannot be made."
  if [ "$(id -u)" -eq 0 ]; then chown postgres: "$DATA"; fi
  chmod 711 "$DATA"
  exec 9>>"$DATA/lock" || fail "the data folder $DATA cannot be written to."
  # One that was just killed may still be leaving.
  flock -w "${1:-3}" 9 || fail "another Lowfell is at work in $DATA$(running && echo " (process $(run_fact pid), http://127.0.0.1:$(run_fact web))"). Stop it first: ./lowfell stop"
}

# What PostgreSQL needs to start and to write; less than this and it would fail half-way.
need_room() {
  local free_mb
  free_mb=$(($(df -Pk "$DATA" | awk 'NR == 2 { print $4 }') / 1024))
  [ "$free_mb" -ge 64 ] || fail "the disk that holds $DATA is full: $free_mb MB are left, 64 are needed to start. Make room and start again; nothing was changed."
}

# A log that has grown to this is put aside.
LOG_MOST=${LOWFELL_LOG_BYTES:-4000000}

# keep_log FILE — puts a log that has grown aside; the last three are kept. It is copied and emptied, since whoever writes it goes on
# writing at its end. Logs are for who runs this, and nobody else.
keep_log() {
  [ -e "$1" ] || return 0
  chmod 600 "$1"
  [ "$(stat -c %s "$1")" -gt "$LOG_MOST" ] || return 0
  local n
  for n in 2 1; do [ ! -e "$1.$n" ] || mv -f "$1.$n" "$1.$((n + 1))"; done
  (umask 077; cp "$1" "$1.1") && truncate -s 0 "$1"
}

make_cluster() {
  local new=$DATA/cluster.new
  if [ -e "$new" ]; then
    local aside
    aside=$DATA/cluster.half-made.$(date +%s)
    say "a first start was interrupted; its unfinished cluster is set aside in $aside (it holds no data of yours)."
    mv "$new" "$aside"
  fi
  say "making a private database cluster in $CLUSTER"
  (umask 077; head -c 24 /dev/urandom | od -An -tx1 | tr -d ' \n' >"$SECRET")
  chmod 600 "$SECRET"
  local pass=$DATA/.initial-password
  (umask 077; cp "$SECRET" "$pass")
  if [ "$(id -u)" -eq 0 ]; then chown postgres: "$pass"; fi
  (cd "$DATA" && "${AS_DB[@]}" "$PG_BIN/initdb" -D "$new" -U lowfell --pwfile="$pass" -A scram-sha-256 -E UTF8 --locale=C.UTF-8 --data-checksums >"$DATA/initdb.log" 2>&1) \
    || fail "initdb failed; see $DATA/initdb.log. Nothing else was touched."
  rm -f "$pass"
  mv "$new" "$CLUSTER"
}

check_cluster() {
  if [ -e "$CLUSTER" ] && [ ! -s "$CLUSTER/PG_VERSION" ]; then
    fail "$CLUSTER is not a complete cluster (PG_VERSION is missing). Nothing was changed. Restore it from a copy, or move it away and start again to make a new one."
  fi
  if [ -e "$CLUSTER" ]; then
    local version
    version=$(cat "$CLUSTER/PG_VERSION")
    find_postgres "$version" || fail "your data in $CLUSTER belongs to PostgreSQL $version, which is not installed here. Install postgresql-$version and run this again; nothing was changed."
    [ -s "$SECRET" ] || fail "the password file $SECRET is missing. Put it back; the data in $CLUSTER is untouched."
  fi
}

# A lock that a killed server left: PostgreSQL clears it itself unless another program has its number now.
clear_stale_lock() {
  local lock=$CLUSTER/postmaster.pid pid
  [ -e "$lock" ] || return 0
  pid=$(head -1 "$lock" 2>/dev/null || true)
  if [ -n "$pid" ] && [ -d "/proc/$pid" ] && [ "$(cat "/proc/$pid/comm" 2>/dev/null)" = postgres ]; then
    if tr '\0' ' ' <"/proc/$pid/cmdline" | grep -qF -- "$CLUSTER"; then
      fail "the database of $CLUSTER is already running (process $pid). Stop the other Lowfell first: ./lowfell stop"
    fi
  fi
  say "the last database was not stopped cleanly; its lock is removed and it will recover by itself."
  rm -f "$lock"
  # Its children may still be leaving.
  for _ in $(seq 50); do pgrep -f "postgres.*$CLUSTER" >/dev/null 2>&1 || break; sleep 0.1; done
}

start_cluster() {
  if port_taken "$DB_PORT"; then
    fail "port $DB_PORT, which the database wants, is taken by another program. Stop that program, or choose another: LOWFELL_DB_PORT=54211 ./lowfell start"
  fi
  keep_log "$DATA/postgres.log"
  (umask 077; : >>"$DATA/postgres.log")
  "${AS_DB[@]}" "$PG_BIN/postgres" -D "$CLUSTER" -c listen_addresses=127.0.0.1 -c port="$DB_PORT" -c unix_socket_directories= \
    -c log_timezone=UTC -c timezone=UTC -c log_min_messages=log -c log_min_error_statement=panic "$@" >>"$DATA/postgres.log" 2>&1 &
  PG_PID=$!
  for _ in $(seq 300); do
    "$PG_BIN/pg_isready" -q -h 127.0.0.1 -p "$DB_PORT" && return 0
    kill -0 "$PG_PID" 2>/dev/null || fail "the database did not start; the last lines of $DATA/postgres.log: $(tail -3 "$DATA/postgres.log")"
    sleep 0.1
  done
  fail "the database did not answer within 30 s; see $DATA/postgres.log."
}

stop_cluster() {
  [ -n "$PG_PID" ] || return 0
  kill -INT "$PG_PID" 2>/dev/null || true
  wait "$PG_PID" 2>/dev/null || true
  PG_PID=""
}

# role_password ROLE — made at the first question and kept.
role_password() {
  local file=$DATA/$1-password
  [ -s "$file" ] || (umask 077; head -c 24 /dev/urandom | od -An -tx1 | tr -d ' \n' >"$file")
  cat "$file"
}

# connection DATABASE ROLE
connection() { echo "Host=127.0.0.1;Port=$DB_PORT;Username=$2;Password=$(role_password "$2");Database=$1"; }

# sql STATEMENTS DATABASE — as the one who made the cluster. Statements go in by the back: what stands in a command line, anybody on this
# machine can read, and there are passwords among them.
sql() { PGPASSWORD=$(cat "$SECRET") "$PG_BIN/psql" -h 127.0.0.1 -p "$DB_PORT" -U lowfell -d "$2" -XAtq -v ON_ERROR_STOP=1 -f - <<<"$1"; }

# Makes the roles, and the database they work in when there is none.
ensure_roles() {
  local role
  for role in "$OWNER" "$SERVE"; do
    sql "do \$\$ begin create role $role login; exception when duplicate_object then null; end \$\$; alter role $role nosuperuser nocreatedb nocreaterole nobypassrls password '$(role_password "$role")'" postgres
  done
  if [ -z "$(sql "select 1 from pg_database where datname = '${1:-lowfell}'" postgres)" ]; then
    sql "create database ${1:-lowfell} owner $OWNER" postgres
  else
    own_database "${1:-lowfell}"
  fi
}

# own_database NAME — hands everything in a database to the owner's role: data made before there was one belongs to 'lowfell'.
own_database() {
  [ "$(sql "select pg_get_userbyid(datdba) from pg_database where datname = '$1'" postgres)" != "$OWNER" ] || return 0
  sql "
    do \$\$ declare r record; begin
      for r in select c.oid::regclass as name from pg_class c where c.relnamespace = 'public'::regnamespace and c.relkind in ('r', 'p', 'v', 'm')
      loop execute format('alter table %s owner to $OWNER', r.name); end loop;
      for r in select p.oid::regprocedure as name from pg_proc p where p.pronamespace = 'public'::regnamespace
      loop execute format('alter routine %s owner to $OWNER', r.name); end loop;
    end \$\$;
    alter database $1 owner to $OWNER;" "$1"
}
