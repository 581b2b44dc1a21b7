#!/usr/bin/env bash
# Replaces the database by a backup, in one transaction: all of it or nothing.
set -euo pipefail
. scripts/lib.sh
. scripts/pg.sh
. scripts/server.sh
pg_name=main
[ $# = 1 ] || { echo "Usage: ./mudflat restore FILE" >&2; exit 2; }
file=$(cd "$MUDFLAT_FROM" && realpath -m "$1")
[ -r "$file" ] || die "Reading $file" "Name a file that ./mudflat backup has written."
if [ -z "${DATABASE_URL:-}" ]; then need_postgres; pg_start; fi
"$(pg_bin)/pg_restore" --list "$file" >/dev/null || die "Reading $file" "It is no backup."
if [ -t 0 ]; then
  read -rp "This replaces everything in the database. Go on? [y/N] " answer
  [ "$answer" = y ] || exit 1
fi
server_stop
"$(pg_bin)/pg_restore" --clean --if-exists --no-owner --single-transaction --dbname="$DATABASE_URL" "$file"
say "Restored from $file. Start again with ./mudflat demo"
