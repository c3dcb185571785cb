<?php

declare(strict_types=1);

namespace ZigLane\App\Work;

/** What this process has computed so far, not waited: on a busy machine work is bounded by what it is and not by who else is there. */
final class ProcessorTime
{
    /** Seconds, user and system. */
    public static function seconds(): float
    {
        /** @var array<string, int>|false $usage */
        $usage = getrusage();
        if (false === $usage) {
            return 0.0;
        }

        return $usage['ru_utime.tv_sec'] + $usage['ru_stime.tv_sec'] + 1e-6 * ($usage['ru_utime.tv_usec'] + $usage['ru_stime.tv_usec']);
    }
}
