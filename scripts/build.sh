# Builds what is stale.

SERVER=src/Lowfell.Server
WEB=src/lowfell-web
STAMPS=.build

# stale STAMP PATH... — true when anything below the paths is newer than the stamp.
stale() {
  local stamp=$STAMPS/$1
  shift
  [ -e "$stamp" ] || return 0
  [ -n "$(find "$@" \( -name node_modules -o -name bin -o -name obj -o -name wwwroot \) -prune -o -type f -newer "$stamp" -print -quit 2>/dev/null)" ]
}

# quietly COMMAND... — shows the output only when it fails. What it leaves running in the background holds no lock of ours.
quietly() {
  local log
  log=$(mktemp)
  if "$@" >"$log" 2>&1 8>&- 9>&-; then rm -f "$log"; else cat "$log" >&2; rm -f "$log"; return 1; fi
}

stamp() { mkdir -p "$STAMPS"; touch "$STAMPS/$1"; }

# build_server [BUILD] — the stamp is set to the time before the build, so that edits made meanwhile count.
build_server() {
  if stale server src/Lowfell.Core src/Lowfell.Store src/Lowfell.Server Directory.Build.props Directory.Packages.props global.json || [ ! -e "$(server_dll)" ]; then
    say "building the server"
    mkdir -p "$STAMPS"; touch "$STAMPS/server.new"
    quietly dotnet build "$SERVER" -c Release -v q --nologo || fail "the server did not build; the messages are above."
    quietly dotnet publish "$SERVER" -c Release --no-build -v q --nologo || fail "the server could not be compiled ahead; the messages are above."
    mv "$STAMPS/server.new" "$STAMPS/server"
  fi
}

server_dll() { echo "$SERVER/bin/served/Lowfell.Server.dll"; }

install_web() {
  if stale npm "$WEB/package.json" "$WEB/package-lock.json" || [ ! -d "$WEB/node_modules" ]; then
    say "installing the page's packages"
    (cd "$WEB" && npm ci --no-audit --no-fund --loglevel=error) || fail "npm ci failed; the messages are above."
    stamp npm
  fi
}

build_schema() {
  local packages
  install_web &
  packages=$!
  build_server
  wait "$packages" || exit 1
  if [ "${1:-}" = force ] || [ ! -e "$WEB/src/api/schema.d.ts" ] || [ "$(server_dll)" -nt "$WEB/src/api/schema.d.ts" ]; then
    mkdir -p "$STAMPS"
    dotnet "$(server_dll)" --write-openapi "$STAMPS/openapi.json" 2>/dev/null || fail "the API description could not be written."
    dotnet "$(server_dll)" --write-rules docs/order-rules.md 2>/dev/null || fail "the page of order rules could not be written."
    (cd "$WEB" && npx openapi-typescript "../../$STAMPS/openapi.json" --output src/api/schema.d.ts >/dev/null) || fail "the client types could not be generated."
  fi
}

# One build at a time in a checkout, however many data folders are started from it.
build_web() {
  mkdir -p "$STAMPS"
  exec 8>>"$STAMPS/lock"
  flock 8
  build_all
  exec 8>&-
}

build_all() {
  build_schema
  if stale web "$WEB" || [ ! -e "$SERVER/wwwroot/index.html" ]; then
    say "building the page"
    (cd "$WEB" && npx vite build --logLevel warn) || fail "the page did not build; the messages are above."
    stamp web
  fi
}
