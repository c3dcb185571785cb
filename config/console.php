<?php

declare(strict_types=1);

use Symfony\Bundle\FrameworkBundle\Console\Application;
use ZigLane\App\Kernel;

/*
 * The console application, of bin/console and of the harness that sends it signals (tools/machines/signals.php). No PHP runs on a signal:
 * a handler in the middle of compiled code can change what is computed (docs/reliability.md). Symfony turns asynchronous signals on for
 * every command; here a signal without a handler ends the process, and a command that has one dispatches it between pieces of its work.
 */
return static function (Kernel $kernel): Application {
    $application = new Application($kernel);
    if (function_exists('pcntl_async_signals')) {
        pcntl_async_signals(false);
        $application->setSignalsToDispatchEvent();
    }

    return $application;
};
