# devices, instrument and migrate: what the server's own program does from the command line.

# running_at — where the Lowfell of this data folder answers; the usual place where none is known to run.
running_at() { running && echo "http://127.0.0.1:$(run_fact web)" || echo "http://127.0.0.1:$WEB_PORT"; }

lowfell_devices() { need_dotnet; build_server; exec dotnet "$(server_dll)" --devices "$(running_at)" "$@"; }

lowfell_instrument() { need_dotnet; build_server; exec dotnet "$(server_dll)" --instrument "$(running_at)" "$@"; }

lowfell_migrate() {
  need_dotnet
  [ -n "${LOWFELL_DATABASE:-}" ] || fail "migrate is for a PostgreSQL of your own: LOWFELL_DATABASE names it, LOWFELL_OWNER_DATABASE the same as its owner. The private database is brought up to date at every start."
  build_server
  Lowfell__Database="$LOWFELL_DATABASE" Lowfell__Owner="${LOWFELL_OWNER_DATABASE:-$LOWFELL_DATABASE}" dotnet "$(server_dll)" --migrate || fail "nothing was changed."
}
