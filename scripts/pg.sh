# A PostgreSQL cluster of the project's own, on loopback TCP only. Sourced after lib.sh.
#   pg_name   "main" (the demo), "own" (a workshop's), or another name: one of a test, which may lose all
#             at a power cut

pg_bin() {
  local dir
  dir=$(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -n 1)
  [ -n "$dir" ] || die "Looking for PostgreSQL" "Install it: sudo apt-get install postgresql"
  printf '%s' "$dir"
}

need_postgres() { need_debian '/usr/lib/postgresql/*/bin/initdb' postgresql; }

# The server refuses to run as root: root's cluster belongs to the package's user and lies where that user can
# reach it.
pg_home() {
  if [ "$(id -u)" = 0 ]; then
    printf '/var/lib/postgresql/mudflat-%s-%s' "$(printf '%s' "$PWD" | sha256sum | cut -c1-10)" "$pg_name"
  else
    printf '%s/postgres-%s' "$data_dir" "$pg_name"
  fi
}

pg_as() {
  if [ "$(id -u)" = 0 ]; then (cd / && setpriv --reuid=postgres --regid=postgres --clear-groups env HOME=/tmp PATH="$PATH" "$@"); else "$@"; fi
}

# Whether what is written must outlast a power cut: anything but the clusters that tests make and remove.
pg_is_lasting() { case "$pg_name" in main | own | main-standby | own-standby) return 0 ;; *) return 1 ;; esac; }

# pg_make_durable HOME: what counts as written is on the disk. Clusters of workshops were once made like those
# of tests.
pg_make_durable() {
  local conf=$1/data/postgresql.conf hasty='^(fsync|synchronous_commit|full_page_writes) = off$'
  pg_as grep -qE "$hasty" "$conf" || return 0
  pg_as sed -i -E "/$hasty/d" "$conf"
  if pg_running "$1"; then
    pg_as "$(pg_bin)/pg_ctl" -D "$1/data" reload >/dev/null
    "$(pg_bin)/psql" -qX "postgres://mudflat:$(pg_as cat "$1/password")@127.0.0.1:$(pg_port "$1")/postgres" -c checkpoint
  fi
  # What the system holds of before as well.
  sync
}

pg_create() {
  local home=$1 bin password port
  bin=$(pg_bin)
  password=$(head -c 24 /dev/urandom | od -An -tx1 | tr -d ' \n')
  port=${MUDFLAT_PG_PORT:-$((54000 + $(printf '%s' "$home" | cksum | cut -d' ' -f1) % 1000))}
  while port_open "$port"; do
    [ -z "${MUDFLAT_PG_PORT:-}" ] || die "Creating the database" "Port $port (MUDFLAT_PG_PORT) is busy: choose another."
    port=$((port + 1))
  done
  if [ "$(id -u)" = 0 ]; then install -d -o postgres -g postgres -m 700 "$home"; else mkdir -p -m 700 "$home"; fi
  printf '%s' "$password" | pg_as tee "$home/password" >/dev/null
  pg_as chmod 600 "$home/password"
  # A disk that gives back something else than it was given is noticed, where what is kept matters.
  pg_as "$bin/initdb" -D "$home/data" -U mudflat --auth=scram-sha-256 --pwfile="$home/password" -E UTF8 --locale=C.UTF-8 $(pg_is_lasting && echo --data-checksums)
  {
    echo "listen_addresses = '127.0.0.1'"
    echo "unix_socket_directories = ''"
    echo "port = $port"
    echo "timezone = 'UTC'"
    pg_is_lasting || printf 'fsync = off\nsynchronous_commit = off\nfull_page_writes = off\n'
  } | pg_as tee -a "$home/data/postgresql.conf" >/dev/null
}

pg_port() { pg_as sed -n 's/^port = \([0-9]*\)$/\1/p' "$1/data/postgresql.conf" | tail -n 1; }

# Whether the cluster of this folder runs. PostgreSQL works in its data folder.
pg_running() {
  local pid
  pid=$(pg_as sed -n 1p "$1/data/postmaster.pid" 2>/dev/null) || return 1
  [ -n "$pid" ] && runs_in "$pid" "$1/data"
}

# Starts the cluster (made at the first call) and sets DATABASE_URL.
pg_start() {
  local home bin port
  home=$(pg_home)
  bin=$(pg_bin)
  if [ -d "$home" ] && ! pg_as test -O "$home"; then
    die "Starting the database" "$home belongs to another user; it is left as it is. Run as that user."
  fi
  pg_as test -f "$home/data/PG_VERSION" || quietly "Creating the database" "See the message above." pg_create "$home"
  port=$(pg_port "$home")
  if pg_is_lasting; then pg_make_durable "$home"; fi
  if ! pg_running "$home"; then
    # Copied with its folder while the original ran: the note of the original's process would keep this one
    # from starting.
    pg_as rm -f "$home/data/postmaster.pid"
    port_open "$port" && die "Starting the database" "Port $port is busy. Stop what uses it, or change 'port' in $home/data/postgresql.conf."
    quietly "Starting the database" "Its log is $home/log." pg_as "$bin/pg_ctl" -D "$home/data" -l "$home/log" -w -t 60 start
  fi
  DATABASE_URL="postgres://mudflat:$(pg_as cat "$home/password")@127.0.0.1:$port/postgres"
  export DATABASE_URL
}

pg_stop() {
  local home bin
  home=$(pg_home)
  pg_as test -f "$home/data/PG_VERSION" 2>/dev/null || return 0
  bin=$(pg_bin)
  if pg_running "$home"; then
    quietly "Stopping the database" "See the message above." pg_as "$bin/pg_ctl" -D "$home/data" -m fast -w stop
  fi
}

pg_remove() {
  pg_stop
  local home
  home=$(pg_home)
  case "$home" in *mudflat-*|*/.data/postgres-*) rm -rf "$home" ;; esac
}
