<?php

/*
 * Whether the planner keeps to the time that it is given: random layouts of all games, planned as lane:plan does it; how long the first
 * plan takes, and how far the whole goes past what was asked. Prints the lines of docs/planner.md. --layouts a game, --seconds asked.
 */

declare(strict_types=1);

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\Planning;
use ZigLane\Core\Plan\PlanSearch;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;

require dirname(__DIR__).'/vendor/autoload.php';
require __DIR__.'/layouts.php';

$options = getopt('', ['layouts:', 'seconds:']);
$layouts = (int) ($options['layouts'] ?? 15);
$seconds = (float) ($options['seconds'] ?? 5);

$all = $firsts = [];
foreach (Game::cases() as $game) {
    $took = $first = [];
    for ($seed = 1; $seed <= $layouts; ++$seed) {
        $layout = scattered([...$game->balls(), Ball::Cue], new Randomness($seed));
        $rack = new Rack(
            $game,
            $layout,
            player: new ExecutionErrors(...ExecutionErrors::PRESETS['strong player']),
            group: Game::EightBall === $game ? Group::Open : null,
        );
        $start = hrtime(true);
        (new PlanSearch($rack))->first();
        $first[] = (hrtime(true) - $start) / 1e9;
        $start = hrtime(true);
        Planning::within($rack, $seconds);
        $took[] = (hrtime(true) - $start) / 1e9;
    }
    sort($took);
    sort($first);
    $at = static fn (array $list, float $share): float => $list[(int) min(count($list) - 1, floor($share * count($list)))];
    printf("| %s | %.1f | %.1f | %.1f | %.1f |\n", $game->value, $at($first, 0.5), max($first), $at($took, 0.5), max($took));
    $all = [...$all, ...$took];
    $firsts = [...$firsts, ...$first];
}
sort($all);
sort($firsts);
printf(
    "Asked %.0f s, %d layouts: 95 %% within %.1f s, longest %.1f s; first plan 95 %% within %.1f s, longest %.1f s\n",
    $seconds,
    count($all),
    $all[(int) floor(0.95 * (count($all) - 1))],
    max($all),
    $firsts[(int) floor(0.95 * (count($firsts) - 1))],
    max($firsts),
);
