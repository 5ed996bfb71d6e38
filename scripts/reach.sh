# What a change can reach: test --changed [SINCE].

LANES="page core server script browser"

# changed SINCE — files that differ from what is committed there, those that are new among them.
changed() { git diff --name-only "$1" --; git ls-files --others --exclude-standard; }

# lanes_of FILE — which tests could see it.
lanes_of() {
  case $1 in
    src/lowfell-web/*) echo page browser ;;
    src/Lowfell.Core/*) echo core server script browser ;;
    src/*) echo server script browser ;;
    tests/Lowfell.Core.Tests/Scalar/*) echo core server ;;
    tests/Lowfell.Core.Tests/*) echo core ;;
    tests/Lowfell.Server.Tests/*) echo server ;;
    tests/Lowfell.Script.Tests/*) echo script ;;
    tests/Lowfell.Browser.Tests/*) echo browser ;;
    tests/served/*) echo server browser ;;
    tests/shared/*) echo server script browser ;;
    tests/old/*) echo server script ;;
    scripts/* | lowfell) echo script ;;
    benchmarks/* | tests/Lowfell.Mutants/* | docs/* | *.md) ;;
    *) echo "$LANES" ;;
  esac
}

# classes_in FILE — the classes of tests in a file of tests, for the runner; nothing where it is something else, or where others rest on it.
classes_in() {
  case $1 in tests/*Tests.cs) ;; *) return 0 ;; esac
  local space
  space=$(sed -n 's/^namespace \([A-Za-z.]*\);.*/\1/p' "$1" 2>/dev/null)
  sed -n 's/^public.* class \([A-Za-z]*Tests\)\b.*/\1/p' "$1" 2>/dev/null | sed "s/^/-class $space./"
}

# reach SINCE — a line for each lane that has to run, with the classes where those are enough.
reach() {
  local since=$1 lane file all some
  for lane in $LANES; do
    all="" some=""
    while IFS= read -r file; do
      case " $(lanes_of "$file") " in *" $lane "*) ;; *) continue ;; esac
      if [ -n "$(classes_in "$file")" ]; then some="$some $(classes_in "$file" | tr '\n' ' ')"; else all=yes; fi
    done < <(changed "$since")
    if [ -n "$all" ]; then echo "$lane"; elif [ -n "$some" ]; then echo "$lane$some"; fi
  done
}
