# Units of systemd for a workshop's own installation. Sourced by serve.sh, from the project's root.

# write_units FOLDER USER: the server, and the nightly backup with its timer.
write_units() {
  local folder=$1 user=$2
  mkdir -p "$folder"
  cat >"$folder/mudflat.service" <<UNIT
[Unit]
Description=Mudflat, for diesel and heavy-vehicle technicians
After=network-online.target
Wants=network-online.target

[Service]
Type=oneshot
RemainAfterExit=yes
User=$user
WorkingDirectory=$PWD
ExecStart=$PWD/mudflat serve
ExecStop=$PWD/mudflat stop
KillMode=process
TimeoutStartSec=900

[Install]
WantedBy=multi-user.target
UNIT
  cat >"$folder/mudflat-watch.service" <<UNIT
[Unit]
Description=Mudflat: start again what has died
After=mudflat.service

[Service]
Type=oneshot
User=$user
WorkingDirectory=$PWD
# What it starts again stays when it ends itself.
KillMode=process
ExecStart=$PWD/mudflat doctor --mend
UNIT
  cat >"$folder/mudflat-watch.timer" <<UNIT
[Unit]
Description=Mudflat: look every minute

[Timer]
OnBootSec=3min
OnUnitActiveSec=1min

[Install]
WantedBy=timers.target
UNIT
  cat >"$folder/mudflat-nightly.service" <<UNIT
[Unit]
Description=Mudflat: backup, proven by restoring it

[Service]
Type=oneshot
User=$user
WorkingDirectory=$PWD
ExecStart=$PWD/mudflat nightly
UNIT
  cat >"$folder/mudflat-nightly.timer" <<UNIT
[Unit]
Description=Mudflat: every night

[Timer]
OnCalendar=*-*-* 02:30
Persistent=true

[Install]
WantedBy=timers.target
UNIT
}

boot_units() {
  local written=$data_dir/units
  write_units "$written" "$(id -un)"
  if [ ! -d /run/systemd/system ]; then
    echo "This machine is not run by systemd. The units are written to $written; nothing was installed."
    return 0
  fi
  as_root cp "$written"/mudflat* /etc/systemd/system/
  as_root systemctl daemon-reload
  as_root systemctl enable mudflat.service >/dev/null
  as_root systemctl enable --now mudflat-watch.timer mudflat-nightly.timer >/dev/null
  say "It starts with this machine, is looked after every minute, and is backed up every night at 2:30."
}
