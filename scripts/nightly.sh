#!/usr/bin/env bash
# What every night asks for: a backup, proven by restoring it into a scratch database and comparing both, and
# old ones thinned out: seven days, four Sundays, twelve first Sundays of a month. Logs of eight nights are
# kept.
set -euo pipefail
. scripts/lib.sh
pick_instance "$@"
. scripts/pg.sh
. scripts/server.sh
folder=${MUDFLAT_BACKUPS:-$data_dir/backups}
mkdir -p -m 700 "$folder"
need_node_modules
if [ -z "${DATABASE_URL:-}" ]; then is_ours=yes; need_postgres; pg_start; fi
umask 077
file=$folder/mudflat-$(date +%Y-%m-%d).dump
"$(pg_bin)/pg_dump" --format=custom --no-owner "$DATABASE_URL" >"$file.part" || { rm -f "$file.part"; die "Writing the backup" "See the message above."; }
sync "$file.part"
mv "$file.part" "$file"

# The same server, another database: nothing of the one in use is touched.
scratch=mudflat_check_$$
base=${DATABASE_URL%/*}
psql_bin=$(pg_bin)/psql
"$psql_bin" -qX "$DATABASE_URL" -c "create database $scratch"
trap '"$psql_bin" -qX "$DATABASE_URL" -c "drop database if exists $scratch with (force)" >/dev/null 2>&1 || true' EXIT
"$(pg_bin)/pg_restore" --no-owner --exit-on-error --dbname="$base/$scratch" "$file" || die "Restoring $file into a scratch database" "This backup cannot be used. The one of the night before is in $folder."
npx --no-install tsx scripts/check-backup.ts "$base/$scratch" || die "Comparing $file with the database" "See the message above."
find "$folder" -name 'mudflat-*.dump' -printf '%f\n' | sort | npx --no-install tsx scripts/thin-backups.ts "$(date +%Y-%m-%d)" | while read -r old; do rm -f "$folder/$old"; done
say "Backed up, restored and compared: $file"
if [ -n "${is_ours:-}" ] && pg_as test -f "$(pg_home)/pgbackrest.conf"; then env -u DATABASE_URL bash scripts/archive.sh backup "$@"; fi
rotate_logs
