#!/usr/bin/env bash
# A workshop's own installation: the same set-up as the demo, an empty database of its own, and no invented
# data.
#   --yard NAME   HTTPS for tablets that reach this machine by that name or address;
#                 remembered until --no-yard
#   --boot        units of systemd: started with the machine, backed up every night, both checked
set -euo pipefail
instance=own
. scripts/lib.sh
. scripts/pg.sh
. scripts/server.sh
. scripts/yard.sh
. scripts/boot.sh

boot=
yard=$(cat "$data_dir/yard" 2>/dev/null || true)
while [ $# -gt 0 ]; do
  case "$1" in
    --yard) yard=${2:-}; [ -n "$yard" ] || { echo "Usage: ./mudflat serve --yard NAME" >&2; exit 2; }; shift ;;
    --no-yard) yard= ;;
    --boot) boot=yes ;;
    *) echo "Usage: ./mudflat serve [--yard NAME | --no-yard] [--boot]" >&2; exit 2 ;;
  esac
  shift
done

mkdir -p "$data_dir" 2>/dev/null && [ -w "$data_dir" ] || die "Preparing $data_dir" "It cannot be written by $(id -un): it was made by another user. Run as that user, or remove it."
printf '%s' "$yard" >"$data_dir/yard"
need_node_modules
need_secret
# One process a core serves, four at most; each takes some 400 MB.
export MUDFLAT_WORKERS=${MUDFLAT_WORKERS:-$(web_processes)}
# Only the proxy on this machine says for whom it asks.
if [ -n "$yard" ]; then
  need_yard "$yard"
  trust_url "$yard" >"$data_dir/yard-page"
  own_environment
fi
if [ -z "${DATABASE_URL:-}" ]; then
  need_postgres
  pg_start
else
  say "Using the database of DATABASE_URL."
fi
said=$(npx --no-install tsx scripts/prepare.ts --own) || die "Bringing the database up to date" "See the message above."
code=$(printf '%s\n' "$said" | sed -n 's/^set-up code //p')
now=$(source_hash)
how="$web_port ${MUDFLAT_PROXY:-} ${MUDFLAT_YARD:-}"
if server_pid >/dev/null && [ "$(cat "$data_dir/own-server.how" 2>/dev/null)" = "$how" ] && [ "$(cat "$port_file" 2>/dev/null)" = "$web_port" ] && [ "$(cat .next/mudflat-stamp 2>/dev/null)" = "$now" ]; then
  say "Mudflat is running already: $web_url"
else
  server_stop
  need_build .next
  server_start
  printf '%s' "$how" >"$data_dir/own-server.how"
  say "Mudflat is at $web_url"
fi
yard_stop
if [ -n "$yard" ]; then
  yard_start
  say "Tablets reach it at $(yard_url "$yard"); how each takes the certificate stands at $(trust_url "$yard")"
fi
if [ -n "$code" ]; then
  echo "Nobody is there yet. Open $web_url/set-up and type this code once:"
  say "    $code"
fi
[ -z "$boot" ] || boot_units
echo "Stop it with ./mudflat stop"
