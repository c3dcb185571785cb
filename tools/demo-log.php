<?php

/*
 * Makes demo/player.log.json: six weeks of the demo player's shots, by simulation; with --pupil demo/mira.log.json, fewer shots of a pupil
 * of his, who aims a little to the right and hits too soft. The true errors are those below, not those of the preset that the odds are
 * stated from: what the program finds in the log can be held against them (docs/log.md). Prints the log.
 */

declare(strict_types=1);

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Format\LogFile;
use ZigLane\Core\Log\Continuation;
use ZigLane\Core\Log\Log;
use ZigLane\Core\Log\LoggedRack;
use ZigLane\Core\Log\LoggedShot;
use ZigLane\Core\Log\Outing;
use ZigLane\Core\Log\RackKind;
use ZigLane\Core\Log\RackResult;
use ZigLane\Core\Log\ShotKind;
use ZigLane\Core\Log\ShotResult;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Plan\Leave;
use ZigLane\Core\Plan\ThreeAhead;
use ZigLane\Core\Player\Biases;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Position\Side;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\BallsOn;
use ZigLane\Core\Rules\BreakShot;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotDemands;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

require dirname(__DIR__).'/vendor/autoload.php';

const MEASURED = 0.03;
const GOOD = 0.6;

$isPupil = in_array('--pupil', $argv, true);
$most = $isPupil ? 120 : 400;
$preset = new ExecutionErrors(...ExecutionErrors::PRESETS['club player']);
$true = $isPupil
    ? new ExecutionErrors(0.07, 0.075, 1.4, 1.6, biases: new Biases(-0.03, -0.09, 0.0, 0.0))
    : new ExecutionErrors(0.062, 0.07, 1.3, 1.5, biases: new Biases(0.02, 0.07, 0.0, 0.4));
$equipment = new Equipment();
$solver = new ShotSolver($equipment);
$random = new Randomness($isPupil ? 20264 : 20261);
$rules = new LayoutRules($equipment);

$tap = static function (Layout $layout) use ($random, $rules): Layout {
    do {
        $noted = Layout::empty();
        foreach ($layout->balls() as $ball) {
            $at = $layout->spot($ball);
            $noise = Ball::Cue === $ball ? MEASURED : 0.0;
            $noted = $noted->with($ball, Spot::metres($at->x + $noise * $random->normal(), $at->y + $noise * $random->normal()));
        }
    } while ([] !== $rules->faults($noted));

    return $noted;
};
$begin = static function () use ($random, $equipment, $preset): Rack {
    $break = BreakShot::play(Game::NineBall, $equipment, $preset, new Randomness((int) (1e6 * $random->share())));
    $layout = $break->rackAfter(Game::NineBall, $equipment, $preset)->layout;
    // A drill of the last balls as often as a whole rack.
    $keep = 4 + (int) floor(6 * $random->share());
    $balls = array_values(array_filter(Game::NineBall->balls(), $layout->has(...)));
    foreach (array_slice($balls, 0, max(0, count($balls) - $keep)) as $ball) {
        $layout = $layout->without($ball);
    }
    while (!$layout->has(Ball::Cue) || [] !== (new LayoutRules($equipment))->faults($layout)) {
        $layout = $layout->with(Ball::Cue, Spot::metres(0.1 + 2.3 * $random->share(), 0.1 + 1.0 * $random->share()));
    }

    return new Rack(Game::NineBall, $layout, $equipment, $preset);
};

