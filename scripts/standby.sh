#!/usr/bin/env bash
# A second database cluster that follows the first as it is written, and takes its place when that is gone.
#   make [--sync]   copies the database and follows it; --sync: nothing counts as stored before both have it
#   status          whether it follows, and how far it is behind
#   promote         makes it the database, for good; the first must be gone
# The database that it follows is this installation's, or that of MUDFLAT_STANDBY_OF (an address of another
# machine).
set -euo pipefail
. scripts/lib.sh
pick_instance "$@"
set -- "${rest[@]}"
. scripts/pg.sh
usage() { echo "Usage: ./mudflat standby make [--sync] | status | promote   [--demo]" >&2; exit 2; }
command=${1:-}
[ $# -gt 0 ] && shift
slot=mudflat_standby
bin=$(pg_bin)
first_name=$pg_name
standby_home() { (pg_name=$first_name-standby; pg_home); }
home=$(standby_home)
exists() { pg_as test -f "$home/data/PG_VERSION" 2>/dev/null; }
standby_url() { printf 'postgres://mudflat:%s@127.0.0.1:%s/postgres' "$(pg_as cat "$home/password")" "$(pg_port "$home")"; }
ask() { "$bin/psql" -qXAt "$1" -c "$2"; }

case "$command" in
  make)
    sync=
    [ "${1:-}" != --sync ] || { sync=yes; shift; }
    [ $# = 0 ] || usage
    need_postgres
    if [ -n "${MUDFLAT_STANDBY_OF:-}" ]; then first=$MUDFLAT_STANDBY_OF; else pg_start; first=$DATABASE_URL; fi
    ! exists || die "Making the standby" "There is one already in $home: promote it, or remove that folder."
    port=$((55000 + $(printf '%s' "$home" | cksum | cut -d' ' -f1) % 1000))
    while port_open "$port"; do port=$((port + 1)); done
    password=$(printf '%s' "$first" | sed -n 's#^[a-z]*://[^:]*:\([^@]*\)@.*#\1#p')
    if [ "$(id -u)" = 0 ]; then install -d -o postgres -g postgres -m 700 "$home"; else mkdir -p -m 700 "$home"; fi
    printf '%s' "$password" | pg_as tee "$home/password" >/dev/null
    pg_as chmod 600 "$home/password"
    ask "$first" "select pg_create_physical_replication_slot('$slot') where not exists (select 1 from pg_replication_slots where slot_name = '$slot')" >/dev/null
    # -R writes down whom it follows, readable by its owner only.
    quietly "Copying the database" "See the message above." pg_as "$bin/pg_basebackup" -d "$first?application_name=$slot" -D "$home/data" -R -S "$slot" -X stream -c fast
    pg_make_durable "$home"
    # Archiving is of the first one: its folder may be on another machine.
    pg_as sed -i -E '/^(archive_(mode|command|timeout)|unix_socket_directories) = /d' "$home/data/postgresql.auto.conf"
    printf "port = %s\nlisten_addresses = '127.0.0.1'\n" "$port" | pg_as tee -a "$home/data/postgresql.conf" >/dev/null
    quietly "Starting the standby" "Its log is $home/log." pg_as "$bin/pg_ctl" -D "$home/data" -l "$home/log" -w -t 60 start
    if [ -n "$sync" ]; then
      ask "$first" "alter system set synchronous_standby_names = '$slot'" && ask "$first" "alter system set synchronous_commit = 'on'" && ask "$first" "select pg_reload_conf()" >/dev/null
      say "It follows. Nothing counts as stored before both have it: without the standby nothing is taken."
    else
      say "It follows. The last moments before the first one fails may be missing on it; --sync leaves none out."
    fi ;;
  status)
    exists || die "Looking for the standby" "There is none: ./mudflat standby make"
    pg_running "$home" || die "Asking the standby" "It does not run; its log is $home/log."
    ask "$(standby_url)" "select case when not pg_is_in_recovery() then 'it is the database now' when status = 'streaming' then 'it follows; ' || coalesce(round(extract(epoch from now() - pg_last_xact_replay_timestamp()))::text, '0') || ' s since the last write' else 'it does not follow: the first is gone, or cannot be reached' end from (select (select status from pg_stat_wal_receiver) as status) s" ;;
  promote)
    exists || die "Looking for the standby" "There is none: ./mudflat standby make"
    pg_running "$home" || quietly "Starting the standby" "Its log is $home/log." pg_as "$bin/pg_ctl" -D "$home/data" -l "$home/log" -w -t 60 start
    if [ -z "${MUDFLAT_STANDBY_OF:-}" ] && pg_running "$(pg_home)"; then
      die "Promoting the standby" "The first database still runs: two that both take what is written would part for good. Stop it first: ./mudflat stop"
    fi
    pg_make_durable "$home"
    quietly "Promoting the standby" "Its log is $home/log." pg_as "$bin/pg_ctl" -D "$home/data" -w -t 60 promote
    # It waits for nobody any more.
    ask "$(standby_url)" "alter system reset synchronous_standby_names" && ask "$(standby_url)" "select pg_reload_conf()" >/dev/null
    say "It is the database now. The server uses it with:"
    echo "    DATABASE_URL='$(standby_url)' ./mudflat $([ "$instance" = own ] && echo serve || echo demo)"
    echo "The first one must never be started again as it is: remove its folder, and make a standby of this one." ;;
  *) usage ;;
esac
