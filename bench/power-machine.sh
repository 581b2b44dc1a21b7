#!/usr/bin/env bash
# The first process of a machine of its own (user-mode Linux), which bench/power.ts starts and takes the power
# from. It sees the files of the machine around it, and writes to a disk of its own alone: what was not
# flushed there is gone with it.
#   MUDFLAT_MACHINE   a folder with the file `settings`, from the kernel's command line
. "$MUDFLAT_MACHINE/settings"
say() { printf '#%s\n' "$*" >/dev/console; }
trap 'say "problem the machine gave up"; sleep 1; kill -9 -1' EXIT
set -e
exec 2>/dev/console
mount -t proc proc /proc
mount -t sysfs sys /sys
mount -t devtmpfs dev /dev 2>/dev/null || true
mkdir -p /dev/shm
mount -t tmpfs shm /dev/shm
mount -t tmpfs own /mnt
mkdir -m 1777 /mnt/tmp
mkdir /mnt/disk
export TMPDIR=/mnt/tmp HOME=/mnt/tmp PATH=$machine_path
ip link set lo up
mount -t ext4 /dev/ubda /mnt/disk
database() { setpriv --reuid="$machine_uid" --regid="$machine_gid" --clear-groups "$@"; }
if ! database "$machine_pg/pg_ctl" -D /mnt/disk/data -l /mnt/tmp/database.log -w -t 180 -o "$machine_pg_options" start >/mnt/tmp/start.log 2>&1; then
  say "problem the database does not start: $(tail -n 4 /mnt/tmp/start.log /mnt/tmp/database.log 2>/dev/null | tr "\n" " ")"
  sleep 3600
fi
cd "$machine_folder"
node web/server.mjs >/mnt/tmp/server.log 2>&1 &
node --import tsx bench/power-writer.ts >/dev/console 2>/mnt/tmp/writer.log ||
  say "problem $(grep -v "^ *at \|^$" /mnt/tmp/writer.log | head -n 8 | tr "\n" " ") $(tail -n 3 /mnt/tmp/server.log | tr "\n" " ")"
sleep 3600
