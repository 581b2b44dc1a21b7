#!/usr/bin/env bash
# Everything that CI runs, against a throwaway database cluster and a build of its own.
set -euo pipefail
. scripts/lib.sh
. scripts/pg.sh
pg_name=test
mkdir -p "$data_dir"
unset DATABASE_URL

need_node_modules
need_secret
need_postgres
need_debian chromium-headless-shell chromium-headless-shell
need_debian /usr/lib/python3/dist-packages/scipy python3-scipy
need_debian pdftotext poppler-utils
need_debian ngspice ngspice
need_debian pgbackrest pgbackrest
trap 'pg_remove >/dev/null 2>&1 || true' EXIT
pg_remove >/dev/null 2>&1 || true
pg_start

failed=()
check() { # NAME COMMAND...: goes on after a failure, so that one run tells everything
  local name=$1 start=$SECONDS
  shift
  say "== $name"
  if "$@"; then echo "$name: good ($((SECONDS - start)) s)"; else echo "$name: FAILED"; failed+=("$name"); fi
}

export MUDFLAT_DIST=.next-test
results=$data_dir/results
rm -rf "$results" && mkdir -p "$results"
# The demo is loaded once, beside the check of rules and types, for all tests that need it.
export MUDFLAT_TEST_RUN=$$
npx --no-install tsx scripts/prepare-tests.ts >"$results/prepare.log" 2>&1 &
prepared=$!
check "lint and types" npm run --silent lint -- --max-warnings 0
wait "$prepared" || { cat "$results/prepare.log"; die "Loading the demo for the tests" "Read the error above."; }
# Built beside the checks that need no build.
need_build .next-test >"$results/build.log" 2>&1 &
build=$!
check "formatting" npm run --silent formatted
check "arrows between folders" npm run --silent arrows
check "unit tests" npx --no-install jest --silent=false --json --outputFile="$results/jest.json"
wait "$build" || { cat "$results/build.log"; die "Building the application" "Read the error above."; }
cat "$results/build.log"
check "tests through the interface" env DATABASE_URL="${DATABASE_URL%/*}/interface" PLAYWRIGHT_JSON_OUTPUT_NAME="$results/playwright.json" npx --no-install playwright test

if ((${#failed[@]})); then (IFS=,; echo "FAILED: ${failed[*]}"); fi
# The closing line counts what is no test as well: a failed check must not stand above "0 failed".
node scripts/count.mjs "$results" "${failed[@]}"
