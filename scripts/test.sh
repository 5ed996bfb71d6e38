# test and bench.

COUNTS=""
TEST_DATA=""

# count PASSED FAILED — several lanes count at once, each a line at a time.
count() { echo "$1 $2" >>"$COUNTS"; }

# step NAME COMMAND... — one quality gate; counts as one test.
step() {
  local name=$1 log
  shift
  log=$(mktemp)
  if "$@" >"$log" 2>&1; then
    count 1 0; say "ok      $name"
  else
    count 0 1; say "FAILED  $name"; tail -60 "$log"
  fi
  rm -f "$log"
}

# Seconds and name of every test that ran, for the slowest at the end.
TIMES=""
SLOWEST=20

# times_of XML — a line for each test of a test program.
times_of() {
  grep -o '<test [^>]*>' "$1" | sed -n 's/.* name="\([^"]*\)".* time="\([0-9.]*\)".*/\2 \1/p' | sed 's/Lowfell\.\([A-Za-z]*\)\.Tests\./\1: /; s/&quot;/"/g; s/&amp;/\&/g' >>"$TIMES"
}

slowest() {
  say "the slowest $SLOWEST tests, seconds:"
  sort -rn "$TIMES" | awk -v most=$SLOWEST 'NR <= most { time = $1; $1 = ""; printf "  %6.1f %s\n", time, substr($0, 1, 150) }'
}

# What is to run, a line for each lane with the classes where not all of it is; empty for everything.
REACH=""

# wanted LANE — whether it is to run.
wanted() { [ -z "$REACH" ] || grep -q "^$1\( \|$\)" <<<"$REACH"; }

# suite LANE NAME — runs a test program, its tests in an order that the seed gives, and adds up its own counts.
suite() {
  local name=$2 log total failed skipped began=$SECONDS classes
  wanted "$1" || return 0
  read -ra classes < <(sed -n "s/^$1 //p" <<<"$REACH"; echo)
  log=$(mktemp)
  "tests/$name/bin/Release/net10.0/$name" ":$SEED" -noColor "${classes[@]}" -xml "$log.xml" >"$log" 2>&1 || true
  [ ! -s "$log.xml" ] || times_of "$log.xml"
  total=$(sed -n 's/.*Total: \([0-9]*\),.*/\1/p' "$log" | tail -1)
  failed=$(sed -n 's/.*Errors: \([0-9]*\), Failed: \([0-9]*\),.*/\1 \2/p' "$log" | tail -1 | awk '{print $1+$2}')
  skipped=$(sed -n 's/.*Skipped: \([0-9]*\),.*/\1/p' "$log" | tail -1)
  if [ -z "$total" ] || [ "$total" -eq 0 ]; then
    count 0 1; say "FAILED  $name ran no test"; grep -v '^{"@t"' "$log" | tail -40
  else
    count $((total - failed - ${skipped:-0})) "$failed"
    say "$name: $((total - failed)) of $total in $((SECONDS - began)) s"
    # What a test has measured, it says in lines of its own.
    sed -n 's/^ *figure: /        /p' "$log"
    if [ "$failed" -gt 0 ]; then
      # Their names first: what they say of themselves can be long.
      sed -n 's/^ *\(.*\) \[FAIL\].*/  failed: \1/p' "$log"
      grep -v -e '^ *$' -e '^{"@t"' "$log" | cut -c1-2000 | tail -200
    fi
  fi
  rm -f "$log" "$log.xml"
}

# web_suite — runs the page's own tests and adds up their counts.
web_suite() {
  local log counts
  log=$(mktemp)
  (cd "$WEB" && npx vitest run ${SINCE:+--changed "$SINCE" --passWithNoTests} --sequence.shuffle --sequence.seed="$SEED" --reporter=json --outputFile="$log.json") >"$log" 2>&1 || true
  counts=$(node -p 'const r = JSON.parse(require("fs").readFileSync(process.argv[1])); `${r.numPassedTests} ${r.numTotalTests - r.numPassedTests - r.numPendingTests}`' "$log.json" 2>/dev/null) || counts="0 1"
  count "${counts% *}" "${counts#* }"
  say "the page: ${counts% *} passed, ${counts#* } failed"
  [ "${counts#* }" -eq 0 ] || tail -60 "$log"
  rm -f "$log" "$log.json"
}

