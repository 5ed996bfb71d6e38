# start and stop.

WEB_PORT=${LOWFELL_PORT:-5210}
SCRIPT_LOCK=$DATA/lowfell.pid
SERVER_PID=""

wind_down() {
  trap '' INT TERM
  if [ -n "$SERVER_PID" ]; then
    kill -TERM "$SERVER_PID" 2>/dev/null || true
    wait "$SERVER_PID" 2>/dev/null || true
    SERVER_PID=""
  fi
  stop_cluster
  if [ "$(cat "$SCRIPT_LOCK" 2>/dev/null)" = $$ ]; then rm -f "$SCRIPT_LOCK"; fi
}

run_server() {
  ASPNETCORE_URLS="http://127.0.0.1:$1" Lowfell__Database="$2" Lowfell__Demo="$3" ASPNETCORE_ENVIRONMENT=Production \
    ASPNETCORE_CONTENTROOT="$PWD/$SERVER" "${TIED[@]}" dotnet "$(server_dll)" >"$4" 2>&1 &
  SERVER_PID=$!
  for _ in $(seq 400); do
    curl_ok "http://127.0.0.1:$1/health" && return 0
    kill -0 "$SERVER_PID" 2>/dev/null || fail "the server did not start; the last lines of $4: $(tail -3 "$4")"
    sleep 0.1
  done
  fail "the server did not answer within 40 s; see $4."
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
  need_dotnet; need_node; need_setpriv; need_postgres
  check_cluster
  if port_taken "$WEB_PORT"; then
    fail "port $WEB_PORT is taken. If that is another Lowfell, use it or stop it with ./lowfell stop; otherwise choose another: LOWFELL_PORT=5211 ./lowfell start"
  fi
  build_web
  trap wind_down EXIT
  trap 'exit 130' INT
  trap 'exit 143' TERM
  [ -e "$CLUSTER" ] || make_cluster
  clear_stale_lock
  echo $$ >"$SCRIPT_LOCK"
  start_cluster
  local demo=true
  [ "${LOWFELL_DEMO:-on}" = off ] && demo=false
  run_server "$WEB_PORT" "$(connection)" "$demo" "$DATA/server.log"
  say "open http://127.0.0.1:$WEB_PORT — Ctrl-C stops Lowfell and its database. Logs: $DATA"
  local ended=0
  wait -n "$SERVER_PID" "$PG_PID" || ended=$?
  if kill -0 "$SERVER_PID" 2>/dev/null; then
    say "the database ended unexpectedly; stopping. What was stored is safe: start again. Log: $DATA/postgres.log"
  else
    say "the server ended unexpectedly; stopping. What was stored is safe: start again. Log: $DATA/server.log"
  fi
  exit 1
}

lowfell_stop() {
  local pid
  pid=$(cat "$SCRIPT_LOCK" 2>/dev/null || true)
  if [ -z "$pid" ] || ! kill -0 "$pid" 2>/dev/null; then say "no Lowfell is running from $DATA."; return 0; fi
  kill -TERM "$pid"
  for _ in $(seq 200); do kill -0 "$pid" 2>/dev/null || { say "stopped."; return 0; }; sleep 0.1; done
  fail "it did not stop within 20 s (process $pid)."
}
