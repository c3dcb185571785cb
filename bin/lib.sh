# Shared by bin/start, bin/stop and bin/test: sets up the machine and runs the project's own servers, on loopback only.
# MODE (start or test) names the folder under var/ that holds everything of one instance.

ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
cd "$ROOT" || exit 1
umask 022

say() { printf '%s\n' "$*"; }
fail() { printf 'bin/%s: %s\n' "${MODE:-lib}" "$*" >&2; exit 1; }

# ---- who runs the servers: the person who calls, but never root where another user can reach this folder

service_user() {
    if [ "$(id -u)" != 0 ]; then id -un; return; fi
    if id www-data >/dev/null 2>&1 && runuser -u www-data -- test -r "$ROOT/composer.json" 2>/dev/null; then echo www-data; else echo root; fi
}
as_service() { if [ "$(id -un)" = "$SERVICE_USER" ]; then "$@"; else runuser -u "$SERVICE_USER" -- "$@"; fi; }

jit_mode() { php -r 'echo require "config/jit.php";'; }

# ---- packages

install_debian() {
    local missing=() extension
    command -v mariadbd >/dev/null || [ -x /usr/sbin/mariadbd ] || missing+=(mariadb-server)
    command -v mariadb >/dev/null || missing+=(mariadb-client)
    command -v curl >/dev/null || missing+=(curl)
    [ -x /usr/sbin/nginx ] || missing+=(nginx)
    command -v supervisord >/dev/null || missing+=(supervisor)
    [ -x /usr/sbin/php-fpm8.2 ] || missing+=(php8.2-fpm)
    for extension in mysql:pdo_mysql apcu:apcu curl:curl zip:zip mbstring:mbstring intl:intl xml:dom gd:gd; do
        php -m | grep -qix "${extension#*:}" || missing+=("php8.2-${extension%:*}")
    done
    [ "$MODE" != test ] || command -v chromedriver >/dev/null || missing+=(chromium chromium-driver)
    [ "$MODE" != test ] || command -v pdftotext >/dev/null || missing+=(poppler-utils)
    [ ${#missing[@]} -gt 0 ] || return 0
    say "Installing Debian packages: ${missing[*]}"
    local apt=(apt-get)
    [ "$(id -u)" = 0 ] || apt=(sudo -n apt-get)
    { "${apt[@]}" update -q && DEBIAN_FRONTEND=noninteractive "${apt[@]}" install -y -q --no-install-recommends "${missing[@]}"; } >"$STATE/apt.log" 2>&1 \
        || fail "Debian packages could not be installed (see var/$MODE/apt.log). Install them by hand and call again: ${missing[*]}"
}

# Runs a command unless it has run before on the same content of the given files.
once_for() {
    local name=$1 stamp; shift
    local files=(); while [ "$1" != -- ]; do files+=("$1"); shift; done; shift
    stamp=$(cat "${files[@]}" 2>/dev/null | sha256sum | cut -c1-64)
    [ "$(cat "var/stamps/$name" 2>/dev/null)" = "$stamp" ] && return 0
    "$@" || return 1
    mkdir -p var/stamps && printf '%s' "$stamp" >"var/stamps/$name"
}

composer_install() {
    say "Installing Composer packages"
    export COMPOSER_ALLOW_SUPERUSER=1
    composer install --working-dir=tools/symfony --no-dev --no-autoloader --no-scripts --no-interaction --quiet || fail "Composer could not fetch Symfony's components"
    composer update --no-interaction --no-scripts --quiet || fail "Composer could not install the packages"
    chmod -R a+rX vendor tools/symfony/vendor
}
npm_install() { say "Installing npm packages"; npm ci --silent --no-audit --no-fund >/dev/null && npm run --silent build || fail "npm could not install the packages"; chmod -R a+rX node_modules; }

install_packages() {
    command -v php >/dev/null || fail "PHP 8.2 is needed: apt-get install php8.2-cli"
    command -v composer >/dev/null || fail "Composer is needed: apt-get install composer"
    command -v npm >/dev/null || fail "Node.js with npm is needed: apt-get install nodejs npm"
    install_debian
    [ -f vendor/autoload.php ] || rm -f var/stamps/composer
    { [ -d node_modules/bulma ] && [ -f assets/vendor/htmx.js ]; } || rm -f var/stamps/npm
    once_for composer composer.json tools/symfony/composer.json tools/pins/composer.json tools/pins-dev/composer.json -- composer_install
    once_for npm package-lock.json package.json tools/browser/bulma.scss -- npm_install
}

# ---- instance

prepare() {
    STATE="$ROOT/var/$MODE"
    mkdir -p "$STATE" var/log var/cache var/mailbox
    chmod 700 var/mailbox
    SERVICE_USER=$(service_user)
    RUN="$STATE/run"
    # Paths of Unix sockets are limited to 107 characters.
    [ ${#RUN} -lt 80 ] || RUN="/tmp/zig-lane-$(printf '%s' "$RUN" | sha256sum | cut -c1-12)"
    mkdir -p "$RUN"
}
own() { [ "$(id -u)" != 0 ] || chown -R "$SERVICE_USER" "$STATE" "$RUN" var/log var/cache var/mailbox; }

port_taken() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

await_page() { until_stuck answers || fail "the page does not answer (see var/log and $RUN)"; }
# Waits as long as the parts of this instance use a processor, however slow the machine is: a minute in which they do not is the end.
until_stuck() {
    local used last=-1 since=$SECONDS
    until "$@" >/dev/null 2>&1; do
        used=$(parts_used)
        [ "$used" = "$last" ] || { last=$used; since=$SECONDS; }
        [ $((SECONDS - since)) -lt 60 ] || return 1
        sleep 0.1
    done
}
# Seconds of the processor that they have used: whatever names the folder of the run, and its children.
parts_used() {
    local pids
    pids=$(pgrep -f -- "$RUN" | tr '\n' ',')
    ps -o cputimes= -p "$pids$$" --ppid "$pids$$" 2>/dev/null | awk '{ all += $1 } END { print all + 0 }'
}
until_true() { local tries=$1; shift; for _ in $(seq "$tries"); do "$@" >/dev/null 2>&1 && return 0; sleep 0.1; done; return 1; }

# ---- the supervisor, and the parts that it keeps alive (config/server/supervisord.conf)

. "$ROOT/config/server/leftovers.sh"
# Two workers, so that a plan has two processors. PHP's compiler is on in them too: planning is computation.
WORKERS=2

supervised() { as_service supervisorctl -c "$RUN/supervisord.conf" "$@"; }
supervisor_runs() { [ -S "$RUN/supervisor.sock" ] && supervised pid >/dev/null 2>&1; }
part_runs() { [ "$(supervised pid "$1" 2>/dev/null)" -gt 0 ] 2>/dev/null; }

start_supervisor() {
    local part
    supervisor_runs && return 0
    end_leftovers "$RUN" guard KILL
    # Of a run that was cut off: whatever it has left would hold the ports.
    for part in $(all_parts); do end_leftovers "$RUN" "$part" TERM; done
    fill supervisord.conf >"$RUN/supervisord.conf"
    # A database that others keep is not ours to start.
    [ -z "${EXTERNAL_DATABASE:-}" ] || sed -i '/^\[program:mariadb\]/,/^$/d' "$RUN/supervisord.conf"
    { printf 'ROOT=%q\nSTATE=%q\n' "$ROOT" "$STATE"
      printf 'MARIADBD=%q\nDB_PORT=%q\nDB_FLUSH=%q\nDB_BUFFER=%q\n' "$(command -v mariadbd || echo /usr/sbin/mariadbd)" "$DB_PORT" "${DB_FLUSH:-1}" "${DB_BUFFER:-256M}"
    } >"$RUN/environment"
    rm -f "$RUN/environment-web"
    own
    as_service supervisord -c "$RUN/supervisord.conf" >"$RUN/boot.log" 2>&1 || fail "the supervisor did not start: $(cat "$RUN/boot.log")"
    until_true 100 supervisor_runs || fail "the supervisor does not answer (see $RUN/supervisord.log)"
}
all_parts() { local n; for n in $(seq "$WORKERS"); do echo "worker$n"; done; echo nginx; echo camera; echo php1; echo php2; echo php3; echo mariadb; }

stop_supervisor() {
    local part pid
    if supervisor_runs; then
        pid=$(supervised pid)
        supervised shutdown >/dev/null 2>&1
        for _ in $(seq 400); do kill -0 "$pid" 2>/dev/null || break; sleep 0.1; done
    fi
    # The guard first: it would start a supervisor again.
    end_leftovers "$RUN" guard KILL
    for part in $(all_parts); do end_leftovers "$RUN" "$part" TERM; done
    rm -f "$RUN/supervisor.sock" "$RUN"/*.group
}

start_database() {
    local data="$STATE/mariadb" password
    part_runs mariadb && return 0
    start_supervisor
    port_taken "$DB_PORT" && fail "port $DB_PORT is taken by another program; choose another: DB_PORT=$((DB_PORT + 1)) bin/$MODE"
    if [ ! -d "$data/mysql" ]; then
        say "Making a database"
        rm -rf "$data"
        as_service mkdir -p "$data"
        as_service mariadb-install-db --no-defaults --datadir="$data" --auth-root-authentication-method=socket --skip-test-db >"$RUN/mariadb-install.log" 2>&1 || fail "the database could not be made (see $RUN/mariadb-install.log)"
    fi
    password=$(database_password)
    (umask 077; cat >"$RUN/init.sql" <<SQL
CREATE DATABASE IF NOT EXISTS zig_lane CHARACTER SET utf8mb4;
CREATE USER IF NOT EXISTS 'zig_lane'@'127.0.0.1' IDENTIFIED BY '$password';
ALTER USER 'zig_lane'@'127.0.0.1' IDENTIFIED BY '$password';
GRANT ALL ON zig_lane.* TO 'zig_lane'@'127.0.0.1';
SQL
    # The tests of the browser have one of their own: they and their workers run beside the tests of pages.
    [ "$MODE" != test ] || cat >>"$RUN/init.sql" <<SQL
CREATE DATABASE IF NOT EXISTS zig_lane_browser CHARACTER SET utf8mb4;
GRANT ALL ON zig_lane_browser.* TO 'zig_lane'@'127.0.0.1';
SQL
    )
    own
    supervised start mariadb >/dev/null || fail "the database did not start (see $RUN/mariadb.log)"
    until_stuck database_answers || fail "the database does not answer (see $RUN/mariadb.log)"
}
# The password goes by the environment: the process list is everybody's.
with_password() { MYSQL_PWD=$(database_password) "$@"; }
database_answers() { with_password mariadb --no-defaults --protocol=tcp -h 127.0.0.1 -P "$DB_PORT" -u zig_lane -e 'SELECT 1' zig_lane; }
database_password() { [ -s "$STATE/password" ] || (umask 077; php -r 'echo bin2hex(random_bytes(16));' >"$STATE/password"); cat "$STATE/password"; }
database_url() { printf 'mysql://zig_lane:%s@127.0.0.1:%s/%s?serverVersion=10.11.6-MariaDB&charset=utf8mb4' "$(database_password)" "$DB_PORT" "${1:-zig_lane}"; }

# As many pages at once as the machine has processors for, four times over (most of them wait for the database), half of them in each pool.
pool_size() { local n; n=$(nproc 2>/dev/null || echo 2); echo $((n * 2 > 16 ? 16 : (n * 2 < 3 ? 3 : n * 2))); }
fill() { sed -e "s|@PART@|${PART:-}|g" -e "s|@ROOT@|$ROOT|g" -e "s|@RUN@|$RUN|g" -e "s|@PORT@|${PORT:-}|g" -e "s|@JIT@|$(jit_mode)|g" -e "s|@CHILDREN@|$(pool_size)|g" -e "s|@WORKERS@|$WORKERS|g" "config/server/$1"; }

check_port() { ! port_taken "$PORT" || part_runs nginx || fail "port $PORT is taken by another program; choose another: PORT=$((PORT + 1)) bin/$MODE"; }

# The settings that pages and workers run with, as they are in the environment now; what is not set there comes from .env files.
web_environment() {
    local name
    printf 'JIT=%q\n' "$(jit_mode)"
    for name in APP_ENV APP_DEBUG APP_DEMO APP_SECRET DATABASE_URL STATE_DSN MESSENGER_TRANSPORT_DSN MESSENGER_PLANS_DSN TRUSTED_PROXIES TRUSTED_HOSTS LANE_CAMERA_URL CAMERA_PORT MAILER_DSN MAIL_FROM SITE_URL MESSENGER_MAIL_DSN LANE_PLAN_SECONDS; do
        [ -z "${!name+x}" ] || printf '%s=%q\n' "$name" "${!name}"
    done
}
settle_environment() { (umask 077; web_environment >"$RUN/environment-web"); own; }

start_web() {
    part_runs php:php1 && part_runs php:php2 && part_runs php:php3 && part_runs nginx && return 0
    stop_web
    check_port
    mkdir -p "$RUN/php"
    cp /etc/nginx/mime.types /etc/nginx/fastcgi_params "$RUN/"
    { [ "$SERVICE_USER" != root ] || echo "user root;"; fill nginx.conf; } >"$RUN/nginx.conf"
    local pool; for pool in php1 php2 php3; do PART=$pool fill php-fpm.conf >"$RUN/$pool.conf"; done
    fill php.ini >"$RUN/php/zig-lane.ini"
    # PHP preloads as root only when told so by name.
    [ "$SERVICE_USER" != root ] || echo "opcache.preload_user = root" >>"$RUN/php/zig-lane.ini"
    settle_environment
    supervised start 'php:*' nginx guard >/dev/null || fail "the web server did not start (see $RUN/php1.log and $RUN/nginx.log)"
}
stop_web() { supervisor_runs || return 0; supervised stop nginx 'php:*' >/dev/null 2>&1; }
# The stand-in for a camera over the table comes with the demo, unless there is a camera, or somebody else has the port.
choose_camera() {
    [ -z "${LANE_CAMERA_URL:-}" ] && [ "${APP_DEMO:-1}" = 1 ] || return 0
    CAMERA_PORT=${CAMERA_PORT:-8490}
    if port_taken "$CAMERA_PORT" && ! part_runs camera; then
        say "Port $CAMERA_PORT is taken: the demo starts without its camera (CAMERA_PORT chooses another)."
        unset CAMERA_PORT
        return 0
    fi
    export CAMERA_PORT LANE_CAMERA_URL="http://127.0.0.1:$CAMERA_PORT/"
}
start_camera() { [ -z "${CAMERA_PORT:-}" ] || supervised start camera >/dev/null || say "The camera's stand-in did not start (see $RUN/camera.log)"; }
start_worker() { settle_environment; supervised start 'worker:*' guard >/dev/null || fail "the workers did not start (see $RUN/worker1.log)"; }
stop_worker() { supervisor_runs || return 0; supervised stop 'worker:*' >/dev/null 2>&1; }
stop_all() { stop_supervisor; }

code_files() { find core src config templates assets migrations public/index.php public/table-worker.js importmap.php composer.json package-lock.json .env -type f | LC_ALL=C sort; }
code_stamp() { code_files | tr '\n' '\0' | xargs -0 cat | sha256sum | cut -c1-64; }

# The application as it will run: cache and preload list, assets, migrations. Nothing when the code has not changed.
build() {
    local stamp built; stamp=$(code_stamp)
    # For this database.
    built="$stamp $(sed 's#.*/##; s#?.*##' <<<"${DATABASE_URL:-}")"
    if [ "$(cat "$STATE/built-$APP_ENV" 2>/dev/null)" = "$built" ] && [ -d "var/cache/$APP_ENV" ] && [ -d public/assets ]; then return 0; fi
    say "Building the application"
    stop_worker; stop_web
    supervisor_runs && supervised stop camera >/dev/null 2>&1
    rm -rf "var/cache/$APP_ENV"
    mkdir -p public/assets var/cache
    own
    [ "$(id -u)" != 0 ] || chown -R "$SERVICE_USER" public/assets
    as_service php bin/console cache:warmup -q || fail "the application could not be built"
    if [ "$(cat var/stamps/assets 2>/dev/null)" != "$stamp" ] || [ ! -f public/assets/manifest.json ]; then
        rm -rf public/assets/*
        as_service php bin/console asset-map:compile -q || fail "the assets could not be built"
        mkdir -p var/stamps && printf '%s' "$stamp" >var/stamps/assets
    fi
    as_service php bin/console doctrine:migrations:migrate --no-interaction --allow-no-migration -q || fail "the database could not be migrated"
    printf '%s' "$built" >"$STATE/built-$APP_ENV"
}
answers() { curl -fsS -o /dev/null --max-time 5 "http://127.0.0.1:$PORT/healthy"; }
