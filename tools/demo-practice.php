<?php

/*
 * Six weeks of scored drills of the demo player, played by a simulated hand that grows a little surer: prints demo/practice.json.
 */

declare(strict_types=1);

use ZigLane\Core\Format\DrillFile;
use ZigLane\Core\Format\LogFile;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Practice\ParRuns;
use ZigLane\Core\Shot\ShotSolver;

require dirname(__DIR__).'/vendor/autoload.php';

const DRILLS = [
    'dead-stop', 'measured-draw', 'rings-in-the-middle', 'side-door', 'first-line', 'up-and-home', 'sideways-stun', 'stepping-stones',
    'two-homes', 'along-the-rail', 'thin-corner',
];
const DAYS = 42;

$hand = LogFile::parse((string) file_get_contents(dirname(__DIR__).'/demo/player.log.json'))->player;
$solver = new ShotSolver();
$sessions = [];
foreach (DRILLS as $d => $key) {
    $drill = DrillFile::parse((string) file_get_contents(dirname(__DIR__)."/drills/$key.drill.json"))->drill;
    // Every fifth to ninth day, each drill on days of its own.
    for ($day = DAYS - $d % 5; $day > 0; $day -= 5 + $d % 5) {
        $factor = 0.95 + 0.45 * $day / DAYS;
        $player = new ExecutionErrors(...array_map(
            static fn (float $one): float => $factor * $one,
            [$hand->aim, $hand->speed, $hand->tipSide, $hand->tipHeight],
        ));
        $tries = [];
        foreach ((new ParRuns($drill, $solver, $player, 1 + $d))->tries(100 * $d + $day) as $try) {
            $spots = [];
            foreach ($try['after']?->balls() ?? [] as $ball) {
                [$long, $short] = $try['after']->spot($ball)->inDiamonds($solver->equipment->table);
                $spots[$ball->label()] = [round($long, 2), round($short, 2)];
            }
            $tries[] = ['done' => $try['isDone'], 'after' => $try['isDone'] && isset($spots['cue']) ? $spots : null];
        }
        $sessions[] = ['drill' => $key, 'daysAgo' => $day, 'tries' => $tries];
    }
}
usort($sessions, static fn (array $a, array $b): int => [-$a['daysAgo'], $a['drill']] <=> [-$b['daysAgo'], $b['drill']]);
echo '[', \PHP_EOL, implode(','.\PHP_EOL, array_map(static fn (array $one): string => json_encode($one, \JSON_THROW_ON_ERROR), $sessions)), \PHP_EOL, ']', \PHP_EOL;
