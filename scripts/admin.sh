#!/usr/bin/env bash
# What is done on the machine itself, by whoever may log in there.
set -euo pipefail
. scripts/lib.sh
pick_instance "$@"
set -- "${rest[@]}"
. scripts/pg.sh
if [ "${1:-}" != reset-pin ] || [ $# != 2 ]; then
  echo 'Usage: ./mudflat admin [--demo] reset-pin "NAME"' >&2
  exit 2
fi
need_node_modules
need_secret
if [ -z "${DATABASE_URL:-}" ]; then need_postgres; pg_start; fi
exec npx --no-install tsx scripts/admin.ts "$2"
