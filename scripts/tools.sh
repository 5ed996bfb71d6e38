# Programs that Lowfell needs: checks versions, installs what Debian's packages have.

say() { printf 'lowfell: %s\n' "$*"; }
fail() { printf 'lowfell: %s\n' "$*" >&2; exit 1; }

NODE_NEEDED=20

need_dotnet() {
  command -v dotnet >/dev/null || fail "the .NET SDK is missing. Get the .NET 10 SDK for your system, put 'dotnet' on the PATH, and run this again."
  local major
  major=$(dotnet --version 2>/dev/null | cut -d. -f1) || true
  [ "${major:-0}" -ge 10 ] 2>/dev/null || fail "the .NET SDK here is ${major:-unknown}; Lowfell needs .NET SDK 10. Install it beside the old one and run this again."
  export DOTNET_CLI_TELEMETRY_OPTOUT=1 DOTNET_NOLOGO=1
}

need_node() {
  command -v node >/dev/null && command -v npm >/dev/null || fail "Node.js is missing. Get Node.js $NODE_NEEDED or newer with npm, and run this again."
  local major
  major=$(node --version | tr -d v | cut -d. -f1)
  [ "$major" -ge "$NODE_NEEDED" ] || fail "Node.js here is $major; Lowfell needs $NODE_NEEDED or newer."
}

# install_packages WHY PACKAGE... — says so first, then asks Debian's package manager.
install_packages() {
  local why=$1 sudo=""
  shift
  command -v apt-get >/dev/null || fail "$why is missing and this is not a Debian system. Install: $*"
  [ "$(id -u)" -eq 0 ] || { command -v sudo >/dev/null || fail "$why is missing. As root, run: apt-get install $*"; sudo=sudo; }
  say "$why is missing; installing Debian's packages: $*"
  $sudo apt-get update -qq || fail "the package lists could not be read. Check the network and run this again."
  DEBIAN_FRONTEND=noninteractive $sudo apt-get install -y -qq --no-install-recommends -o Dpkg::Options::=--force-confold "$@" >/dev/null || fail "installing $* failed. Run 'apt-get install $*' to see why."
}

# The newest PostgreSQL server on this machine, or the one named.
find_postgres() {
  local wanted=${1:-} dir
  PG_BIN=""
  for dir in $(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -t/ -k5 -n); do
    if [ -x "$dir/postgres" ] && [ -x "$dir/initdb" ]; then
      if [ -z "$wanted" ] || [ "$dir" = "/usr/lib/postgresql/$wanted/bin" ]; then PG_BIN=$dir; fi
    fi
  done
  [ -n "$PG_BIN" ]
}

need_postgres() {
  # Debian would start a server of its own on installation; Lowfell keeps a private one instead.
  if ! find_postgres; then
    local hold=/etc/postgresql-common/createcluster.conf
    if [ "$(id -u)" -eq 0 ] && [ ! -e "$hold" ]; then
      mkdir -p /etc/postgresql-common
      echo "create_main_cluster = false" >"$hold"
    fi
    install_packages "PostgreSQL" postgresql
    find_postgres || fail "PostgreSQL was installed but its programs were not found below /usr/lib/postgresql."
  fi
}

need_setpriv() { command -v setpriv >/dev/null || install_packages "setpriv" util-linux; }

need_flock() { command -v flock >/dev/null || install_packages "flock" util-linux; }

# The browser without a window: it draws no frame of its own, and a page of 390 px is 390 px wide in it (in a window, never below 500).
need_chromium() {
  [ -x /usr/lib/chromium/chromium-headless-shell ] && command -v chromedriver >/dev/null ||
    install_packages "Chromium for the browser tests" chromium-headless-shell chromium-driver
}

# A process started by the script must not outlive it, even when the script is killed.
TIED=(setpriv --pdeathsig TERM --)

port_taken() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

free_port() {
  local port
  for _ in $(seq 50); do
    port=$((20000 + RANDOM % 12000))
    port_taken "$port" || { echo "$port"; return; }
  done
  fail "no free port was found."
}
