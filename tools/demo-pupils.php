<?php

/*
 * Six weeks of scored drills of the three pupils of the demo's coach, each played by a simulated hand of its own that changes over the
 * weeks: prints demo/pupils.json.
 */

declare(strict_types=1);

use ZigLane\Core\Format\DrillFile;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Practice\ParRuns;
use ZigLane\Core\Shot\ShotSolver;

require dirname(__DIR__).'/vendor/autoload.php';

/** Whose, the hand it is like, by how much it is off six weeks ago and now, every so many days, the drills, days ago of the last. */
const PUPILS = [
    'Mira' => ['club player', 1.5, 1.0, 3, ['dead-stop', 'measured-draw', 'rings-in-the-middle', 'first-line', 'up-and-home'], 1],
    'Tomas' => ['club player', 0.9, 1.05, 6, ['side-door', 'sideways-stun', 'two-homes'], 9],
    'Oda' => ['beginner', 1.1, 0.8, 4, ['dead-stop', 'along-the-rail', 'up-and-home'], 2],
];
const DAYS = 42;

$presets = ExecutionErrors::presets();
$solver = new ShotSolver();
$all = [];
foreach (PUPILS as $name => [$preset, $then, $now, $every, $drills, $last]) {
    $hand = $presets[$preset];
    $sessions = [];
    for ($i = 0, $day = DAYS; $day >= $last; ++$i, $day -= $every) {
        $key = $drills[$i % count($drills)];
        $drill = DrillFile::parse((string) file_get_contents(dirname(__DIR__)."/drills/$key.drill.json"))->drill;
        $factor = $now + ($then - $now) * $day / DAYS;
        $player = new ExecutionErrors(...array_map(
            static fn (float $one): float => $factor * $one,
            [$hand->aim, $hand->speed, $hand->tipSide, $hand->tipHeight],
        ));
        $tries = [];
        foreach ((new ParRuns($drill, $solver, $player, 1 + $i))->tries(1000 + 100 * $i + $day) as $try) {
            $spots = [];
            foreach ($try['after']?->balls() ?? [] as $ball) {
                [$long, $short] = $try['after']->spot($ball)->inDiamonds($solver->equipment->table);
                $spots[$ball->label()] = [round($long, 2), round($short, 2)];
            }
            $tries[] = ['done' => $try['isDone'], 'after' => $try['isDone'] && isset($spots['cue']) ? $spots : null];
        }
        $sessions[] = ['drill' => $key, 'daysAgo' => $day, 'tries' => $tries];
    }
    $all[$name] = $sessions;
}
echo json_encode($all, \JSON_THROW_ON_ERROR), \PHP_EOL;
