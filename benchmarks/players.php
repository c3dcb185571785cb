<?php

/*
 * What the presets of player errors come to, to hold them to common practice: straight-ins made in ten, how far a lag ends from the head
 * rail, how far a stop shot drifts, and racks run from ball in hand after a break. Prints the table of docs/planner.md; a quarter of an
 * hour. --racks and --replays make it shorter, --level does one of them, --errors tries others ("0.05,0.05,1.2,1.2").
 */

declare(strict_types=1);

use ZigLane\Core\Fit\ErrorFit;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\PlanSearch;
use ZigLane\Core\Plan\RackPlayer;
use ZigLane\Core\Plan\Tally;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\BreakShot;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Table\Equipment;

require dirname(__DIR__).'/vendor/autoload.php';

$options = getopt('', ['racks:', 'replays:', 'level:', 'errors:', 'games:']);
$racks = (int) ($options['racks'] ?? 40);
$replays = (int) ($options['replays'] ?? 6);

/** Racks run from ball in hand after a break of the model. */
function runOuts(Game $game, ExecutionErrors $player, int $racks, int $replays): Tally
{
    $sum = new Tally();
    $equipment = new Equipment();
    for ($seed = 1; $seed <= $racks; ++$seed) {
        $break = BreakShot::play(
            $game,
            $equipment,
            new ExecutionErrors(...ExecutionErrors::PRESETS['strong player']),
            new Randomness($seed),
        );
        $left = $break->rackAfter($game, $equipment, $player)->layout->without(Ball::Cue);
        $rack = new Rack(
            $game,
            $left,
            player: $player,
            ballInHand: BallInHand::Anywhere,
            group: Game::EightBall === $game ? Group::Open : null,
        );
        $search = new PlanSearch($rack);
        $best = $search->candidates()[0] ?? null;
        if (null === $best) {
            $sum->tries += $replays;
            continue;
        }
        $table = new RackPlayer(new ShotSolver($equipment), $rack, $search->order($best->group));
        for ($i = 0; $i < $replays; ++$i) {
            $table->play($sum, $search->chooser($best->group), $best->layout, $seed * 1000 + $i, $best->option);
        }
    }

    return $sum;
}

$games = array_map(Game::from(...), explode(',', $options['games'] ?? 'nine-ball,eight-ball'));
$solver = new ShotSolver(new Equipment());
echo '| player | straight-ins in ten | lag, cm | stop drifts, cm | ',
implode(' | ', array_map(static fn (Game $game): string => $game->value.' run', $games)),
" |\n";
echo '| --- | ---: | ---: | ---: |', str_repeat(' ---: |', count($games)), "\n";
$players = array_map(static fn (array $numbers): ExecutionErrors => new ExecutionErrors(...$numbers), ExecutionErrors::PRESETS);
if (isset($options['errors'])) {
    $players = [$options['errors'] => new ExecutionErrors(...array_map(floatval(...), explode(',', $options['errors'])))];
}
foreach ($players as $level => $player) {
    if (!in_array($options['level'] ?? $level, [$level], true)) {
        continue;
    }
    // The same tests as a player is asked for: his straight-ins, lags and stop shots.
    $fit = new ErrorFit($solver);
    $run = array_map(static function (Game $game) use ($player, $racks, $replays): string {
        $tally = runOuts($game, $player, $racks, $replays);
        [$low, $high] = $tally->interval();

        return sprintf('%.0f %% (%.0f to %.0f)', 100 * $tally->chance(), 100 * $low, 100 * $high);
    }, $games);
    printf(
        "| %s | %.1f | %.0f | %.1f | %s |\n",
        $level,
        $fit->made($player),
        100 * $fit->lag($player),
        100 * $fit->drift($player),
        implode(' | ', $run),
    );
}
