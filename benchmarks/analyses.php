<?php

/*
 * How long the looks of the shot desk take over fifty random layouts of nine-ball size: the computation without the page around
 * it, which adds some ten milliseconds. Median and 95th percentile; each layout's first call counts as well.
 */

declare(strict_types=1);

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PocketSides;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Odds\QuickChance;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Odds\Window;
use ZigLane\Core\Plan\PlanSearch;
use ZigLane\Core\Plan\TwoAhead;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\PositionPlay\Fan;
use ZigLane\Core\PositionPlay\LandingSearch;
use ZigLane\Core\PositionPlay\Lane;
use ZigLane\Core\PositionPlay\SpotTarget;
use ZigLane\Core\PositionPlay\Zone;
use ZigLane\Core\Reading\TableReading;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\IndirectSearch;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\LengthScale;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Tests\Chance;
use ZigLane\Tests\Table;

require dirname(__DIR__).'/vendor/autoload.php';

$chance = new Chance(50);
$errors = new ExecutionErrors();
$solver = new ShotSolver();
$scale = new LengthScale($solver->equipment);
$times = [];
$timed = static function (string $what, Closure $work) use (&$times): mixed {
    $start = hrtime(true);
    $result = $work();
    $times[$what][] = (hrtime(true) - $start) / 1e6;

    return $result;
};
$zoneFound = $offs = [];
for ($layouts = 0; $layouts < 50;) {
    $layout = (new Table())->randomLayout($chance, 9);
    $choice = new ShotChoice(
        Ball::One,
        Pocket::cases()[$chance->int(0, 5)],
        new Stroke(Tip::fractions(0.1, 0.1), $scale->speed($chance->float(1.2, 2.6)), 2.0),
    );
    try {
        $shot = $solver->solve($layout, $choice);
    } catch (CoreError) {
        continue;
    }
    if (!$shot->isMade() || null !== $shot->scratch() || [] !== $shot->disturbed()) {
        continue;
    }
    ++$layouts;
    $timed('stroke: aim, route, name', static fn () => $solver->solve($layout, $choice));
    $timed('speed in lengths, one way', static fn () => $scale->speed(2.1));
    $timed('odds: 300 tries and the window', static function () use ($shot, $solver, $errors): void {
        Trials::of($shot, $solver, $errors, 300);
        Window::of($shot, $solver);
    });
    $timed('sides of the pocket', static fn (): PocketSides => PocketSides::of($shot, $solver));
    $timed('spread: 300 tries and outlines', static function () use ($shot, $solver, $errors): void {
        $trials = Trials::of($shot, $solver, $errors, 300, 1, Ball::Two);
        $trials->outline(0.68);
        $trials->outline(0.95);
    });
    $timed('fan of nine tips', static fn () => Fan::overTips($solver, $layout, $choice));
    $timed('fan of six speeds', static fn () => Fan::overSpeeds($solver, $layout, $choice, $scale));
    $line = null;
    $lines = $timed(
        'lines of the next ball, six pockets',
        static fn (): array => array_values(array_filter(array_map(
            static fn (Pocket $pocket): ?PotModel => PotModel::find($shot->outcome->final, Ball::Two, $pocket, $solver, $errors),
            Pocket::cases(),
        ))),
    );
    if ([] !== $lines) {
        $timed('zone, one pocket, three contours', static function () use ($lines, $solver): void {
            $zone = Zone::of([$lines[0]], $solver->equipment);
            array_map($zone->rings(...), [0.7, 0.85, 0.9]);
        });
        $timed('zone, all open pockets', static fn () => Zone::of($lines, $solver->equipment));
        $timed('lane', static fn () => Lane::of($shot, $lines, 0.5, $solver));
    }
    $timed('reading of the table', static fn () => TableReading::of($layout, $solver, $errors));
    $timed(
        'chance of a pot from its window',
        static fn (): float => QuickChance::of(
            $choice,
            $shot->strike,
            $solver->simulator->rollouts($layout),
            $solver->equipment->balls,
            $errors->ordinary(),
        ),
    );
    $rack = new Rack(Game::NineBall, $layout, player: $errors);
    $timed('indirect shots', static fn () => (new IndirectSearch($rack))->find([Ball::One]));
    if ([] !== $lines && $shot->outcome->final->has(Ball::Three)) {
        $timed('zone with the ball after, on top of the zone', static function () use ($rack, $shot, $lines, $solver): void {
            Zone::ofOdds(
                $lines,
                TwoAhead::odds($rack->withLayout($shot->outcome->final), $lines, Ball::Three),
                $solver->equipment,
            )->rings(0.5);
        });
    }
    if (0 === $layouts % 3) {
        $search = new PlanSearch($rack);
        $timed('first complete plan', static fn () => $search->first());
        $candidates = $timed('ways to begin, after it', static fn (): array => $search->candidates());
        if ([] !== $candidates) {
            $timed('a block of twenty replays', static fn () => $search->block($candidates[0], 0));
        }
    }
    $timed('land here, with the sides of the pocket and a raised cue', static function () use ($layout, $shot, $solver, $errors): void {
        $search = new LandingSearch($solver, $errors);
        $search->find(
            $layout,
            Ball::One,
            $shot->choice->pocket,
            new SpotTarget($shot->outcome->final->spot(Ball::Cue)),
            2.0,
            [0.0, ...$search->sides($layout, Ball::One, $shot->choice->pocket)],
            [10.0, 20.0],
        );
    });
    $timed('land here', static function () use ($layout, $shot, $solver, $errors): void {
        (new LandingSearch($solver, $errors))->find(
            $layout,
            Ball::One,
            $shot->choice->pocket,
            new SpotTarget($shot->outcome->final->spot(Ball::Cue)),
        );
    });
}

echo "\n### The analyses of the shot desk and the planner, fifty layouts of nine balls\n\n| what | median | 95 % |\n| --- | ---: | ---: |\n";
foreach ($times as $what => $list) {
    sort($list);
    printf("| %s | %.1f ms | %.1f ms |\n", $what, $list[intdiv(count($list), 2)], $list[(int) (0.95 * (count($list) - 1))]);
}
