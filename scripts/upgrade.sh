#!/usr/bin/env bash
# After the sources of a newer version were laid over those of the old one: builds, backs up, migrates, proves
# that every released job still shows what it showed, and starts; or puts the database back as it was.
set -euo pipefail
. scripts/lib.sh
pick_instance "$@"
set -- "${rest[@]}"
. scripts/pg.sh
. scripts/server.sh
[ $# = 0 ] || { echo "Usage: ./mudflat upgrade [--demo]" >&2; exit 2; }
again="./mudflat $([ "$instance" = own ] && echo serve || echo demo)"
folder=${MUDFLAT_BACKUPS:-$data_dir/backups}
mkdir -p "$data_dir" && mkdir -p -m 700 "$folder"
# All that can fail without the database comes first: the old version goes on meanwhile.
need_node_modules
need_secret
if [ -z "${DATABASE_URL:-}" ]; then need_postgres; pg_start; fi
tables=$("$(pg_bin)/psql" -qXAt "$DATABASE_URL" -c "select count(*) from information_schema.tables where table_schema = 'public' and table_name = 'job'")
[ "$tables" = 1 ] || die "Looking for what is to be upgraded" "There is nothing in this database yet: $again"
need_build .next
was_running=
if server_pid >/dev/null; then
  was_running=yes
  web_port=$(cat "$port_file" 2>/dev/null || echo "$web_port")
  web_url="http://127.0.0.1:$web_port"
fi
server_stop
umask 077
file=$folder/before-upgrade-$(date +%Y-%m-%d-%H%M%S).dump
facts=$data_dir/released-facts.json
"$(pg_bin)/pg_dump" --format=custom --no-owner "$DATABASE_URL" >"$file" || die "Writing the backup" "Nothing was changed. $again starts the server."
sync "$file"
quietly "Noting what released jobs show" "Nothing was changed. $again starts the server." npx --no-install tsx scripts/upgrade.ts before "$facts"

# put_back WHY: the database as it was before, by its backup, whatever became of it.
put_back() {
  echo "$1" >&2
  "$(pg_bin)/psql" -qX "$DATABASE_URL" -c 'drop schema if exists drizzle cascade' -c 'drop schema public cascade' -c 'create schema public' >/dev/null 2>&1
  "$(pg_bin)/pg_restore" --no-owner --exit-on-error --single-transaction --dbname="$DATABASE_URL" "$file" ||
    die "Putting the database back" "The backup is $file: keep it, and call somebody who knows PostgreSQL."
  die "The upgrade" "The database is as it was before. Lay the sources of the version before back, then: $again. The backup of before is $file."
}
npx --no-install tsx scripts/prepare.ts || put_back "The database could not be brought up to date."
npx --no-install tsx scripts/upgrade.ts after "$facts" || put_back "Released jobs would show something else."
if [ -n "$was_running" ]; then
  server_start
  say "Mudflat is at $web_url"
fi
say "Upgraded. The backup of before is $file"
