# One part of an instance, as the supervisor starts it (supervisord.conf). Where the part still runs and only its supervisor has died, this
# stands for it until it ends. Else it ends what an earlier life of the part left behind (workers of a web server whose master was killed
# still hold its port), then becomes the part itself. RUN/environment says with what settings.
# Use: part.sh RUN mariadb|phpN|nginx|camera|guard|workerN
set -u
RUN=$1
PART=$2
. "$(dirname "$0")/leftovers.sh"

if [ "$PART" != guard ] && leads "$RUN" "$PART"; then
    trap 'end_leftovers "$RUN" "$PART" TERM; exit 0' TERM
    while leads "$RUN" "$PART"; do
        # Of a supervisor that has been killed in its turn: the next one has its own that stands here.
        kill -0 "$PPID" 2>/dev/null && [ "$(cat "$RUN/supervisord.pid" 2>/dev/null)" = "$PPID" ] || exit 0
        sleep 0.5 & wait $!
    done
fi
end_leftovers "$RUN" "$PART" KILL
trap - TERM
# What dies at once is not started again at once.
[ -z "$(find "$RUN/$PART.group" -newermt '-2 seconds' 2>/dev/null)" ] || sleep 1
# The supervisor makes every part the first of a process group.
printf '%s' "$$" >"$RUN/$PART.group.new" && mv "$RUN/$PART.group.new" "$RUN/$PART.group"
set -a
. "$RUN/environment"
[ ! -f "$RUN/environment-web" ] || [ "$PART" = mariadb ] || . "$RUN/environment-web"
set +a
cd "$ROOT" || exit 1
umask 022

case "$PART" in
    mariadb)
        exec "$MARIADBD" --no-defaults --user="$(id -un)" --datadir="$STATE/mariadb" --socket="$RUN/mariadb.sock" --pid-file="$RUN/mariadb.pid" \
            --bind-address=127.0.0.1 --port="$DB_PORT" --skip-name-resolve --init-file="$RUN/init.sql" --innodb-buffer-pool-size="$DB_BUFFER" \
            --innodb-flush-log-at-trx-commit="$DB_FLUSH" --max-connections=200
        ;;
    php*)
        as_root=(); [ "$(id -u)" != 0 ] || as_root=(-R)
        # The compiler costs a page that does not compute two milliseconds, and a pool several seconds of its start. Never tracing: there
        # PHP 8.2 has been seen to compute wrong numbers (docs/performance.md).
        compiler=(-d opcache.jit=disable); [ "$PART" != php3 ] || compiler=(-d opcache.jit="$JIT" -d opcache.jit_buffer_size=64M)
        PHP_INI_SCAN_DIR=":$RUN/php" exec /usr/sbin/php-fpm8.2 -F "${compiler[@]}" -y "$RUN/$PART.conf" "${as_root[@]}"
        ;;
    nginx) exec /usr/sbin/nginx -c "$RUN/nginx.conf" -p "$RUN" -e stderr -g 'daemon off;' ;;
    worker*)
        # Letters come first with every worker, then plans with the odd ones and all other work with the even ones: neither waits for the
        # other, and none stands idle while there is work. Long work makes way for what stands before it (src/Work/Workbench.php).
        queues=(mail work plans); [ $((${PART#worker} % 2)) = 0 ] || queues=(mail plans work)
        # A page that wants a processor gets ten times what a worker gets, which still never stands still (as work of the idle class did).
        exec nice -n 10 php -d pcov.enabled=0 bin/worker "$PART-$(printf %s "$RUN" | cksum | cut -d" " -f1)" messenger:consume "${queues[@]}" --sleep=0.2 --time-limit=3600 --memory-limit=384M --no-interaction -q
        ;;
    camera)
        # Not asked for, and started only because the guard starts every part.
        [ -n "${CAMERA_PORT:-}" ] || while :; do sleep 60; done
        exec nice -n 10 php -d pcov.enabled=0 -d opcache.enable_cli=1 -d opcache.jit="$JIT" -d opcache.jit_buffer_size=64M -d memory_limit=512M \
            bin/console lane:camera - --demo --serve="$CAMERA_PORT" --no-interaction -q </dev/null
        ;;
    guard)
        supervisor=$(cat "$RUN/supervisord.pid")
        while kill -0 "$supervisor" 2>/dev/null && [ "$(cat "$RUN/supervisord.pid" 2>/dev/null)" = "$supervisor" ]; do sleep 0.5; done
        # The supervisor has been killed: another one, which ends and starts every part. One that was stopped has ended this guard before.
        # What it says went to the one that is gone.
        exec >>"$RUN/guard-own.log" 2>&1
        rm -f "$RUN/supervisor.sock"
        supervisord -c "$RUN/supervisord.conf" || exit 1
        for _ in $(seq 50); do [ -S "$RUN/supervisor.sock" ] && break; sleep 0.1; done
        exec supervisorctl -c "$RUN/supervisord.conf" start all
        ;;
esac
