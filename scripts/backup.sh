# backup and restore: one file with everything, and back without losing what is there.

# dump_database NAME FILE — everything in a database as PostgreSQL's own archive.
dump_database() { (umask 077; PGPASSWORD=$(cat "$SECRET") "$PG_BIN/pg_dump" -h 127.0.0.1 -p "$DB_PORT" -U lowfell -Fc --no-owner -f "$2" "$1"); }

# load_database FILE NAME — an archive into a new database; nothing is left of it when that fails.
load_database() {
  sql "create database \"$2\"" postgres
  PGPASSWORD=$(cat "$SECRET") "$PG_BIN/pg_restore" -h 127.0.0.1 -p "$DB_PORT" -U lowfell --no-owner --exit-on-error -d "$2" "$1" || { sql "drop database \"$2\"" postgres; return 1; }
}

sql() { PGPASSWORD=$(cat "$SECRET") "$PG_BIN/psql" -h 127.0.0.1 -p "$DB_PORT" -U lowfell -d "$2" -XAtq -v ON_ERROR_STOP=1 -c "$1"; }

running() { local pid; pid=$(cat "$SCRIPT_LOCK" 2>/dev/null || true); [ -n "$pid" ] && kill -0 "$pid" 2>/dev/null; }

lowfell_backup() {
  local file=${1:-lowfell-$(date +%Y%m%d-%H%M).backup}
  [ ! -e "$file" ] || fail "$file is there already. Name another file; nothing was written."
  need_setpriv; need_postgres; check_cluster
  [ -e "$CLUSTER" ] || fail "there is no data in $DATA yet."
  if ! running; then
    trap stop_cluster EXIT
    clear_stale_lock
    start_cluster
  fi
  dump_database lowfell "$file" || { rm -f "$file"; fail "the backup could not be written; the data is untouched."; }
  say "everything is in $file ($(du -h "$file" | cut -f1)). Keep it where this machine's troubles do not reach."
}

lowfell_restore() {
  local file=${1:-} aside
  [ -r "$file" ] || fail "name a backup that can be read: ./lowfell restore FILE"
  need_setpriv; need_postgres; check_cluster
  "$PG_BIN/pg_restore" -l "$file" >/dev/null 2>&1 || fail "$file is not a backup of Lowfell. Nothing was changed."
  running && fail "Lowfell is running. Stop it first: ./lowfell stop"
  trap stop_cluster EXIT
  [ -e "$CLUSTER" ] || make_cluster
  clear_stale_lock
  start_cluster
  load_database "$file" lowfell_restored || fail "$file could not be restored. What was there is untouched."
  aside=lowfell_before_$(date +%Y%m%d_%H%M%S)
  if [ -n "$(sql "select 1 from pg_database where datname = 'lowfell'" postgres)" ]; then
    sql "alter database lowfell rename to $aside" postgres
    say "what was there is kept in the database $aside."
  fi
  sql "alter database lowfell_restored rename to lowfell" postgres
  say "restored. ./lowfell start brings it up to this version if it is older."
}
