#!/usr/bin/env bash
# A workshop's own installation: the same set-up as the demo, an empty database of its own, and no invented data.
set -euo pipefail
instance=own
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
said=$(npx --no-install tsx scripts/prepare.ts --own) || die "Bringing the database up to date" "See the message above."
code=$(printf '%s\n' "$said" | sed -n 's/^set-up code //p')
now=$(source_hash)
if server_pid >/dev/null && [ "$(cat "$port_file" 2>/dev/null)" = "$web_port" ] && [ "$(cat .next/mudflat-stamp 2>/dev/null)" = "$now" ]; then
  say "Mudflat is running already: $web_url"
else
  server_stop
  need_build .next
  server_start
  say "Mudflat is at $web_url"
fi
if [ -n "$code" ]; then
  echo "Nobody is there yet. Open $web_url/set-up and type this code once:"
  say "    $code"
fi
echo "Stop it with ./mudflat stop"
