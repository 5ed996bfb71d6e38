# mutate [SEEDS] [HOW-MANY] — faults put into the code by chance, and which of them no test notices.
# mutate FILE.cs:LINE[,FILE.cs:LINE…] — all faults of those lines.

# What runs the page's faults is taken when it is wanted, and by nobody else.
STRYKER=9.6.1

lowfell_mutate() {
  local seeds=${1:-$RANDOM} many=${2:-40} code=0
  [[ $seeds =~ ^([0-9]+([-,][0-9]+)*|[^,]+\.cs:[0-9]+(:[^,]+)?(,[^,]+\.cs:[0-9]+(:[^,]+)?)*)$ && $many =~ ^[0-9]+$ ]] || fail "./lowfell mutate [SEEDS] [HOW-MANY], such as ./lowfell mutate 1-5 40."
  need_dotnet; need_node; need_setpriv; need_flock; need_postgres
  build_web
  quietly dotnet build tests/Lowfell.Mutants -c Release -v q --nologo || fail "what puts the faults in did not build."
  throw_away_cluster
  test_settings
  dotnet tests/Lowfell.Mutants/bin/Release/net10.0/Lowfell.Mutants.dll "$PWD" "$TEST_DATA/mutants" "$seeds" "$many" || code=1
  [[ $seeds == *.cs:* ]] || mutate_page "$seeds" "$many" || code=1
  return "$code"
}

# The page's own logic, a line at a time; what only a browser shows has no part in it.
mutate_page() {
  local at=$TEST_DATA/page-mutants
  mkdir -p "$at"
  cp -r "$WEB/src" "$WEB/package.json" "$WEB/package-lock.json" "$WEB/.npmrc" "$WEB"/*.config.* "$WEB"/tsconfig*.json "$WEB/index.html" "$at/"
  quietly npm --prefix "$at" install --no-audit --no-fund --save-dev "@stryker-mutator/core@$STRYKER" "@stryker-mutator/vitest-runner@$STRYKER" || fail "StrykerJS cannot be had."
  (cd "$at" && node "$OLDPWD/scripts/page-mutants.mjs" choose "$1" "$2" >stryker.config.json && quietly npx stryker run) || true
  node scripts/page-mutants.mjs tell "$at"
}
