# HTTPS in the yard: Debian's Caddy before the web server, with a certificate authority of its own. Sourced
# after server.sh.
caddy_pid_file=$data_dir/caddy.pid
caddy_home=$data_dir/caddy
# Root may take the usual ports; anybody else takes those above 1023.
if [ "$(id -u)" = 0 ]; then yard_https=${MUDFLAT_HTTPS_PORT:-443} yard_http=${MUDFLAT_HTTP_PORT:-80}; else yard_https=${MUDFLAT_HTTPS_PORT:-8443} yard_http=${MUDFLAT_HTTP_PORT:-8080}; fi

yard_url() { # NAME
  if [ "$yard_https" = 443 ]; then printf 'https://%s' "$1"; else printf 'https://%s:%s' "$1" "$yard_https"; fi
}
trust_url() { # NAME
  if [ "$yard_http" = 80 ]; then printf 'http://%s' "$1"; else printf 'http://%s:%s' "$1" "$yard_http"; fi
}

# need_yard NAME: the configuration, for a name or an address by which tablets reach this machine.
need_yard() {
  local name=$1
  [[ "$name" =~ ^[A-Za-z0-9][A-Za-z0-9.-]*$ ]] || die "Reading the name '$name'" "Give the name or the IPv4 address by which tablets reach this machine."
  need_debian caddy caddy
  # The package starts a server of its own where the machine has systemd.
  if [ -d /run/systemd/system ]; then as_root systemctl disable --now caddy >/dev/null 2>&1 || true; fi
  mkdir -p "$caddy_home/page"
  cat >"$caddy_home/Caddyfile" <<CADDY
{
	admin off
	skip_install_trust
	auto_https disable_redirects
	storage file_system $caddy_home/store
	log {
		output file $data_dir/caddy.log {
			roll_size 10MiB
			roll_keep 5
		}
	}
}
https://$name:$yard_https {
	tls internal
	encode gzip
	reverse_proxy 127.0.0.1:$web_port {
		header_up X-Forwarded-Host {host}
	}
}
http://$name:$yard_http {
	handle /authority.crt {
		root * $caddy_home/store/pki/authorities/local
		rewrite * /root.crt
		header Content-Type application/x-x509-ca-cert
		file_server
	}
	handle {
		root * $caddy_home/page
		file_server
	}
}
CADDY
  npx --no-install tsx scripts/yard-page.ts "$(yard_url "$name")" "$caddy_home/page"
}

caddy_pid() {
  local pid
  pid=$(cat "$caddy_pid_file" 2>/dev/null) || return 1
  [ -n "$pid" ] && grep -qz "$caddy_home/Caddyfile" "/proc/$pid/cmdline" 2>/dev/null || return 1
  printf '%s' "$pid"
}

yard_start() {
  port_open "$yard_https" && die "Starting HTTPS" "Port $yard_https is busy. Choose another: MUDFLAT_HTTPS_PORT=8443 ./mudflat serve --yard NAME"
  setsid env HOME="$caddy_home" caddy run --config "$caddy_home/Caddyfile" --adapter caddyfile >"$data_dir/caddy.out" 2>&1 </dev/null &
  echo $! >"$caddy_pid_file"
  for _ in $(seq 1 80); do
    port_open "$yard_https" && [ -s "$caddy_home/store/pki/authorities/local/root.crt" ] && return 0
    [ -e "/proc/$(cat "$caddy_pid_file")" ] || break
    sleep 0.25
  done
  tail -n 20 "$data_dir/caddy.out" >&2
  yard_stop
  die "Starting HTTPS" "Its output is $data_dir/caddy.out."
}

yard_stop() {
  local pid
  pid=$(caddy_pid) || { rm -f "$caddy_pid_file"; return 0; }
  kill "$pid" 2>/dev/null || true
  rm -f "$caddy_pid_file"
}
