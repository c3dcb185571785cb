<?php

/*
 * Plays shots and breaks often enough for everything to be compiled, and prints one hash of every bit of every result. Two runs
 * that print the same computed the same (tests/Reference/SameBitsTest).
 */

declare(strict_types=1);

use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Rules\BreakShot;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Table\Equipment;
use ZigLane\Tests\Chance;
use ZigLane\Tests\Table;

require dirname(__DIR__).'/vendor/autoload.php';

$hash = hash_init('sha256');
$count = 0;
$table = new Table();
$simulator = new EventSimulator();
$chance = new Chance(3);
for ($i = 0; $i < 400; ++$i) {
    $layout = $table->randomLayout($chance, $chance->int(2, 12), 0.2);
    $outcome = $simulator->play(
        $layout,
        Strike::degrees($chance->float(0, 360), $chance->float(0.5, 6.0), $chance->float(-0.3, 0.3), $chance->float(-0.3, 0.3), 3.0),
    );
    foreach ($outcome->events as $event) {
        hash_update($hash, pack('EEE', $event->time, $event->at->x, $event->at->y));
    }
    ++$count;
}
for ($seed = 1; $seed <= 12; ++$seed) {
    $break = BreakShot::play(Game::EightBall, new Equipment(), new ExecutionErrors(), new Randomness($seed));
    foreach ($break->outcome->events as $event) {
        hash_update($hash, pack('EEE', $event->time, $event->at->x, $event->at->y));
    }
    ++$count;
}
echo hash_final($hash), " $count shots\n";
