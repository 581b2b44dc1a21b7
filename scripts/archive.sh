#!/usr/bin/env bash
# Back to any moment: PostgreSQL's log of what is written is archived as it is written, beside whole backups
# (pgBackRest).
#   on [FOLDER]     archives from now on, into FOLDER: best on another disk
#   status          since when one can go back, and whether it still archives
#   back 'MOMENT'   the database as it was then ('2026-11-29 14:00', the time of this machine);
#                   what is there now is set aside
#   off             archives no more; what was archived stays
# For the database that this command made. One of DATABASE_URL is archived by whoever runs it.
set -euo pipefail
. scripts/lib.sh
pick_instance "$@"
set -- "${rest[@]}"
. scripts/pg.sh
. scripts/server.sh
usage() { echo "Usage: ./mudflat archive on [FOLDER] | status | back 'MOMENT' | off   [--demo]" >&2; exit 2; }
command=${1:-}
[ $# -gt 0 ] && shift
[ -z "${DATABASE_URL:-}" ] || die "Archiving the database" "DATABASE_URL names a database of your own: archive it where it runs."
home=$(pg_home)
bin=$(pg_bin)
config=$home/pgbackrest.conf
export PGPASSFILE=$home/passfile
is_on() { pg_as test -f "$config" 2>/dev/null; }
need_on() { is_on || die "Looking for the archive" "There is none yet: ./mudflat archive on FOLDER"; }
ask() { "$bin/psql" -qXAt "$DATABASE_URL" -c "$1"; }
archive() { pg_as pgbackrest "--config=$config" --stanza=mudflat "$@"; }
local_time() { date -d "$1" '+%Y-%m-%d %H:%M:%S %Z'; }

write_config() { # FOLDER
  pg_as tee "$config" >/dev/null <<CONF
[global]
repo1-path=$1
repo1-retention-full=2
log-path=$1/log
lock-path=$home/lock
spool-path=$home/spool
log-level-console=warn
log-level-stderr=warn
start-fast=y
archive-timeout=60

[mudflat]
pg1-path=$home/data
pg1-port=$(pg_port "$home")
pg1-user=mudflat
pg1-database=postgres
pg1-socket-path=$home/socket
CONF
  # It asks over a socket that nobody else can reach.
  pg_as mkdir -p -m 700 "$home/socket" "$home/lock" "$home/spool" "$1/log"
  printf '*:*:*:mudflat:%s' "$(pg_as cat "$home/password")" | pg_as tee "$PGPASSFILE" >/dev/null
  pg_as chmod 600 "$config" "$PGPASSFILE"
}

database_restart() { pg_as "$bin/pg_ctl" -D "$home/data" -l "$home/log" -m fast -w -t 120 restart; }

whole_backup() { # A whole one on Sundays, and where there is none; else what has changed since.
  if [ "$(date +%u)" = 7 ]; then archive --type=full backup; else archive --type=incr backup; fi
}

# Starts a database that was put back, and waits until it has read its log up to the moment.
database_recover() {
  pg_as "$bin/pg_ctl" -D "$home/data" -l "$home/log" -w -t 600 start || return 1
  for _ in $(seq 1 1200); do
    case "$(ask 'select pg_is_in_recovery()' 2>/dev/null || true)" in f) return 0 ;; '') pg_running "$home" || return 1 ;; esac
    sleep 0.5
  done
  return 1
}

go_back() { # MOMENT, UTC
  archive --type=time "--target=$1" --target-action=promote restore && database_recover
}

