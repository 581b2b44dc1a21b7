# The web server as a background process of ours. Sourced after lib.sh, which says whose it is.
# With HTTPS before it, only the proxy on this machine says for whom it asks; the screen says where a tablet
# begins.
own_environment() {
  [ -s "$data_dir/yard" ] || return 0
  export MUDFLAT_PROXY=127.0.0.1 MUDFLAT_YARD
  MUDFLAT_YARD=$(cat "$data_dir/yard-page" 2>/dev/null || true)
}
if [ "$instance" = own ]; then
  web_port=${PORT:-4185}
  pid_file=$data_dir/own-server.pid
  port_file=$data_dir/own-server.port
  web_log=$data_dir/own-server.log
  own_environment
else
  web_port=${PORT:-4180}
  pid_file=$data_dir/server.pid
  port_file=$data_dir/server.port
  web_log=$data_dir/server.log
fi
web_url="http://127.0.0.1:$web_port"

# Alive and really ours: a web server, and of this folder.
server_pid() {
  local pid command
  pid=$(cat "$pid_file" 2>/dev/null) || return 1
  [ -n "$pid" ] && [ -r "/proc/$pid/cmdline" ] && runs_in "$pid" "$PWD" || return 1
  command=$(tr '\0' ' ' <"/proc/$pid/cmdline") || return 1
  case "$command" in *web/server.mjs* | *next*start*) printf '%s' "$pid" ;; *) return 1 ;; esac
}

# Root's web server runs as a user of its own, who may read the project and nothing more.
server_user=mudflat
as_server() {
  if [ "$(id -u)" != 0 ]; then "$@"; return; fi
  id "$server_user" >/dev/null 2>&1 || useradd --system --no-create-home --shell /usr/sbin/nologin "$server_user"
  local drop=(setpriv --reuid="$server_user" --regid="$server_user" --clear-groups --no-new-privs)
  if "${drop[@]}" test -r web/server.mjs && "${drop[@]}" test -r .next/BUILD_ID && "${drop[@]}" test -r node_modules/next/package.json; then
    "${drop[@]}" env HOME=/nonexistent "$@"
  else
    echo "The user $server_user cannot read $PWD: the web server runs as root. Keep the project where it can, such as /opt or /srv." >&2
    "$@"
  fi
}

server_start() {
  # Browsers refuse these (the "bad ports" of the Fetch standard, those above 1023).
  case "$web_port" in 1719|1720|1723|2049|3659|4045|4190|5060|5061|6000|6566|666[5-9]|6679|6697|10080)
    die "Starting the server" "Browsers refuse port $web_port. Choose another: PORT=4280 ./mudflat demo" ;;
  esac
  port_open "$web_port" && die "Starting the server" "Port $web_port is busy. Choose another: PORT=4280 ./mudflat demo"
  export PORT=$web_port NODE_ENV=production
  as_server true
  rotate_log "$web_log"
  (umask 077; : >>"$web_log")
  as_server setsid node web/server.mjs >>"$web_log" 2>&1 </dev/null &
  echo $! >"$pid_file"
  echo "$web_port" >"$port_file"
  for _ in $(seq 1 120); do
    if node -e "fetch('$web_url/api/health').then(r=>process.exit(r.ok?0:1),()=>process.exit(1))" 2>/dev/null; then
      server_note_pid
      return 0
    fi
    [ -e "/proc/$(cat "$pid_file")" ] || break
    sleep 0.25
  done
  tail -n 20 "$web_log" >&2
  server_stop
  die "Starting the server" "Its log is $web_log."
}

# The process that serves says its own number in its log: between it and this shell stand those that changed
# the user.
server_note_pid() {
  local own
  own=$(sed -n 's/.*"pid":\([0-9]*\).*/\1/p' "$web_log" | tail -n 1)
  [ -n "$own" ] && echo "$own" >"$pid_file"
  return 0
}

server_stop() {
  local pid
  pid=$(server_pid) || { rm -f "$pid_file"; return 0; }
  kill "$pid" 2>/dev/null || true
  for _ in $(seq 1 60); do
    [ -e "/proc/$pid" ] || break
    sleep 0.1
  done
  kill -9 "$pid" 2>/dev/null || true
  rm -f "$pid_file"
}
