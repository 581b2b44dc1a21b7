#!/usr/bin/env bash
# Replaces the database by a backup, in one transaction: all of it or nothing. The server comes back either
# way.
set -euo pipefail
. scripts/lib.sh
pick_instance "$@"
set -- "${rest[@]}"
. scripts/pg.sh
. scripts/server.sh
[ $# = 1 ] || { echo "Usage: ./mudflat restore [--demo] FILE" >&2; exit 2; }
file=$(cd "$MUDFLAT_FROM" && realpath -m "$1")
[ -r "$file" ] || die "Reading $file" "Name a file that ./mudflat backup has written."
if [ -z "${DATABASE_URL:-}" ]; then need_postgres; pg_start; fi
"$(pg_bin)/pg_restore" --list "$file" >/dev/null || die "Reading $file" "It is no backup."
if [ -t 0 ]; then
  read -rp "This replaces everything in the database. Go on? [y/N] " answer
  [ "$answer" = y ] || exit 1
fi
was_running=
if server_pid >/dev/null; then
  was_running=yes
  PORT=$(cat "$port_file" 2>/dev/null || echo "$web_port")
  web_port=$PORT
  web_url="http://127.0.0.1:$web_port"
fi
server_stop
outcome=0
"$(pg_bin)/pg_restore" --clean --if-exists --no-owner --single-transaction --dbname="$DATABASE_URL" "$file" || outcome=$?
if [ "$outcome" = 0 ]; then
  # A backup of before may be of an older schema.
  need_node_modules
  npx --no-install tsx scripts/prepare.ts || outcome=$?
fi
if [ -n "$was_running" ]; then
  need_secret
  server_start
fi
[ "$outcome" = 0 ] || die "Restoring $file" "The database is as it was before; see the message above."
say "Restored from $file."
[ -n "$was_running" ] || echo "Start it with ./mudflat $([ "$instance" = own ] && echo serve || echo demo)"
