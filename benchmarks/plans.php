<?php

/*
 * How good the planner is: its run-out rate beside that of a sensible beginner's way (EasiestPot) and that of a sound player's (ThreeAhead)
 * over random layouts with ball in hand, for three levels of player and four games; and whether the odds that a plan states are those of a
 * rehearsal with other errors. Prints the tables of docs/planner.md. It takes an hour: --layouts, --replays and --stated make it shorter,
 * --game and --level do a part of it.
 */

declare(strict_types=1);

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Plan\EasiestPot;
use ZigLane\Core\Plan\Order;
use ZigLane\Core\Plan\Planning;
use ZigLane\Core\Plan\PlanRehearsal;
use ZigLane\Core\Plan\PlanSearch;
use ZigLane\Core\Plan\RackPlayer;
use ZigLane\Core\Plan\StraightRun;
use ZigLane\Core\Plan\Tally;
use ZigLane\Core\Plan\ThreeAhead;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;

require dirname(__DIR__).'/vendor/autoload.php';
require __DIR__.'/layouts.php';

$options = getopt('', ['layouts:', 'replays:', 'stated:', 'game:', 'level:', 'only:']);
$layouts = (int) ($options['layouts'] ?? 100);
$replays = (int) ($options['replays'] ?? 20);
$stated = (int) ($options['stated'] ?? 20);

/** Balls anywhere on the table, a ball's width apart. */
function randomRack(Game $game, int $seed, ExecutionErrors $player, bool $inHand): Rack
{
    $layout = scattered([...$game->balls(), ...($inHand ? [] : [Ball::Cue])], new Randomness($seed));

    return new Rack(
        $game,
        $layout,
        player: $player,
        ballInHand: $inHand ? BallInHand::Anywhere : BallInHand::None,
        group: Game::EightBall === $game ? Group::Solids : null,
    );
}

function row(string ...$cells): void
{
    echo '| ', implode(' | ', $cells), " |\n";
}

function percent(int $hits, int $tries): string
{
    [$low, $high] = Trials::interval($hits, max(1, $tries));

    return sprintf('%.1f %% (%.1f to %.1f)', 100 * $hits / max(1, $tries), 100 * $low, 100 * $high);
}

if ('stated' !== ($options['only'] ?? '')) {
    echo "### Against the easiest pot now, and against three balls ahead\n\n";
    row('game', 'player', 'planner runs out', 'three ahead', 'easiest pot', 'balls a try, planner', 'three ahead', 'easiest pot');
    row('---', '---', '---:', '---:', '---:', '---:', '---:', '---:');
    foreach (Game::cases() as $game) {
        foreach (['club player', 'strong player', 'expert'] as $level) {
            if (
                !in_array($options['game'] ?? $game->value, [$game->value], true)
                || !in_array($options['level'] ?? $level, [$level], true)
            ) {
                continue;
            }
            $player = new ExecutionErrors(...ExecutionErrors::PRESETS[$level]);
            $mine = new Tally();
            $easy = new Tally();
            $sound = new Tally();
            for ($seed = 1; $seed <= $layouts; ++$seed) {
                $rack = randomRack($game, $seed, $player, true);
                $group = $rack->group;
                $order = Game::StraightPool === $game ? StraightRun::order($rack) : Order::of($game, $group);
                $search = new PlanSearch($rack);
                $best = $search->candidates()[0] ?? null;
                $beginner = new EasiestPot($rack, $group);
                $place = $beginner->place();
                $table = new RackPlayer(new ShotSolver($rack->equipment), $rack, $order);
                $chooser = $search->chooser($group);
                $three = new ThreeAhead($rack, new ShotSolver($rack->equipment), $group);
                for ($i = 0; $i < $replays; ++$i) {
                    if (null !== $best) {
                        $table->play($mine, $chooser, $best->layout, $seed * 1000 + $i, $best->option);
                    } else {
                        ++$mine->tries;
                    }
                    if (null !== $place) {
                        $table->play($sound, $three, $rack->layout->with(Ball::Cue, $place), $seed * 1000 + $i);
                        $table->play($easy, $beginner, $rack->layout->with(Ball::Cue, $place), $seed * 1000 + $i);
                    } else {
                        ++$easy->tries;
                        ++$sound->tries;
                    }
                }
                fwrite(
                    \STDERR,
                    sprintf("%s %s %d: %.3f %.3f %.3f\n", $game->value, $level, $seed, $mine->chance(), $sound->chance(), $easy->chance()),
                );
            }
            row(
                $game->value,
                $level,
                percent($mine->finished, $mine->tries),
                percent($sound->finished, $sound->tries),
                percent($easy->finished, $easy->tries),
                sprintf('%.2f', $mine->made / max(1, $mine->tries)),
                sprintf('%.2f', $sound->made / max(1, $sound->tries)),
                sprintf('%.2f', $easy->made / max(1, $easy->tries)),
            );
        }
    }
}

if ('rate' !== ($options['only'] ?? '')) {
    echo "\n### Stated odds and rehearsed odds\n\n";
    row('layout', 'balls', 'player', 'stated', 'of replays', 'rehearsed, 300', 'apart');
    row('---:', '---:', '---', '---:', '---:', '---:', '---:');
    $within = 0;
    for ($seed = 1; $seed <= $stated; ++$seed) {
        $level = ['club player', 'strong player', 'expert'][$seed % 3];
        $rack = randomRack(Game::NineBall, 5000 + $seed, new ExecutionErrors(...ExecutionErrors::PRESETS[$level]), true);
        // From one ball left to all nine.
        $count = 2 + $seed % 8;
        foreach (array_slice($rack->objectBalls(), 0, 9 - $count) as $ball) {
            $rack = $rack->withLayout($rack->layout->without($ball));
        }
        $planning = new Planning($rack);
        for ($block = 0; $block < 160 && $planning->step(); ++$block) {
        }
        $plan = $planning->plans(null, 1, 0)[0] ?? null;
        if (null === $plan) {
            row((string) $seed, (string) $count, $level, 'no plan', '', '', '');
            continue;
        }
        $rehearsed = PlanRehearsal::of($plan, 300, 77, true);
        $apart = 100 * abs($plan->replays->chance() - $rehearsed->chance());
        $within += $apart <= 5.0 ? 1 : 0;
        row(
            (string) $seed,
            (string) $count,
            $level,
            sprintf('%.1f %%', 100 * $plan->replays->chance()),
            (string) $plan->replays->tries,
            sprintf('%.1f %%', 100 * $rehearsed->chance()),
            sprintf('%.1f', $apart),
        );
    }
    printf("\nWithin 5 points: %d of %d.\n", $within, $stated);
}
