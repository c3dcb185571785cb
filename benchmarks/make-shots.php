<?php

/*
 * Chooses the position shots that the benchmark plays and prints them as JSON: ten balls at random, one potted by a called
 * stroke of random tip and speed, the cue ball then off one to three cushions, no other ball moved. Kept beside this file as
 * position-shots.json, so that every run and every program plays the same ones.
 */

declare(strict_types=1);

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Cue;
use ZigLane\Tests\Chance;
use ZigLane\Tests\Table;

require dirname(__DIR__).'/vendor/autoload.php';

$chance = new Chance(20261124);
$table = new Table();
$desk = new ShotSolver();
$shots = [];
while (count($shots) < 20) {
    $layout = $table->randomLayout($chance, 10);
    $pocket = Pocket::cases()[$chance->int(0, 5)];
    $angle = $chance->float(0, 2 * \M_PI);
    $offset = $chance->float(0, 0.45);
    $stroke = new Stroke(Tip::fractions($offset * sin($angle), $offset * cos($angle)), $chance->float(1.0, 3.5), 2.0);
    try {
        $shot = $desk->solve($layout, new ShotChoice(Ball::One, $pocket, $stroke));
    } catch (CoreError) {
        continue;
    }
    $cushions = count($shot->cushions());
    if (
        !$shot->isMade()
        || $shot->scratch()
        || [] !== $shot->disturbed()
        || $cushions < 1
        || $cushions > 3
        || $cushions < 1 + count($shots) % 3
    ) {
        continue;
    }
    $balls = [];
    foreach ($layout->balls() as $ball) {
        $spot = $layout->spot($ball);
        $balls[] = [$spot->x, $spot->y];
    }
    $shots[] = ['balls' => $balls, 'strike' => $shot->strike->velocities(Table::R), 'cushions' => $cushions];
}
echo json_encode($shots, \JSON_PRETTY_PRINT | \JSON_THROW_ON_ERROR), "\n";
