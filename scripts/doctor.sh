#!/usr/bin/env bash
# Names what is wrong with this installation and how to mend it. `--mend` starts again what has died. Ends
# with 1 where something is wrong.
set -euo pipefail
. scripts/lib.sh
mend= arguments=()
for argument in "$@"; do
  if [ "$argument" = --mend ]; then mend=yes; else arguments+=("$argument"); fi
done
pick_instance ${arguments[@]+"${arguments[@]}"}
. scripts/pg.sh
. scripts/server.sh
[ -s "$port_file" ] && web_port=$(cat "$port_file") && web_url="http://127.0.0.1:$web_port"
again="./mudflat $([ "$instance" = own ] && echo serve || echo demo)"
wrong=0
good() { printf 'good   %s\n' "$1"; }
bad() { printf 'WRONG  %s\n       %s\n' "$1" "$2"; wrong=1; }

say "The $([ "$instance" = own ] && echo "workshop's own installation" || echo demo) in $PWD"
if node -e 'const [a,b]=process.versions.node.split(".").map(Number); process.exit(a>20||(a===20&&b>=19)?0:1)' 2>/dev/null; then good "Node.js $(node --version)"; else bad "Node.js is missing or too old" "Install Node.js 20.19 or newer."; fi
if [ "$(cat node_modules/.mudflat-stamp 2>/dev/null)" = "$(cat package.json package-lock.json | sha256sum)" ]; then good "packages"; else bad "The packages are not those of this version" "$again"; fi
if [ "$(cat .next/mudflat-stamp 2>/dev/null)" = "$(source_hash)" ]; then good "built from these sources"; else bad "The build is not of these sources" "$again"; fi
free_mb=$(df -Pm "$data_dir" | awk 'NR==2 {print $4}')
if [ "$free_mb" -ge 2048 ]; then good "$free_mb MB free"; else bad "Only $free_mb MB are free" "Make room: a full disk stops every write."; fi
for secret in "$data_dir/secret" "$data_dir/own-secret"; do
  [ -e "$secret" ] || continue
  if [ "$(stat -c %a "$secret")" = 600 ]; then good "$(basename "$secret") is its owner's alone"; else bad "$secret can be read by others" "chmod 600 $secret"; fi
done
home=$(pg_home)
if [ -n "${DATABASE_URL:-}" ]; then good "the database of DATABASE_URL"
elif ! pg_as test -f "$home/data/PG_VERSION" 2>/dev/null; then bad "There is no database yet" "$again"
else
  if ! pg_running "$home" && [ -n "$mend" ]; then pg_start >/dev/null 2>&1 || true; fi
  if pg_running "$home"; then good "the database runs"; pg_start >/dev/null; else bad "The database does not run" "$again; its log is $home/log"; fi
fi
if [ -n "${DATABASE_URL:-}" ]; then
  hasty=$("$(pg_bin)/psql" -qXAt "$DATABASE_URL" -c "select coalesce(string_agg(name || ' = off', ', '), 'none') from pg_settings where name in ('fsync', 'full_page_writes', 'synchronous_commit') and setting = 'off'" 2>/dev/null || true)
  case "$hasty" in
    none) good "what counts as written is on the disk" ;;
    '') bad "The database does not say how it writes" "$again" ;;
    *) bad "A power cut can lose what was written, or all of it ($hasty)" "Take these settings out of postgresql.conf ('show config_file' says where it is), reload it, and make a backup." ;;
  esac
fi
if [ -n "${DATABASE_URL:-}" ] && pg_as test -f "$home/pgbackrest.conf" 2>/dev/null; then
  if (unset DATABASE_URL; bash scripts/archive.sh status ${arguments[@]+"${arguments[@]}"}) >/dev/null 2>&1; then good "what is written is archived"; else bad "What is written is not archived" "./mudflat archive status tells why"; fi
fi
answers() { node -e "fetch('$web_url/api/health').then(r=>process.exit(r.ok?0:1),()=>process.exit(1))" 2>/dev/null; }
if ! server_pid >/dev/null && [ -n "$mend" ] && [ -s "$port_file" ]; then need_secret; server_start || true; fi
if ! server_pid >/dev/null; then bad "The web server does not run" "$again; its log is $web_log"
elif answers; then good "the web server answers, and the database takes what is written"
else bad "The web server answers, but cannot write" "Look into $web_log and $home/log; is the disk full, or the database a standby?"; fi
if [ "$instance" = own ] && [ -s "$data_dir/yard" ]; then
  . scripts/yard.sh
  if ! caddy_pid >/dev/null && [ -n "$mend" ]; then yard_start || true; fi
  if caddy_pid >/dev/null; then good "HTTPS for $(cat "$data_dir/yard")"; else bad "HTTPS for $(cat "$data_dir/yard") does not run" "$again; its output is $data_dir/caddy.out"; fi
fi
if [ "$instance" = own ] && [ -n "${DATABASE_URL:-}" ]; then
  age=$("$(pg_bin)/psql" -qXAt "$DATABASE_URL" -c "select coalesce((select floor(extract(epoch from now() - beat_at) / 3600)::int from heartbeat where id = 2), -1)" 2>/dev/null || echo -1)
  if [ "$age" = -1 ]; then bad "There was never a backup" "./mudflat nightly, or ./mudflat serve --boot for every night"
  elif [ "$age" -gt 48 ]; then bad "The newest proven backup is $age hours old" "./mudflat nightly tells why"
  else good "the newest proven backup is $age hours old"; fi
fi
# Between two nights something may complain without end.
if [ -n "$mend" ]; then rotate_logs 50; fi
exit "$wrong"
