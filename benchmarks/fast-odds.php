<?php

/*
 * How far the fast model of a pot (PotModel) is from simulated tries on random pots: quantiles over all, and the worst. Prints the table in
 * docs/limits.md. --shots=300 --tries=2000.
 */

declare(strict_types=1);

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Tests\Chance;
use ZigLane\Tests\Table;

require dirname(__DIR__).'/vendor/autoload.php';

$options = getopt('', ['shots::', 'tries::', 'verbose']);
[$shots, $tries] = [(int) ($options['shots'] ?? 300), (int) ($options['tries'] ?? 2000)];
$chance = new Chance(17);
$solver = new ShotSolver();
$errors = new ExecutionErrors();
$offs = [];
$time = 0.0;
$calls = 0;
while (count($offs) < $shots) {
    $layout = (new Table())->randomLayout($chance, $chance->int(2, 6), 0.0);
    $pocket = Pocket::cases()[$chance->int(0, 5)];
    $line = PotModel::find($layout, Ball::One, $pocket, $solver, $errors);
    $cue = $layout->spot(Ball::Cue);
    if (null === $line) {
        continue;
    }
    $start = hrtime(true);
    $fast = $line->chance($cue);
    $time += hrtime(true) - $start;
    ++$calls;
    if ($fast < 0.02) {
        continue;
    }
    try {
        $shot = $solver->solve($layout, $line->choice($cue));
    } catch (CoreError) {
        continue;
    }
    $real = Trials::of($shot, $solver, $errors, $tries)->chance();
    $offs[] = abs($fast - $real);
    if (isset($options['verbose'])) {
        $object = $layout->spot(Ball::One);
        $gap = min($object->x, $object->y, 2.54 - $object->x, 1.27 - $object->y) - 0.028575;
        $mouth = $solver->equipment->geometry->at($pocket)->mouth();
        printf(
            "%6.1f fast %.3f real %.3f cut %2.0f cue-ball %.2f ball-pocket %.2f gap %.3f speed %.2f open %.2f %s\n",
            100 * ($fast - $real), $fast, $real, $shot->aim->ghost->cutDegrees, $shot->aim->ghost->distance,
            $object->distanceTo($mouth), $gap, $shot->strike->speed, $line->openShare(), $pocket->value,
        );
    }
}
sort($offs);
$at = static fn (float $share): float => 100 * $offs[(int) ($share * (count($offs) - 1))];
$within = count(array_filter($offs, static fn (float $off): bool => $off <= 0.03)) / count($offs);
printf("%d pots, %d tries each: half within %.1f points, 90 %% within %.1f, 95 %% within %.1f, the worst %.1f; within 3 points %.1f %%; %.1f us a chance\n",
    count($offs), $tries, $at(0.5), $at(0.9), $at(0.95), $at(1.0), 100 * $within, $time / $calls / 1000);
