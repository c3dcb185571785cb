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
    [ -x /usr/sbin/php-fpm8.2 ] || missing+=(php8.2-fpm)
    for extension in mysql:pdo_mysql apcu:apcu curl:curl zip:zip mbstring:mbstring intl:intl xml:dom; do
        php -m | grep -qix "${extension#*:}" || missing+=("php8.2-${extension%:*}")
    done
    [ "$MODE" != test ] || command -v chromedriver >/dev/null || missing+=(chromium chromium-driver)
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
npm_install() { say "Installing npm packages"; npm ci --silent --no-audit --no-fund >/dev/null || fail "npm could not install the packages"; chmod -R a+rX node_modules; }

install_packages() {
    command -v php >/dev/null || fail "PHP 8.2 is needed: apt-get install php8.2-cli"
    command -v composer >/dev/null || fail "Composer is needed: apt-get install composer"
    command -v npm >/dev/null || fail "Node.js with npm is needed: apt-get install nodejs npm"
    install_debian
    [ -f vendor/autoload.php ] || rm -f var/stamps/composer
    [ -d node_modules/bulma ] || rm -f var/stamps/npm
    once_for composer composer.json tools/symfony/composer.json tools/pins/composer.json tools/pins-dev/composer.json -- composer_install
    once_for npm package-lock.json -- npm_install
}

# ---- instance

