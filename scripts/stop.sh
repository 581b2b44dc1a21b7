#!/usr/bin/env bash
# Ends the server and the database cluster that demo or dev started, and nothing else.
set -euo pipefail
. scripts/lib.sh
. scripts/pg.sh
. scripts/server.sh
pg_name=main
server_stop
if ls /usr/lib/postgresql/*/bin/pg_ctl >/dev/null 2>&1; then pg_stop; fi
say "Stopped."
