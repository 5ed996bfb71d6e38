# start and stop.

WEB_PORT=${LOWFELL_PORT:-5210}
SERVER_PID=""
COPIES_PID=""

# What runs from this data folder: its process with the instant it began, and its ports. A number alone may be another program's by now.
RUN_FACTS=$DATA/lowfell.run

began() { sed -n 's/^.*) //p' "/proc/$1/stat" 2>/dev/null | cut -d' ' -f20; }
run_fact() { sed -n "s/^$1=//p" "$RUN_FACTS" 2>/dev/null; }
running() { local pid; pid=$(run_fact pid); [ -n "$pid" ] && [ "$(began "$pid")" = "$(run_fact began)" ]; }

wind_down() {
  trap '' INT TERM
  if [ -n "$COPIES_PID" ]; then kill -TERM "$COPIES_PID" 2>/dev/null || true; COPIES_PID=""; fi
  if [ -n "$SERVER_PID" ]; then
    kill -TERM "$SERVER_PID" 2>/dev/null || true
    wait "$SERVER_PID" 2>/dev/null || true
    SERVER_PID=""
  fi
  stop_cluster
  if [ "$(run_fact pid)" = $$ ]; then rm -f "$RUN_FACTS"; fi
}

# run_server PORT DATABASE-CONNECTION OWNER-CONNECTION DEMO LOG-FOLDER
run_server() {
  local out=$5/server.out
  keep_log "$out"
  find "$5" -maxdepth 1 -name 'server*.log' -exec chmod 600 {} +
  (umask 077; : >>"$out")
  local umask_was
  umask_was=$(umask)
  umask 077
  ASPNETCORE_URLS="http://127.0.0.1:$1" Lowfell__Database="$2" Lowfell__Owner="$3" Lowfell__Demo="$4" Lowfell__Log="$5/server.log" Lowfell__Secret="${LOWFELL_SECRET:-$5/own-secret}" Lowfell__Restored="$RESTORED" Lowfell__LogLevel="${LOWFELL_LOG_LEVEL:-}" ASPNETCORE_ENVIRONMENT=Production \
    MALLOC_ARENA_MAX=2 ASPNETCORE_CONTENTROOT="$PWD/$SERVER" "${TIED[@]}" dotnet "$(server_dll)" >>"$out" 2>&1 &
  SERVER_PID=$!
  umask "$umask_was"
  # A first start makes tables and the demo; on a machine that is busy with other things that takes a minute.
  for _ in $(seq 1200); do
    curl_ok "http://127.0.0.1:$1/health" && return 0
    kill -0 "$SERVER_PID" 2>/dev/null || fail "the server did not start: $(tail -3 "$out")"
    sleep 0.1
  done
  fail "the server did not answer within two minutes; see $5/server.log."
}

# Plain bash, so that neither curl nor wget is needed.
curl_ok() {
  local host=${1#http://} path answer
  path=/${host#*/}
  host=${host%%/*}
  exec 3<>"/dev/tcp/${host%:*}/${host#*:}" || return 1
  printf 'GET %s HTTP/1.0\r\nHost: %s\r\n\r\n' "$path" "$host" >&3
  IFS= read -r -t 5 answer <&3 || answer=""
  exec 3<&-
  case "$answer" in *" 200 "*) return 0 ;; *) return 1 ;; esac
} 2>/dev/null

lowfell_start() {
  need_dotnet; need_node; need_setpriv; need_flock
  [ -n "${LOWFELL_DATABASE:-}" ] || need_postgres
  if running; then fail "Lowfell is running from $DATA already: http://127.0.0.1:$(run_fact web). Use it, or stop it with ./lowfell stop"; fi
  lock_data
  [ -n "${LOWFELL_DATABASE:-}" ] || check_cluster
  if port_taken "$WEB_PORT"; then
    fail "port $WEB_PORT is taken. If that is another Lowfell, use it or stop it with ./lowfell stop; otherwise choose another: LOWFELL_PORT=5211 ./lowfell start"
  fi
  need_room
  build_web
  trap wind_down EXIT
  trap 'exit 130' INT
  trap 'exit 143' TERM
  local demo=true
  [ "${LOWFELL_DEMO:-on}" = off ] && demo=false
  printf 'pid=%s\nbegan=%s\nweb=%s\ndb=%s\n' $$ "$(began $$)" "$WEB_PORT" "$DB_PORT" >"$RUN_FACTS"
  if [ -n "${LOWFELL_DATABASE:-}" ]; then
    run_server "$WEB_PORT" "$LOWFELL_DATABASE" "${LOWFELL_OWNER_DATABASE:-$LOWFELL_DATABASE}" "$demo" "$DATA"
  else
    [ -e "$CLUSTER" ] || make_cluster
    clear_stale_lock
    start_cluster
    ensure_roles
    if [ "$COPIES_KEPT" -gt 0 ]; then (umask 077; mkdir -p "$COPIES"); export Lowfell__Copies="$COPIES"; fi
    run_server "$WEB_PORT" "$(connection lowfell $SERVE)" "$(connection lowfell $OWNER)" "$demo" "$DATA"
    (trap - EXIT INT TERM; look_after $$) </dev/null >/dev/null 2>&1 9>&- & COPIES_PID=$!
  fi
  say "open http://127.0.0.1:$WEB_PORT — Ctrl-C stops Lowfell and its database. Logs: $DATA"
  wait -n "$SERVER_PID" ${PG_PID:+"$PG_PID"} || true
  if kill -0 "$SERVER_PID" 2>/dev/null; then
    say "the database ended unexpectedly; stopping. What was stored is safe: start again. Log: $DATA/postgres.log"
  else
    say "the server ended unexpectedly; stopping. What was stored is safe: start again. Log: $DATA/server.log"
  fi
  exit 1
}

lowfell_stop() {
  local pid
  running || { say "no Lowfell is running from $DATA."; return 0; }
  pid=$(run_fact pid)
  kill -TERM "$pid"
  for _ in $(seq 200); do running || { say "stopped."; return 0; }; sleep 0.1; done
  fail "it did not stop within 20 s (process $pid)."
}