$outings = [];
$count = 0;
for ($day = 0; $count < $most; ++$day) {
    $date = (new DateTimeImmutable('2026-10-17', new DateTimeZone('UTC')))->modify('+'.(2 * $day + intdiv($day, 3)).' days');
    $racks = [];
    $before = $count;
    for ($r = 0; $count < min($most, $before + 22); ++$r) {
        do {
            $rack = $begin();
        } while (null === (new ThreeAhead($rack, $solver))->next($rack->layout, 1));
        $start = $rack;
        $shots = [];
        $end = null;
        $at = $date->modify('+'.(19 * 60 + 25 * $r).' minutes');
        for ($misses = 0; null === $end && count($shots) < 16;) {
            $leave = new Leave($rack, $solver, 1, 0.02);
            if (!$rack->layout->has(Ball::Cue)) {
                do {
                    $placed = $rack->layout->with(Ball::Cue, Spot::metres(0.1 + 2.3 * $random->share(), 0.1 + 1.0 * $random->share()));
                } while ([] !== $rules->faults($placed) || $leave->toOther($placed, null) < 0.5);
                $rack = $rack->inHand(BallInHand::None)->withLayout($placed);
            }
            $option = (new ThreeAhead($rack, $solver))->next($rack->layout, 1);
            if (null === $option) {
                $end = RackResult::Hooked;
                break;
            }
            $choice = $option->choice;
            $solved = $solver->solve($rack->layout, $choice);
            $trials = Trials::of($solved, $solver, $preset, 150, $count + 1);
            $next = static fn (Layout $left): float => count(BallsOn::of(Game::NineBall, $left, null)) < 1 || !$left->has(Ball::Cue)
                ? 0.0 : $leave->toOther($left, null);
            $isLast = 1 === count($rack->objectBalls());
            $reached = array_filter(
                $trials->pots,
                static fn (Ending $ending): bool => !$ending->isScratch() && $next($ending->final) >= GOOD,
            );
            $demands = ShotDemands::of($solver, $rack->layout, $option->aimed(), $true->growth);
            $result = null;
            try {
                $strike = $true->in($solved->strike, $demands)->disturb($solved->strike, $random, $equipment->balls->radius);
                $ending = $solver->simulator->rollouts($rack->layout)->play($strike);
            } catch (CoreError) {
                $result = new ShotResult(false, null, false, null, false, true, null, $rack->layout, MEASURED);
                $ending = null;
            }
            if (null !== $ending) {
                $isMade = $ending->pocketOf($choice->ball) === $choice->pocket;
                $isLeft = $strike->direction + $strike->squirt() > $solved->strike->direction + $solved->strike->squirt();
                $isFoul = $ending->isScratch() || $ending->first !== BallsOn::of(Game::NineBall, $rack->layout, null)[0];
                $after = $tap($ending->final);
                $fell = array_values(array_filter(
                    $rack->objectBalls(),
                    static fn (Ball $ball): bool => $ball !== $choice->ball && !$after->has($ball),
                ));
                $result = new ShotResult(
                    $isMade,
                    $isMade || $random->share() < 0.2 ? null : ($isLeft ? Side::Right : Side::Left),
                    $ending->isScratch(),
                    $ending->pocketOf(Ball::Cue),
                    $isFoul,
                    false,
                    $isLast || !$isMade || $ending->isScratch() ? null : $next($ending->final) >= GOOD,
                    $after,
                    MEASURED,
                    $fell,
                );
            }
            $make = $trials->chance();
            $guess = $random->share() < 0.7 ? round(min(0.98, max(0.1, $make + 0.09 + 0.08 * $random->normal())), 2) : null;
            ++$count;
            $at = $at->modify('+'.(50 + (int) floor(60 * $random->share())).' seconds');
            $shots[] = new LoggedShot(
                's'.$count, $at, ShotKind::Pot, $equipment, $rack->layout, $choice->ball, $choice->pocket, $solved->strike,
                $solved->outcome->final->has(Ball::Cue) ? $solved->outcome->final->spot(Ball::Cue) : null,
                round($make, 4), $isLast ? null : round(count($reached) / $trials->count, 4), null, $guess, $result,
            );
            try {
                $following = Continuation::of($rack, $choice->ball, ShotKind::Pot, $result);
            } catch (CoreError) {
                $end = RackResult::Left;
                break;
            }
            if ($following->isOver) {
                $end = $following->end;
            } elseif (!$following->goesOn && ++$misses > 2) {
                $end = $following->end;
            }
            // The next shot is from where the balls really lie.
            $rack = $following->rack;
        }
        $racks[] = new LoggedRack(
            'r'.$day.'-'.$r, Game::NineBall, RackKind::Practice, $start->layout, BallInHand::None,
            $end ?? RackResult::Left, $shots,
        );
        fwrite(\STDERR, sprintf("%s %d: %d shots, %s\n", $date->format('Y-m-d'), $r, count($shots), $end->value ?? 'left'));
    }
    $outings[] = new Outing(
        'o'.$day,
        $date,
        0 === $day % 3 ? 'league room' : 'back room',
        0 === $day ? 'Made by simulation from stated errors.' : '',
        $equipment,
        $racks,
    );
}
echo LogFile::write(new Log($preset, $outings)), "\n";
