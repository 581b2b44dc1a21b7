# Shared by the commands: messages, packages, builds. Sourced, from the project's root.
data_dir=$PWD/.data
# Whose it is: the demo's, or a workshop's own. Each has a database, a secret and a server of its own.
instance=${instance:-demo}
pg_name=${pg_name:-$([ "$instance" = own ] && echo own || echo main)}
export NEXT_TELEMETRY_DISABLED=1

say() { printf '\033[1m%s\033[0m\n' "$*"; }

# die STEP REMEDY: names the step that failed and what to do.
die() {
  printf '\n%s failed.\n%s\n' "$1" "$2" >&2
  exit 1
}

# quietly STEP REMEDY COMMAND...: runs it with a line of progress, shows its output only if it fails.
quietly() {
  local step=$1 remedy=$2 log start=$SECONDS
  shift 2
  mkdir -p "$data_dir"
  log=$(mktemp "$data_dir/step.XXXXXX")
  printf '%s … ' "$step"
  if "$@" >"$log" 2>&1; then
    printf 'done (%s s)\n' $((SECONDS - start))
    rm -f "$log"
  else
    printf 'failed\n'
    tail -n 40 "$log" >&2
    die "$step" "$remedy The full output is in $log."
  fi
}

# rotate_log FILE [RUNNER]: what was written becomes FILE.1.gz, readable by its owner alone; those before it
# move on, and eight are kept. Whoever writes goes on in the same file. RUNNER: runs the commands as somebody
# else.
rotate_log() {
  local file=$1 run=${2:-env} n
  $run test -s "$file" || return 0
  for n in 7 6 5 4 3 2 1; do
    if $run test -e "$file.$n.gz"; then $run mv -f "$file.$n.gz" "$file.$((n + 1)).gz"; fi
  done
  $run sh -c 'umask 077; gzip -c "$1" >"$1.1.gz"' sh "$file" && $run truncate -s 0 "$file"
}

# rotate_logs [MB]: of the web server and the database, where they are larger than that; default: both. The
# proxy's own turns over by itself.
rotate_logs() {
  local larger=$((${1:-0} * 1000000)) file
  if [ "$(stat -c %s "$web_log" 2>/dev/null || echo 0)" -gt "$larger" ]; then rotate_log "$web_log"; fi
  file=$(pg_home)/log
  if [ "$(pg_as stat -c %s "$file" 2>/dev/null || echo 0)" -gt "$larger" ]; then rotate_log "$file" pg_as; fi
}

as_root() { if [ "$(id -u)" = 0 ]; then "$@"; else sudo "$@"; fi; }

# need_debian COMMAND-OR-FILE PACKAGE...: installs the packages unless the command or file is there.
need_debian() {
  local probe=$1
  shift
  if command -v "$probe" >/dev/null 2>&1 || [ -e "$probe" ] || compgen -G "$probe" >/dev/null; then return 0; fi
  command -v apt-get >/dev/null || die "Installing $*" "This machine has no apt-get: install $* by hand."
  if [ -z "${apt_updated:-}" ]; then
    quietly "Reading Debian's package lists" "Check the network and your rights (root or sudo)." as_root apt-get -o DPkg::Lock::Timeout=300 update
    apt_updated=1
  fi
  quietly "Installing $*" "Try: sudo apt-get install $*" \
    as_root env DEBIAN_FRONTEND=noninteractive apt-get -o DPkg::Lock::Timeout=300 install -y --no-install-recommends "$@"
}

need_node() {
  command -v node >/dev/null || die "Looking for Node.js" "Install Node.js 20.19 or newer."
  node -e 'const [a,b]=process.versions.node.split(".").map(Number); process.exit(a>20||(a===20&&b>=19)?0:1)' \
    || die "Looking for Node.js" "Node.js $(node --version) is too old: 20.19 or newer is needed."
}

need_node_modules() {
  need_node
  local stamp=node_modules/.mudflat-stamp now
  now=$(cat package.json package-lock.json | sha256sum)
  if [ "$(cat "$stamp" 2>/dev/null)" = "$now" ]; then return 0; fi
  quietly "Installing packages (npm ci, about a minute)" "Check that the npm registry can be reached, then run the command again." npm ci
  printf '%s' "$now" >"$stamp"
}

# The sources that a build depends on, as one hash.
source_hash() {
  find app application core device formats print server ui web workers docs/formats scripts/build-device.ts scripts/share-chunks.ts package.json package-lock.json next.config.ts postcss.config.mjs tsconfig.json -type f -print0 | sort -z | xargs -0 sha256sum | sha256sum
}

# need_build DIST: builds into DIST unless it holds a build of these very sources.
need_build() {
  local dist=$1 now
  now=$(source_hash)
  if [ -f "$dist/BUILD_ID" ] && [ "$(cat "$dist/mudflat-stamp" 2>/dev/null)" = "$now" ]; then return 0; fi
  MUDFLAT_DIST=$dist quietly "Building the application (about a minute)" "Read the error above; ./mudflat test says more." npm run --silent build
  quietly "Building what a device keeps" "Read the error above." npx --no-install tsx scripts/build-device.ts "$dist"
  printf '%s' "$now" >"$dist/mudflat-stamp"
}

# runs_in PID FOLDER: whether that process is alive and works in that folder. A number noted in a file may
# belong to another process by now, and a copied folder holds the notes of the one it was copied from.
runs_in() {
  local where
  where=$(readlink "/proc/$1/cwd" 2>/dev/null) || return 1
  [ "$where" = "$(readlink -f "$2")" ]
}

port_open() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

# What all invented persons sign in with. The sign-in page shows it, and them, only in the demo and while this
# is set.
if [ "$instance" = demo ]; then export MUDFLAT_DEMO_PIN=471147; else unset MUDFLAT_DEMO_PIN; fi

# pick_instance ARGUMENT...: the workshop's own where there is one, else the demo; `--demo` says it. Leaves
# the other arguments in `rest`.
pick_instance() {
  rest=()
  # A test names a cluster of its own.
  if [ -n "${MUDFLAT_PG_NAME:-}" ]; then pg_name=$MUDFLAT_PG_NAME instance=demo rest=("$@"); return 0; fi
  local own wanted=
  for argument in "$@"; do
    if [ "$argument" = --demo ]; then wanted=demo; else rest+=("$argument"); fi
  done
  own=$(pg_name=own; . scripts/pg.sh; pg_home)
  instance=demo pg_name=main
  if [ -z "$wanted" ] && [ -f "$own/data/PG_VERSION" ]; then
    instance=own pg_name=own
    unset MUDFLAT_DEMO_PIN
  fi
}

# need_secret: what sessions are signed with: MUDFLAT_SECRET where it is set, else made once, readable by its
# owner only.
need_secret() {
  if [ -n "${MUDFLAT_SECRET:-}" ]; then export MUDFLAT_SECRET; return 0; fi
  local file=$data_dir/secret
  [ "$instance" = demo ] || file=$data_dir/own-secret
  mkdir -p "$data_dir"
  [ -s "$file" ] || (umask 077; head -c 32 /dev/urandom | od -An -tx1 | tr -d ' \n' >"$file")
  MUDFLAT_SECRET=$(cat "$file")
  export MUDFLAT_SECRET
}

# So many web processes serve on this machine: one for each processor, four at most.
web_processes() {
  local n
  n=$(nproc)
  [ "$n" -gt 4 ] && n=4
  echo "$n"
}
