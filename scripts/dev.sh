#!/usr/bin/env bash
# The demo's database with a server that reloads on every change, in the foreground.
set -euo pipefail
. scripts/lib.sh
. scripts/pg.sh
. scripts/server.sh
pg_name=main
need_node_modules
need_secret
if [ -z "${DATABASE_URL:-}" ]; then need_postgres; pg_start; fi
quietly "Bringing the database up to date and loading the demo fleet" "Check that the database can be reached." npx --no-install tsx scripts/prepare.ts --demo
exec env MUDFLAT_DEV=1 PORT="$web_port" node web/server.mjs
