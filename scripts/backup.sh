#!/usr/bin/env bash
# Writes the whole database to one file, readable by restore and by PostgreSQL's own pg_restore. It holds
# hashes of PINs and sessions: only its owner may read it.
set -euo pipefail
. scripts/lib.sh
pick_instance "$@"
set -- "${rest[@]}"
. scripts/pg.sh
[ $# = 1 ] || { echo "Usage: ./mudflat backup [--demo] FILE" >&2; exit 2; }
file=$(cd "$MUDFLAT_FROM" && realpath -m "$1")
if [ -z "${DATABASE_URL:-}" ]; then pg_start; fi
umask 077
rm -f "$file.part"
"$(pg_bin)/pg_dump" --format=custom --no-owner "$DATABASE_URL" >"$file.part" || { rm -f "$file.part"; die "Writing the backup" "See the message above."; }
sync "$file.part"
mv "$file.part" "$file"
say "Written to $file"
