# backup and restore: one file with everything, and back without losing what is there.
#
# A backup is one line of text and then PostgreSQL's own archive: the line says that it is one, which migration it was made at, and
# the SHA-256 of the archive, so that a file that was cut short or changed on the way is told before anything is touched.

MARKER="lowfell-backup 1"
ASIDE=lowfell_before_
ASIDES_KEPT=3

# Copies that are made by themselves, a day apart; so many are kept, and none where that is 0.
COPIES=$DATA/copies

# Says when a backup was restored last, to whoever wonders where the devices are.
RESTORED=$DATA/restored
COPIES_KEPT=${LOWFELL_COPIES:-7}

# look_after PROCESS — as long as it runs: a copy of everything when the newest is a day old, and logs that have grown put aside. Nothing
# that goes wrong in it is worth ending for.
look_after() {
  set +e
  while sleep "${LOWFELL_COPY_EVERY:-60}" && kill -0 "$1" 2>/dev/null; do
    keep_log "$DATA/postgres.log"
    keep_log "$DATA/server.out"
    [ "$COPIES_KEPT" -eq 0 ] || keep_copy
  done
}

# dated_within MINUTES NAME — a file among the copies from the last so many minutes; one from the future says nothing of when it was made.
dated_within() { find "$COPIES" -name "$2" -mmin "-$1" ! -newermt "1 minute" -print -quit 2>/dev/null; }

# keep_copy — a copy of everything when there is none of today, looked through like every backup. A disk that failed is not tried again
# for an hour.
keep_copy() {
  local file
  mkdir -p "$COPIES"
  [ -z "$(dated_within 1430 '*.backup')" ] && [ -z "$(dated_within "${LOWFELL_COPY_AGAIN:-60}" failed)" ] || return 0
  file=$COPIES/$(date +%Y-%m-%d_%H%M%S).backup
  # No copy is written over another, were it of the same second.
  [ ! -e "$file" ] || return 0
  if write_backup lowfell "$file" >"$COPIES/said" 2>&1; then
    rm -f "$COPIES/failed"
    # The oldest go first, and those from the future before them.
    find "$COPIES" -name '*.backup' -printf '%T@ %p\n' | awk -v now="$(date +%s)" '{ at = $1 > now + 60 ? 0 : $1; $1 = ""; print at $0 }' | sort -n | cut -d' ' -f2- | head -n "-$COPIES_KEPT" | while read -r old; do rm -f "$old"; done
  else
    touch "$COPIES/said" && mv -f "$COPIES/said" "$COPIES/failed"
  fi
}

# begin_cluster — the database for a backup or a restore, when Lowfell is not running.
begin_cluster() {
  trap stop_cluster EXIT
  trap 'exit 130' INT
  trap 'exit 143' TERM
  [ -e "$CLUSTER" ] || make_cluster
  clear_stale_lock
  start_cluster
  ensure_roles
}

newest_migration() { sql "select migration_id from \"__EFMigrationsHistory\" order by 1 desc limit 1" "$1" 2>/dev/null || true; }

# write_backup DATABASE FILE — everything in a database, looked through once it is written.
write_backup() {
  local archive=$2.part migration
  migration=$(newest_migration "$1")
  [ -n "$migration" ] || { echo "the database $1 has nothing of Lowfell in it"; return 1; }
  (umask 077; PGPASSWORD=$(cat "$SECRET") "$PG_BIN/pg_dump" -h 127.0.0.1 -p "$DB_PORT" -U lowfell -Fc --no-owner --no-acl -f "$archive" "$1") \
    && "$PG_BIN/pg_restore" -f /dev/null "$archive" \
    && (umask 077; { echo "$MARKER $migration $(sha256sum <"$archive" | cut -d' ' -f1)"; cat "$archive"; } >"$2.whole") \
    && mv "$2.whole" "$2" || { rm -f "$archive" "$2.whole"; return 1; }
  rm -f "$archive"
}

