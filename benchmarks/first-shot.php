<?php

/* Plays one shot in a fresh process, then more; prints the milliseconds of the first and of the slowest of the others. */

declare(strict_types=1);

use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Spot;

require dirname(__DIR__).'/vendor/autoload.php';

$times = [];
for ($i = 0; $i < 200; ++$i) {
    $start = hrtime(true);
    (new EventSimulator())->play(
        Layout::empty()->with(Ball::Cue, Spot::metres(0.6, 0.5))->with(Ball::One, Spot::metres(1.2, 0.6)),
        Strike::degrees(9.0 + 0.01 * $i, 2.5, 0.2, 0.1),
    );
    $times[] = (hrtime(true) - $start) / 1e6;
}
printf("%.3f %.3f\n", $times[0], max(array_slice($times, 1)));