case "$command" in
  on)
    [ $# -le 1 ] || usage
    need_postgres
    need_debian pgbackrest pgbackrest
    pg_start
    folder=$(cd "${MUDFLAT_FROM:-$PWD}" && realpath -m "${1:-$home/archive}")
    case "$folder$home" in *[\'\"\\%]*) die "Archiving into $folder" "Choose a folder without quotes and percent signs in its path." ;; esac
    [ ${#home} -lt 80 ] || die "Archiving the database" "The path $home is too long for a socket. Keep the project in a shorter one."
    if [ "$(id -u)" = 0 ]; then install -d -o postgres -g postgres -m 700 "$folder"; else mkdir -p -m 700 "$folder"; fi
    pg_as test -w "$folder" || die "Archiving into $folder" "The database's user cannot write there: choose a folder that it can reach."
    write_config "$folder"
    ask "alter system set unix_socket_directories = '$home/socket'"
    ask "alter system set archive_mode = 'on'"
    ask "alter system set archive_command = 'pgbackrest \"--config=$config\" --stanza=mudflat archive-push \"%p\"'"
    # So much of what was written last may be missing when the disk itself is lost.
    ask "alter system set archive_timeout = '60s'"
    quietly "Starting the database again" "Its log is $home/log." database_restart
    quietly "Preparing the archive" "See the message above." archive stanza-create
    quietly "Proving that it archives" "See the message above, and $home/log." archive check
    quietly "Writing the first whole backup" "See the message above." archive --type=full backup
    say "Archived into $folder: from now on one can go back to any moment. ./mudflat nightly adds to it." ;;
  backup) # What every night asks for: scripts/nightly.sh.
    need_on
    pg_start
    quietly "Adding to the archive" "./mudflat archive status says whether it works." whole_backup ;;
  status)
    need_on
    pg_start
    first=$(archive info --output=json | node -e "
      const [stanza] = JSON.parse(require('fs').readFileSync(0, 'utf8'));
      const ends = (stanza?.backup ?? []).map((b) => b.timestamp.stop);
      process.stdout.write(ends.length ? String(Math.min(...ends)) : '')")
    [ -n "$first" ] || die "Looking into the archive" "There is no whole backup in it: ./mudflat nightly writes one."
    say "One can go back to any moment since $(local_time "@$first")."
    failing=$(ask "select coalesce(last_failed_time > coalesce(last_archived_time, '-infinity'), false) from pg_stat_archiver")
    [ "$failing" = f ] || die "Archiving" "What was written last could not be archived: is its disk full? $home/log says why."
    echo "The newest that was archived: $(local_time "$(ask "select coalesce(last_archived_time, stats_reset) from pg_stat_archiver")")" ;;
  back)
    [ $# = 1 ] || usage
    need_on
    at=$(date -d "$1" +%s 2>/dev/null) || die "Reading '$1'" "Write the moment like this: '2026-11-29 14:00'"
    [ "$at" -lt "$(date +%s)" ] || die "Going back to $(local_time "@$at")" "That is not in the past."
    moment=$(date -u -d "@$at" '+%Y-%m-%d %H:%M:%S+00')
    pg_start
    if [ -t 0 ]; then
      read -rp "The database becomes what it was at $(local_time "@$at"). What was written since is set aside. Go on? [y/N] " answer
      [ "$answer" = y ] || exit 1
    fi
    # A moment is found by what was written after it: now as well.
    ask "select pg_current_xact_id()" >/dev/null
    quietly "Archiving what was written last" "See the message above; nothing was changed, and the server goes on." archive check
    was_running=
    if [ -z "${MUDFLAT_PG_NAME:-}" ] && server_pid >/dev/null; then
      was_running=yes
      web_port=$(cat "$port_file" 2>/dev/null || echo "$web_port")
      web_url="http://127.0.0.1:$web_port"
      server_stop
    fi
    pg_stop
    aside=$home/data-$(date +%Y%m%d-%H%M%S)
    pg_as mv "$home/data" "$aside"
    pg_as mkdir -m 700 "$home/data"
    outcome=0
    printf 'Going back … '
    go_back "$moment" >"$data_dir/archive.out" 2>&1 || outcome=$?
    if [ "$outcome" = 0 ]; then printf 'done\n'
    else
      printf 'failed\n'
      tail -n 20 "$data_dir/archive.out" >&2
      pg_as "$bin/pg_ctl" -D "$home/data" -m immediate -w stop >/dev/null 2>&1 || true
      pg_as rm -rf "$home/data"
      pg_as mv "$aside" "$home/data"
    fi
    pg_start
    if [ "$outcome" = 0 ] && [ -z "${MUDFLAT_PG_NAME:-}" ]; then
      # The moment may have been before a newer version.
      need_node_modules
      npx --no-install tsx scripts/prepare.ts || outcome=$?
    fi
    if [ -n "$was_running" ]; then need_secret; server_start; fi
    [ "$outcome" = 0 ] || die "Going back to $(local_time "@$at")" "The database is as it was before. ./mudflat archive status says since when one can go back."
    whole_backup >/dev/null 2>&1 || echo "No new backup could be written after it: ./mudflat nightly tells why." >&2
    say "The database is what it was at $(local_time "@$at")."
    echo "What was there before lies in $aside: remove that folder when nobody misses anything." ;;
  off)
    need_on
    pg_start
    for setting in archive_mode archive_command archive_timeout unix_socket_directories; do ask "alter system reset $setting"; done
    quietly "Starting the database again" "Its log is $home/log." database_restart
    folder=$(pg_as sed -n 's/^repo1-path=//p' "$config")
    pg_as rm -f "$config" "$PGPASSFILE"
    say "It archives no more. What was archived stays in $folder." ;;
  *) usage ;;
esac
