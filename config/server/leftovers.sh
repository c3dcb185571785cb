# What is left of a part that has died, found by the process group that it was started as. Sourced by part.sh and bin/lib.sh.

# The processes of a group that belong to us by a word in their command line: a number may have been given to somebody else since.
of_group() {
    local stat fields word=$2 pid
    for stat in /proc/[0-9]*/stat; do
        read -r fields 2>/dev/null <"$stat" || continue
        # Behind the name, which may hold anything: state, parent, group.
        set -- ${fields##*) }
        [ "${3:-}" = "$GROUP" ] || continue
        pid=${stat#/proc/}; pid=${pid%/stat}
        { tr '\0' ' ' <"/proc/$pid/cmdline"; } 2>/dev/null | grep -qF -- "$word" && printf '%s\n' "$pid"
    done
}

word_of() { case "$1" in worker*) echo messenger:consume ;; mariadb) echo mariadbd ;; guard) echo part.sh ;; php*) echo php-fpm ;; camera) echo lane:camera ;; *) echo "$1" ;; esac; }

# leads RUN PART: whether the first process of the part's group still runs.
leads() {
    local first; first=$(cat "$1/$2.group" 2>/dev/null)
    [ -n "$first" ] && { tr '\0' ' ' <"/proc/$first/cmdline"; } 2>/dev/null | grep -qF -- "$(word_of "$2")"
}

# end_leftovers RUN PART SIGNAL: ends the part's last group, if anything of it still runs.
end_leftovers() {
    local GROUP word pids
    GROUP=$(cat "$1/$2.group" 2>/dev/null) || return 0
    [ -n "$GROUP" ] && [ "$GROUP" != "$$" ] || return 0
    word=$(word_of "$2")
    pids=$(of_group "$GROUP" "$word")
    [ -n "$pids" ] || return 0
    kill "-$3" $pids 2>/dev/null
    for _ in $(seq 50); do pids=$(of_group "$GROUP" "$word"); [ -n "$pids" ] || return 0; sleep 0.1; done
    kill -KILL $pids 2>/dev/null
    for _ in $(seq 30); do [ -n "$(of_group "$GROUP" "$word")" ] || return 0; sleep 0.1; done
}
