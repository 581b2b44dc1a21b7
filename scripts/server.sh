# The web server as a background process of ours. Sourced after lib.sh.
web_port=${PORT:-4180}
pid_file=$data_dir/server.pid
web_url="http://127.0.0.1:$web_port"

# Alive and really ours: a web server, and of this folder.
server_pid() {
  local pid command
  pid=$(cat "$pid_file" 2>/dev/null) || return 1
  [ -n "$pid" ] && [ -r "/proc/$pid/cmdline" ] && runs_in "$pid" "$PWD" || return 1
  command=$(tr '\0' ' ' <"/proc/$pid/cmdline") || return 1
  case "$command" in *web/server.mjs*) printf '%s' "$pid" ;; *) return 1 ;; esac
}

server_start() {
  # Browsers refuse these (the "bad ports" of the Fetch standard, those above 1023).
  case "$web_port" in 1719|1720|1723|2049|3659|4045|4190|5060|5061|6000|6566|666[5-9]|6679|6697|10080)
    die "Starting the server" "Browsers refuse port $web_port. Choose another: PORT=4280 ./mudflat demo" ;;
  esac
  port_open "$web_port" && die "Starting the server" "Port $web_port is busy. Choose another: PORT=4280 ./mudflat demo"
  setsid env PORT="$web_port" NODE_ENV=production node web/server.mjs >"$data_dir/server.log" 2>&1 </dev/null &
  echo $! >"$pid_file"
  echo "$web_port" >"$data_dir/server.port"
  for _ in $(seq 1 120); do
    if node -e "fetch('$web_url/api/health').then(r=>process.exit(r.ok?0:1),()=>process.exit(1))" 2>/dev/null; then return 0; fi
    server_pid >/dev/null || break
    sleep 0.25
  done
  tail -n 20 "$data_dir/server.log" >&2
  server_stop
  die "Starting the server" "Its log is $data_dir/server.log."
}

server_stop() {
  local pid
  pid=$(server_pid) || { rm -f "$pid_file"; return 0; }
  kill "$pid" 2>/dev/null || true
  for _ in $(seq 1 40); do
    [ -e "/proc/$pid" ] || break
    sleep 0.1
  done
  kill -9 "$pid" 2>/dev/null || true
  rm -f "$pid_file"
}