# read_backup FILE ARCHIVE — looks through a backup without a database and leaves its archive; says why it is refused.
read_backup() {
  local first migration
  first=$(head -c 200 "$1" | head -n 1 | tr -cd '[:print:]')
  case "$first" in
    "$MARKER "*)
      tail -n +2 "$1" >"$2"
      [ "$(sha256sum <"$2" | cut -d' ' -f1)" = "${first##* }" ] || { echo "$1 was cut short or changed since it was made."; return 1; } ;;
    "lowfell-backup "*) echo "$1 was made by a newer Lowfell than this one."; return 1 ;;
    # Backups of before had no line of their own.
    PGDMP*) cp "$1" "$2" ;;
    *) echo "$1 is not a backup of Lowfell."; return 1 ;;
  esac
  "$PG_BIN/pg_restore" -f /dev/null "$2" 2>/dev/null || { echo "$1 is damaged, or is not a backup of Lowfell."; return 1; }
  # What is in it, by its own list: tables and what belongs to them, and nothing else.
  if [ -n "$("$PG_BIN/pg_restore" -l "$2" | grep -v "^;" | grep -vE '^[0-9]+; [0-9]+ [0-9]+ (TABLE|TABLE DATA|SEQUENCE|SEQUENCE SET|SEQUENCE OWNED BY|DEFAULT|CONSTRAINT|FK CONSTRAINT|INDEX|TRIGGER|FUNCTION|ACL) public |^[0-9]+; [0-9]+ [0-9]+ (COMMENT|ACL) - SCHEMA public ')" ]; then
    echo "$1 holds things that no backup of Lowfell has."; return 1
  fi
  "$PG_BIN/pg_restore" -a -t __EFMigrationsHistory -f - "$2" 2>/dev/null | sed -n 's/^\([0-9]\{14\}_[A-Za-z0-9]*\)\t.*$/\1/p' >"$2.migrations"
  [ -s "$2.migrations" ] || { echo "$1 is not a backup of Lowfell."; return 1; }
  dotnet "$(server_dll)" --migrations >"$2.known" 2>/dev/null || { echo "the migrations of this version could not be listed."; return 1; }
  while read -r migration; do
    grep -qx "$migration" "$2.known" || { echo "$1 was made by a newer Lowfell than this one (it is at $migration)."; return 1; }
  done <"$2.migrations"
  # What its first line says is what is in it.
  case "$first" in
    "$MARKER "*)
      migration=${first#"$MARKER "}; migration=${migration%% *}
      grep -qx "$migration" "$2.known" || { echo "$1 says that it was made by a newer Lowfell than this one (at $migration)."; return 1; }
      [ "$migration" = "$(sort "$2.migrations" | tail -n 1)" ] || { echo "$1 says that it is at $migration, and what is in it is not."; return 1; } ;;
  esac
}

# shape DATABASE — everything in a database that acts: columns, constraints, functions, triggers, rules. Two alike are one line alike.
# Checks are told by their names: PostgreSQL words them otherwise after a restore.
shape() {
  sql "select md5(string_agg(x, E'\\n' order by x)) from (
    select 'column ' || c.relname || ' ' || a.attname || ' ' || format_type(a.atttypid, a.atttypmod) || ' ' || a.attnotnull::text || ' ' || a.attidentity::text || ' ' || coalesce(pg_get_expr(d.adbin, d.adrelid), '') as x
      from pg_attribute a join pg_class c on c.oid = a.attrelid left join pg_attrdef d on (d.adrelid, d.adnum) = (a.attrelid, a.attnum)
      where c.relnamespace = 'public'::regnamespace and c.relkind in ('r', 'p', 'v', 'm', 'f') and a.attnum > 0 and not a.attisdropped
    union all select 'relation ' || relkind::text || ' ' || relname || ' ' || relrowsecurity::text from pg_class where relnamespace = 'public'::regnamespace
    union all select 'constraint ' || conrelid::regclass::text || ' ' || conname || ' ' || contype::text || case contype when 'c' then '' else pg_get_constraintdef(oid) end from pg_constraint where connamespace = 'public'::regnamespace
    union all select 'index ' || pg_get_indexdef(indexrelid) from pg_index i join pg_class c on c.oid = i.indexrelid where c.relnamespace = 'public'::regnamespace
    union all select 'function ' || pg_get_functiondef(oid) from pg_proc where pronamespace = 'public'::regnamespace and prokind in ('f', 'p')
    union all select 'other routine ' || proname from pg_proc where pronamespace = 'public'::regnamespace and prokind not in ('f', 'p')
    union all select 'trigger ' || pg_get_triggerdef(oid) || ' ' || tgenabled::text from pg_trigger where not tgisinternal
    union all select 'rule ' || pg_get_ruledef(r.oid) from pg_rewrite r join pg_class c on c.oid = r.ev_class where c.relnamespace = 'public'::regnamespace
    union all select 'policy ' || polname from pg_policy union all select 'event trigger ' || evtname from pg_event_trigger) everything" "$1"
}

# same_shape DATABASE DATABASE
same_shape() {
  local one other
  one=$(shape "$1") && other=$(shape "$2") && [ -n "$one" ] && [ "$one" = "$other" ]
}

# load_archive ARCHIVE DATABASE — into a new database, with no more rights than the owner of one has; what acts in it must be just what
# this version's own migrations make. Nothing is left of it when that fails.
load_archive() {
  local scratch=lowfell_scratch
  drop_database "$2"; drop_database "$scratch"
  sql "create database $2 owner $OWNER" postgres
  sql "create database $scratch owner $OWNER" postgres
  if PGPASSWORD=$(role_password $OWNER) "$PG_BIN/pg_restore" -h 127.0.0.1 -p "$DB_PORT" -U $OWNER --no-owner --no-acl --no-comments --exit-on-error -d "$2" "$1" >"$1.out" 2>&1 \
    && Lowfell__Owner=$(connection $scratch $OWNER) dotnet "$(server_dll)" --migrate-to "$(tail -n 1 "$1.migrations")" >>"$1.out" 2>&1 \
    && same_shape "$2" "$scratch"; then
    drop_database "$scratch"
  else
    drop_database "$scratch"; drop_database "$2"
    return 1
  fi
}