throw_away_cluster() {
  TEST_DATA=$(mktemp -d /tmp/lowfell-test.XXXXXX)
  DATA=$TEST_DATA CLUSTER=$TEST_DATA/cluster SECRET=$TEST_DATA/database-password RUN_FACTS=$TEST_DATA/lowfell.run
  DB_PORT=$(free_port)
  trap end_of_test EXIT
  trap 'exit 130' INT
  trap 'exit 143' TERM
  lock_data
  make_cluster
  # Thrown away at the end, so nothing is lost by not waiting for the disk.
  start_cluster -c fsync=off -c synchronous_commit=off -c full_page_writes=off -c max_connections=200
}

# What tests have to know of the database and of where they run.
test_settings() {
  LOWFELL_TEST_DATABASE="Host=127.0.0.1;Port=$DB_PORT;Username=lowfell;Password=$(cat "$SECRET");Database=postgres"
  LOWFELL_TEST_AXE=$PWD/$WEB/node_modules/axe-core/axe.min.js
  LOWFELL_TEST_ROOT=$PWD
  LOWFELL_TEST_PG_BIN=$PG_BIN
  export LOWFELL_TEST_DATABASE LOWFELL_TEST_AXE LOWFELL_TEST_ROOT LOWFELL_TEST_PG_BIN
}

end_of_test() {
  wind_down
  [ -z "$TEST_DATA" ] || rm -rf "$TEST_DATA"
}

# The most a browser that knows nothing has to fetch before the plan stands.
FIRST_VIEW_KB=240

# What needs nothing built runs beside the build of the tests, and on beside the first of them.
page_lane() {
  wanted page || return 0
  step "eslint" npm --prefix "$WEB" run --silent lint
  step "imports of the page" npm --prefix "$WEB" run --silent imports
  step "prettier" npm --prefix "$WEB" run --silent format:check
  step "types of the page" npm --prefix "$WEB" run --silent types
  step "weight of the first view" node scripts/first-view.mjs "$SERVER/wwwroot" "$FIRST_VIEW_KB"
  web_suite
}

# The tests of the script wait for servers half of their time. A server that lives for seconds gains nothing from being compiled twice.
script_lane() {
  # Style and analysers have spoken while it was built.
  step "C# format" dotnet format whitespace Lowfell.slnx --verify-no-changes --no-restore
  DOTNET_TC_CallCounting=0 suite script Lowfell.Script.Tests
}

# lowfell_test [--changed [SINCE]] — everything, or what the changes since then can reach; since the last commit where none is named.
lowfell_test() {
  local page lane began
  SINCE=""
  if [ "${1:-}" = --changed ]; then
    SINCE=${2:-HEAD}
    git rev-parse --quiet --verify "$SINCE^{commit}" >/dev/null || fail "there is no commit $SINCE. Name one that git knows, or leave it out for the last one."
    REACH=$(reach "$SINCE")
    [ -n "$REACH" ] || { say "nothing that has tests was changed since $SINCE."; echo "0 passed, 0 failed"; return 0; }
    say "what was changed since $SINCE reaches:"
    sed 's/^/  /' <<<"$REACH"
  fi
  need_dotnet; need_node; need_setpriv; need_flock; need_postgres; need_chromium
  build_web
  SEED=${LOWFELL_TEST_SEED:-$((RANDOM * 32768 + RANDOM))}
  say "tests run in the order of seed $SEED; the same again: LOWFELL_TEST_SEED=$SEED ./lowfell test"
  throw_away_cluster
  COUNTS=$TEST_DATA/counts TIMES=$TEST_DATA/times
  : >"$TIMES"; : >"$COUNTS"
  test_settings
  page_lane &
  page=$!
  say "building the tests"
  quietly dotnet build Lowfell.slnx -c Release -v q --nologo || fail "the solution did not build without warnings; the messages are above."
  say "built after $((SECONDS / 60)) min $((SECONDS % 60)) s"
  # What runs for a minute gains nothing from being watched.
  export DOTNET_TieredPGO=0
  began=$SECONDS
  script_lane &
  lane=$!
  suite server Lowfell.Server.Tests
  suite core Lowfell.Core.Tests
  wait "$lane" "$page"
  suite browser Lowfell.Browser.Tests
  slowest
  say "the tests took $(((SECONDS - began) / 60)) min $(((SECONDS - began) % 60)) s, all of it $((SECONDS / 60)) min $((SECONDS % 60)) s"
  awk '{ passed += $1; failed += $2 } END { printf "%d passed, %d failed\n", passed, failed; exit failed > 0 }' "$COUNTS"
}

