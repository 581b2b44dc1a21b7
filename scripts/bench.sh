#!/usr/bin/env bash
# Measurements beside their targets, as ratios; never a pass or fail. Uses the test cluster with durable settings.
set -euo pipefail
. scripts/lib.sh
. scripts/pg.sh
pg_name=bench
need_node_modules
need_secret
need_postgres
need_debian chromium chromium
trap 'pg_remove >/dev/null 2>&1 || true' EXIT
pg_remove >/dev/null 2>&1 || true
pg_start
# A benchmark of writes without waiting for the disk would flatter: this cluster is as durable as the application's.
home=$(pg_home)
pg_as sed -i '/^fsync = off$/d; /^synchronous_commit = off$/d; /^full_page_writes = off$/d' "$home/data/postgresql.conf"
pg_as "$(pg_bin)/pg_ctl" -D "$home/data" -w restart >/dev/null
need_build .next-test
# As ./mudflat serve starts it.
export MUDFLAT_WORKERS=${MUDFLAT_WORKERS:-$(web_processes)}
MUDFLAT_DIST=.next-test exec npx --no-install tsx bench/main.ts "$@"