prepare() {
    STATE="$ROOT/var/$MODE"
    mkdir -p "$STATE" var/log var/cache var/sessions
    SERVICE_USER=$(service_user)
    RUN="$STATE/run"
    # Paths of Unix sockets are limited to 107 characters.
    [ ${#RUN} -lt 80 ] || RUN="/tmp/zig-lane-$(printf '%s' "$RUN" | sha256sum | cut -c1-12)"
    mkdir -p "$RUN"
}
own() { [ "$(id -u)" != 0 ] || chown -R "$SERVICE_USER" "$STATE" "$RUN" var/log var/cache var/sessions; }

port_taken() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

# Whether a pid file names a living process of ours: its command line must hold the given word.
alive() { local pid; pid=$(cat "$1" 2>/dev/null) && [ -n "$pid" ] && tr '\0' ' ' <"/proc/$pid/cmdline" 2>/dev/null | grep -qF -- "$2"; }

end() {
    local pid; alive "$1" "$2" || { rm -f "$1"; return 0; }
    pid=$(cat "$1")
    kill "${3:--TERM}" "${4:-}$pid" 2>/dev/null
    for _ in $(seq 100); do kill -0 "$pid" 2>/dev/null || break; sleep 0.1; done
    rm -f "$1"
}

until_true() { local tries=$1; shift; for _ in $(seq "$tries"); do "$@" >/dev/null 2>&1 && return 0; sleep 0.1; done; return 1; }

start_database() {
    local data="$STATE/mariadb" mariadbd password
    mariadbd=$(command -v mariadbd || echo /usr/sbin/mariadbd)
    alive "$RUN/mariadb.pid" "$data" && return 0
    port_taken "$DB_PORT" && fail "port $DB_PORT is taken by another program; choose another: DB_PORT=$((DB_PORT + 1)) bin/$MODE"
    own
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
    )
    own
    # A name of its own in the last argument, since root's --user would be refused without it.
    as_service setsid "$mariadbd" --no-defaults --user="$SERVICE_USER" --datadir="$data" --socket="$RUN/mariadb.sock" --pid-file="$RUN/mariadb.pid" \
        --bind-address=127.0.0.1 --port="$DB_PORT" --skip-name-resolve --init-file="$RUN/init.sql" --innodb-buffer-pool-size=64M \
        --innodb-flush-log-at-trx-commit="${DB_FLUSH:-1}" --log-error="$RUN/mariadb.log" >/dev/null 2>&1 </dev/null &
    until_true 300 port_taken "$DB_PORT" || fail "the database did not start (see $RUN/mariadb.log)"
    until_true 100 mariadb --no-defaults --protocol=tcp -h 127.0.0.1 -P "$DB_PORT" -u zig_lane -p"$password" -e 'SELECT 1' zig_lane || fail "the database does not answer (see $RUN/mariadb.log)"
}
database_password() { [ -s "$STATE/password" ] || (umask 077; php -r 'echo bin2hex(random_bytes(16));' >"$STATE/password"); cat "$STATE/password"; }
database_url() { printf 'mysql://zig_lane:%s@127.0.0.1:%s/zig_lane?serverVersion=10.11.6-MariaDB&charset=utf8mb4' "$(database_password)" "$DB_PORT"; }

# As many pages at once as the machine has processors for, four times over: most of them wait for the database.
pool_size() { local n; n=$(nproc 2>/dev/null || echo 2); echo $((n * 4 > 32 ? 32 : (n * 4 < 6 ? 6 : n * 4))); }
fill() { sed -e "s|@ROOT@|$ROOT|g" -e "s|@RUN@|$RUN|g" -e "s|@PORT@|$PORT|g" -e "s|@JIT@|$(jit_mode)|g" -e "s|@CHILDREN@|$(pool_size)|g" -e "s|@FPM@|unix:$RUN/fpm.sock|g" -e "s|@FPM_LISTEN@|$RUN/fpm.sock|g" "config/server/$1"; }

web_runs() { alive "$RUN/php-fpm.pid" php-fpm && alive "$RUN/nginx.pid" nginx; }
check_port() { ! port_taken "$PORT" || alive "$RUN/nginx.pid" nginx || fail "port $PORT is taken by another program; choose another: PORT=$((PORT + 1)) bin/$MODE"; }

start_web() {
    web_runs && return 0
    stop_web
    check_port
    mkdir -p "$RUN/php"
    cp /etc/nginx/mime.types /etc/nginx/fastcgi_params "$RUN/"
    { [ "$SERVICE_USER" != root ] || echo "user root;"; fill nginx.conf; } >"$RUN/nginx.conf"
    fill php-fpm.conf >"$RUN/php-fpm.conf"
    fill php.ini >"$RUN/php/zig-lane.ini"
    # PHP preloads as root only when told so by name.
    [ "$SERVICE_USER" != root ] || echo "opcache.preload_user = root" >>"$RUN/php/zig-lane.ini"
    own
    PHP_INI_SCAN_DIR=":$RUN/php" as_service /usr/sbin/php-fpm8.2 -y "$RUN/php-fpm.conf" $([ "$SERVICE_USER" = root ] && echo -R) >/dev/null 2>"$RUN/boot.log" || fail "php-fpm did not start: $(cat "$RUN/boot.log")"
    as_service /usr/sbin/nginx -c "$RUN/nginx.conf" -p "$RUN" -e "$RUN/nginx-error.log" 2>"$RUN/boot.log" || fail "nginx did not start: $(cat "$RUN/boot.log")"
}
stop_web() { end "$RUN/nginx.pid" nginx; end "$RUN/php-fpm.pid" php-fpm; }

# Two workers, so that a plan has two processors. PHP's compiler is on in them too: planning is computation.
WORKERS=2
start_worker() {
    local n
    for n in $(seq "$WORKERS"); do
        alive "$RUN/worker$n.pid" messenger:consume && continue
        as_service setsid bash -c 'echo $$ >"$1/worker$2.pid"; while :; do nice -n 10 php -d pcov.enabled=0 -d opcache.enable_cli=1 -d opcache.jit="$3" -d opcache.jit_buffer_size=64M -d memory_limit=512M bin/console messenger:consume work --sleep=0.2 --keepalive=10 --time-limit=3600 --memory-limit=384M --no-interaction -q; sleep 1; done' messenger:consume "$RUN" "$n" "$(jit_mode)" >>"$RUN/worker.log" 2>&1 </dev/null &
        until_true 50 alive "$RUN/worker$n.pid" messenger:consume || fail "a worker did not start (see $RUN/worker.log)"
    done
}
stop_worker() { local n; for n in $(seq "$WORKERS"); do end "$RUN/worker$n.pid" messenger:consume -TERM -; done; end "$RUN/worker.pid" messenger:consume -TERM -; }
stop_database() { end "$RUN/mariadb.pid" "$STATE/mariadb"; }
stop_all() { stop_worker; stop_web; stop_database; }

code_files() { find core src config templates assets migrations public/index.php public/table-worker.js importmap.php composer.json package-lock.json .env -type f | LC_ALL=C sort; }
code_stamp() { code_files | tr '\n' '\0' | xargs -0 cat | sha256sum | cut -c1-64; }

# The application as it will run: cache and preload list, assets, migrations. Nothing when the code has not changed.
build() {
    local stamp; stamp=$(code_stamp)
    if [ "$(cat "$STATE/built-$APP_ENV" 2>/dev/null)" = "$stamp" ] && [ -d "var/cache/$APP_ENV" ] && [ -d public/assets ]; then return 0; fi
    say "Building the application"
    stop_worker; stop_web
    rm -rf "var/cache/$APP_ENV"
    mkdir -p public/assets var/cache var/sessions "var/sessions/$APP_ENV"
    own
    [ "$(id -u)" != 0 ] || chown -R "$SERVICE_USER" public/assets
    as_service php bin/console cache:warmup -q || fail "the application could not be built"
    if [ "$(cat var/stamps/assets 2>/dev/null)" != "$stamp" ] || [ ! -f public/assets/manifest.json ]; then
        rm -rf public/assets/*
        as_service php bin/console asset-map:compile -q || fail "the assets could not be built"
        mkdir -p var/stamps && printf '%s' "$stamp" >var/stamps/assets
    fi
    as_service php bin/console doctrine:migrations:migrate --no-interaction --allow-no-migration -q || fail "the database could not be migrated"
    printf '%s' "$stamp" >"$STATE/built-$APP_ENV"
}
answers() { curl -fsS -o /dev/null --max-time 5 "http://127.0.0.1:$PORT/healthy"; }
