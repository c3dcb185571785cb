<?php

/*
 * How soon the options of a position are there: the first list of 40 random layouts, ten of each game, and the ways polished. Prints the
 * lines of docs/planner.md. --layouts a game.
 */

declare(strict_types=1);

use ZigLane\Core\Decide\OptionSearch;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;

require dirname(__DIR__).'/vendor/autoload.php';
require __DIR__.'/layouts.php';

$layouts = (int) (getopt('', ['layouts:'])['layouts'] ?? 10);
$player = new ExecutionErrors(...ExecutionErrors::PRESETS['club player']);
$all = [];
foreach (Game::cases() as $game) {
    $took = [];
    for ($seed = 1; $seed <= $layouts; ++$seed) {
        $rack = new Rack(
            $game,
            randomLayout($game, $seed, true),
            player: $player,
            group: Game::EightBall === $game ? Group::Solids : null,
        );
        $start = hrtime(true);
        (new OptionSearch($rack, $player))->first();
        $took[] = (hrtime(true) - $start) / 1e9;
    }
    sort($took);
    printf("| %s | %.1f | %.1f |\n", $game->value, $took[intdiv($layouts, 2)], max($took));
    array_push($all, ...$took);
}
sort($all);
printf("%d layouts: 95 %% within %.1f s, the longest %.1f s\n", count($all), $all[(int) floor(0.95 * count($all))], max($all));