# soak [MINUTES] [SEED] — a week of a workshop in so many minutes, under faults; prints what was done and survived.
lowfell_soak() {
  need_dotnet; need_node; need_setpriv; need_flock; need_postgres
  build_web
  quietly dotnet build tests/Lowfell.Script.Tests -c Release -v q --nologo || fail "the tests did not build."
  local table code=0
  table=$(mktemp)
  LOWFELL_SOAK_MINUTES=${1:-20} LOWFELL_SOAK_SEED=${2:-$RANDOM} LOWFELL_SOAK_TABLE=$table LOWFELL_TEST_ROOT=$PWD LOWFELL_TEST_PG_BIN=$PG_BIN \
    tests/Lowfell.Script.Tests/bin/Release/net10.0/Lowfell.Script.Tests -noColor -class Lowfell.Script.Tests.SoakTests >"$table.log" 2>&1 || code=$?
  [ "$code" -eq 0 ] || tail -60 "$table.log"
  cat "$table"
  rm -f "$table" "$table.log"
  [ "$code" -eq 0 ] && say "nothing was lost, nothing is there twice." || fail "something did not survive; it stands above."
}

# What is measured, each before a server and a database of its own. The page first: a machine that has just been worked hard draws fewer frames.
BENCH_PARTS="page pieces core served cores log changes writes year"

# lowfell_bench [PART ...] — every part, or one with what it is told.
lowfell_bench() {
  local part
  need_dotnet; need_node; need_setpriv; need_postgres; need_chromium
  build_web
  quietly dotnet build benchmarks/Lowfell.Benchmarks -c Release -v q --nologo || fail "the benchmarks did not build."
  throw_away_cluster
  if [ $# -gt 0 ]; then bench_part "$@"; return; fi
  for part in $BENCH_PARTS; do
    say "$part"
    bench_part "$part"
  done
}

# bench_part PART [TOLD...]
bench_part() {
  local url code=0
  ensure_roles "bench_$1"
  run_server "$(free_port)" "$(connection "bench_$1" "$SERVE")" "$(connection "bench_$1" "$OWNER")" true "$DATA"
  url=$(tr '\0' '\n' <"/proc/$SERVER_PID/environ" | sed -n 's/^ASPNETCORE_URLS=//p')
  LOWFELL_BENCH_URL=$url LOWFELL_BENCH_DATABASE=$(connection "bench_$1" "$OWNER") LOWFELL_BENCH_PROCESS=$SERVER_PID LOWFELL_BENCH_LOGS=$DATA \
    dotnet benchmarks/Lowfell.Benchmarks/bin/Release/net10.0/Lowfell.Benchmarks.dll "$@" || code=$?
  kill -TERM "$SERVER_PID" 2>/dev/null || true
  wait "$SERVER_PID" 2>/dev/null || true
  SERVER_PID=""
  sql "drop database bench_$1 with (force)" postgres
  [ "$code" -eq 0 ] || fail "measuring $1 did not come to its end."
}
