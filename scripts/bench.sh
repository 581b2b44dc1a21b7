#!/usr/bin/env bash
# Measurements beside their targets, as ratios; never a pass or fail. Uses the test cluster with durable
# settings.
set -euo pipefail
. scripts/lib.sh
. scripts/pg.sh
pg_name=bench
need_node_modules
need_secret
need_postgres
need_debian chromium chromium
case " ${*:-power} " in *' power '*) need_debian /usr/bin/linux.uml user-mode-linux && need_debian /sbin/ip iproute2 ;; esac
trap 'pg_remove >/dev/null 2>&1 || true' EXIT
pg_remove >/dev/null 2>&1 || true
pg_start
# A benchmark of writes without waiting for the disk would flatter: this cluster is as durable as the
# application's.
pg_make_durable "$(pg_home)"
need_build .next-test
# As ./mudflat serve starts it.
export MUDFLAT_WORKERS=${MUDFLAT_WORKERS:-$(web_processes)}
MUDFLAT_DIST=.next-test exec npx --no-install tsx bench/main.ts "$@"
