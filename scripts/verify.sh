#!/usr/bin/env bash
# Says whether the trail of a job is intact. The answer alone goes to standard output.
set -euo pipefail
. scripts/lib.sh
pick_instance "$@"
set -- "${rest[@]}"
. scripts/pg.sh
[ $# = 1 ] || { echo "Usage: ./mudflat verify [--demo] JOB   (its number or id)" >&2; exit 2; }
need_node_modules >&2
if [ -z "${DATABASE_URL:-}" ]; then need_postgres >&2; pg_start >&2; fi
exec node_modules/.bin/tsx scripts/verify.ts "$1"