# revoke_access DATABASE — access is never restored: who was sent away would come back with what they had. The door is shut, every device
# is sent away, secret addresses and keys are worth nothing, and the authority is made anew.
revoke_access() {
  local table
  has() { [ "$(sql "select to_regclass('public.$1') is not null" "$2")" = t ]; }
  for table in doors pairing_keys authorities; do
    if has "$table" "$1"; then sql "delete from $table" "$1"; fi
  done
  if has paired_devices "$1"; then sql "update paired_devices set sent_away_at = now() where sent_away_at is null" "$1"; fi
  if has calendar_addresses "$1"; then sql "update calendar_addresses set revoked_at = now() where revoked_at is null" "$1"; fi
}

drop_database() { sql "drop database if exists \"$1\" with (force)" postgres 2>/dev/null; }

# put_in_place DATABASE — it becomes the one that is served, and what was there is put aside, both or neither.
put_in_place() {
  local aside
  revoke_access "$1"
  aside=$ASIDE$(date +%Y%m%d_%H%M%S)
  sql "begin; alter database lowfell rename to $aside; alter database \"$1\" rename to lowfell; commit" postgres
  (umask 077; : >"$RESTORED"); touch "$RESTORED"
  say "access is not restored: the door is shut, devices have to be taken in again, secret calendar addresses to be made anew."
  say "what was there is kept as ${aside#"$ASIDE"}: ./lowfell restore --back ${aside#"$ASIDE"}"
  local old
  for old in $(asides | head -n -$ASIDES_KEPT); do
    drop_database "$old"
    say "${old#"$ASIDE"}, put aside earlier, is gone: the last $ASIDES_KEPT are kept."
  done
}

asides() { sql "select datname from pg_database where datname like '${ASIDE//_/\\_}%' order by 1" postgres; }

lowfell_backup() {
  local file=${1:-lowfell-$(date +%Y%m%d-%H%M).backup}
  [ -z "${LOWFELL_DATABASE:-}" ] || fail "LOWFELL_DATABASE names a database of your own: back it up with its own tools."
  [ ! -e "$file" ] || fail "$file is there already. Name another file; nothing was written."
  need_setpriv; need_flock; need_postgres; check_cluster
  [ -e "$CLUSTER" ] || fail "there is no data in $DATA yet."
  if running; then
    DB_PORT=$(run_fact db)
  else
    lock_data; begin_cluster
  fi
  write_backup lowfell "$file" || fail "the backup could not be written; the data is untouched."
  say "everything is in $file ($(du -h "$file" | cut -f1)). Keep it where this machine's troubles do not reach."
}

lowfell_restore() {
  [ -z "${LOWFELL_DATABASE:-}" ] || fail "LOWFELL_DATABASE names a database of your own: restore it with its own tools."
  need_dotnet; need_setpriv; need_flock; need_postgres; check_cluster
  running && fail "Lowfell is running. Stop it first: ./lowfell stop"
  case "${1:-}" in
    --list) lock_data; begin_cluster; list_asides ;;
    --back) lock_data; begin_cluster; bring_back "${2:-}" ;;
    *) restore_file "${1:-}" ;;
  esac
}

restore_file() {
  local file=$1 work why
  [ -f "$file" ] && [ -r "$file" ] || fail "name a backup that can be read: ./lowfell restore FILE"
  build_server
  lock_data
  need_room
  work=$(mktemp -d); chmod 700 "$work"
  why=$(read_backup "$file" "$work/archive") || { rm -rf "$work"; fail "$why Nothing was changed."; }
  begin_cluster
  load_archive "$work/archive" lowfell_restored || { why=$(tail -n 2 "$work/archive.out"); rm -rf "$work"; fail "$file could not be restored: it is damaged, or was made up. What was there is untouched. $why"; }
  rm -rf "$work"
  put_in_place lowfell_restored
  say "restored. ./lowfell start brings it up to this version if it is older."
}

list_asides() {
  local name
  [ -n "$(asides)" ] || { say "nothing was put aside."; return 0; }
  for name in $(asides); do
    say "${name#"$ASIDE"}  $(sql "select pg_size_pretty(pg_database_size('$name'))" postgres), sets: $(sql "select coalesce(string_agg(name, ', ' order by name), 'none') from sets" "$name")"
  done
}

bring_back() {
  asides | grep -x "$ASIDE${1:-?}" >/dev/null || fail "nothing of this name was put aside. ./lowfell restore --list tells what there is."
  own_database "$ASIDE$1"
  put_in_place "$ASIDE$1"
  say "$1 is back in its place."
}
