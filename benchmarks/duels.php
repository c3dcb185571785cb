<?php

/*
 * Whether safeties win: racks played out between two equal players, one of whom plays safe where that is worth more and one who never does,
 * from random layouts from which neither side runs out easily, each beginning half of them. Prints the lines of docs/planner.md.
 * --layouts a game, --games of each layout, --game, --level.
 */

declare(strict_types=1);

use ZigLane\Core\Decide\Duel;
use ZigLane\Core\Decide\Duellist;
use ZigLane\Core\Decide\DuelScore;
use ZigLane\Core\Decide\PositionValue;
use ZigLane\Core\Decide\Situation;
use ZigLane\Core\Plan\Leave;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;

require dirname(__DIR__).'/vendor/autoload.php';
require __DIR__.'/layouts.php';

$options = getopt('', ['layouts:', 'games:', 'game:', 'level:', 'from:']);
$layouts = (int) ($options['layouts'] ?? 60);
$games = (int) ($options['games'] ?? 2);

/** No side runs out easily: the easiest pot of either is made less than every other time. */
const EASY = 0.5;

foreach (Game::cases() as $game) {
    foreach (['club player', 'strong player', 'expert'] as $level) {
        if (!in_array($options['game'] ?? $game->value, [$game->value], true) || !in_array($options['level'] ?? $level, [$level], true)) {
            continue;
        }
        $player = new ExecutionErrors(...ExecutionErrors::PRESETS[$level]);
        $solver = new ShotSolver();
        $score = new DuelScore();
        $leave = $value = null;
        $start = hrtime(true);
        for ($seed = (int) ($options['from'] ?? 1), $done = 0; $done < $layouts; ++$seed) {
            $group = Game::EightBall === $game ? Group::Solids : null;
            $rack = new Rack($game, randomLayout($game, $seed), player: $player, group: $group);
            $leave ??= new Leave($rack, $solver, 3, PositionValue::GRID);
            $situation = Situation::of($rack);
            $easiest = max(
                $leave->easiest($rack->layout, $situation->shootable()),
                $leave->easiest($rack->layout, $situation->passed()->shootable()),
            );
            if ($easiest > EASY) {
                continue;
            }
            ++$done;
            $value ??= new PositionValue($rack, [$player, $player], $solver);
            $duel = new Duel($rack, $value, $solver, [
                new Duellist($rack, $value, $solver, 0),
                new Duellist($rack, $value, $solver, 1, false),
            ]);
            for ($i = 0; $i < $games; ++$i) {
                $score->add($duel->play($i % 2, 1000 * $seed + $i), Game::StraightPool === $game);
            }
        }
        $shares = array_map(static fn (float $share): float => 100 * $share, [$score->share(), ...$score->interval()]);
        printf('| %s | %s | %d | %.1f %% (%.1f to %.1f) |', $game->value, $level, $score->games, ...$shares);
        if (Game::StraightPool === $game) {
            printf(' %+.1f balls (%+.1f to %+.1f) |', $score->mean(), ...$score->meanInterval());
        }
        printf(" %.2f s a rack\n", (hrtime(true) - $start) / 1e9 / $score->games);
    }
}
