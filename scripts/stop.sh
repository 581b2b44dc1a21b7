#!/usr/bin/env bash
# Ends the servers and the database clusters that demo, dev or serve started, and nothing else.
set -euo pipefail
for each in demo own; do
  (
    instance=$each
    . scripts/lib.sh
    . scripts/pg.sh
    . scripts/server.sh
    server_stop
    if [ "$instance" = own ]; then . scripts/yard.sh; yard_stop; fi
    if ls /usr/lib/postgresql/*/bin/pg_ctl >/dev/null 2>&1; then pg_stop; fi
  )
done
. scripts/lib.sh
say "Stopped."
