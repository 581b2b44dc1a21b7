#!/usr/bin/env bash
# Installs what is missing, starts the database, migrates, loads the demo fleet, builds, serves.
set -euo pipefail
. scripts/lib.sh
. scripts/pg.sh
. scripts/server.sh

mkdir -p "$data_dir" 2>/dev/null && [ -w "$data_dir" ] || die "Preparing $data_dir" "It cannot be written by $(id -un): it was made by another user. Run as that user, or remove it."
need_node_modules
need_secret
if [ -z "${DATABASE_URL:-}" ]; then
  need_postgres
  pg_start
else
  say "Using the database of DATABASE_URL."
fi
quietly "Bringing the database up to date and loading the demo fleet" "Check that the database can be reached." npx --no-install tsx scripts/prepare.ts --demo
now=$(source_hash)
if server_pid >/dev/null && [ "$(cat "$port_file" 2>/dev/null)" = "$web_port" ] && [ "$(cat .next/mudflat-stamp 2>/dev/null)" = "$now" ]; then
  say "Mudflat is running already: $web_url"
  exit 0
fi
server_stop
need_build .next
server_start
say "Mudflat is at $web_url"
echo "Stop it with ./mudflat stop"
