<?php

/*
 * The tests of the demo player's table, shot on a simulated one whose constants are stated here and measured with a tape and a watch that
 * err: prints demo/back-room.table-tests.json.
 */

declare(strict_types=1);

use ZigLane\Core\Calibration\Base;
use ZigLane\Core\Calibration\Parameter;
use ZigLane\Core\Calibration\Prediction;
use ZigLane\Core\Calibration\UsualTests;
use ZigLane\Core\Format\TableTestsFile;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Table\Equipment;
use ZigLane\Tests\Chance;

require dirname(__DIR__).'/vendor/autoload.php';

const TRUTH = [
    'roll' => 0.0124, 'slide' => 0.225, 'spinDecay' => 9.0, 'cushionRestitution' => 0.86, 'cushionFriction' => 0.46, 'ballRestitution' => 0.955,
    'ballFriction' => 1.4, 'slopeLong' => 0.0, 'slopeShort' => 0.12,
];
const SPOT = 0.02;

$equipment = (new Base(new Equipment(), Parameter::usualOnes()))->with(TRUTH);
$diamond = $equipment->table->diamond();
$chance = new Chance(4);
$simulator = new EventSimulator($equipment);
$tests = [];
foreach (UsualTests::cases() as $test) {
    $layout = $test->layout($equipment->table);
    for ($i = 0; $i < 2; ++$i) {
        $strike = $test->strike()->withSpeed($test->strike()->speed * $chance->float(0.95, 1.2));
        $seen = $simulator->measurements($layout)->play($strike);
        $observed = [];
        foreach ($test->ends() as $ball) {
            [$long, $short] = $seen->ends[$ball->value]->inDiamonds($equipment->table);
            $observed[$ball->label()] = [
                round($long + SPOT / $diamond * $chance->normal(), 2), round($short + SPOT / $diamond * $chance->normal(), 2),
            ];
        }
        if ($test->wantsCushions()) {
            $observed['cushions'] = array_map(static fn (array $met): array => [
                'ball' => 'cue', 'rail' => $met[0]->value,
                'diamond' => round(Prediction::along(...$met) / $diamond + SPOT / $diamond * $chance->normal(), 2),
            ], $seen->cushionsOf(Ball::Cue));
        } elseif ([] === $seen->cushionsOf(Ball::Cue) && 1 === count($layout->balls())) {
            $observed['noCushion'] = ['cue'];
        }
        if ($test->wantsSeconds()) {
            $observed['seconds'] = round($seen->seconds + 0.1 * $chance->normal(), 1);
        }
        $spots = [];
        foreach ($layout->balls() as $ball) {
            $at = $layout->spot($ball)->inDiamonds($equipment->table);
            $spots[$ball->label()] = array_map(static fn (float $one): float => round($one, 4), $at);
        }
        $tests[] = [
            'name' => $test->value, 'layout' => $spots,
            'stroke' => ['direction' => rad2deg($strike->direction), 'side' => $strike->side, 'height' => $strike->height, 'elevation' => 0.0],
            'speed' => null, 'observed' => $observed, 'measured' => ['spot' => 0.025, 'seconds' => 0.2],
        ];
    }
}
$file = ['format' => TableTestsFile::FORMAT, 'version' => 1, 'name' => 'Back room', 'table' => new stdClass(), 'tests' => $tests];
echo json_encode($file, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION), "\n";
