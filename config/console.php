<?php

declare(strict_types=1);

use Symfony\Component\Console\Application;

/*
 * Makes a console application one in which no PHP runs on a signal: bin/console, and the harness that sends it signals
 * (tools/machines/signals.php). A handler in the middle of compiled code can change what is computed (docs/reliability.md). Symfony turns
 * asynchronous signals on for every command; here a signal without a handler ends the process, and a command that has one dispatches it
 * between pieces of its work.
 */
return static function (Application $application): Application {
    if (function_exists('pcntl_async_signals')) {
        pcntl_async_signals(false);
        $application->setSignalsToDispatchEvent();
    }

    return $application;
};
