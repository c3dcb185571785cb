<?php

declare(strict_types=1);

namespace ZigLane\Tests;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Log\Log;
use ZigLane\Core\Log\LoggedRack;
use ZigLane\Core\Log\LoggedShot;
use ZigLane\Core\Log\Outing;
use ZigLane\Core\Log\RackKind;
use ZigLane\Core\Log\ShotKind;
use ZigLane\Core\Log\ShotResult;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Player\Biases;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Position\Side;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotDemands;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/** A player whose true errors are known, and his log: shots of every kind on random layouts, spots noted with the error of a tap. */
final class SimulatedPlayer
{
    private const PRIOR = [0.05, 0.055, 1.2, 1.2];

    /** Errors about the prior's, up to twice as large or half as small, with biases. */
    public static function errors(Randomness $random): ExecutionErrors
    {
        $factor = static fn (): float => exp(0.4 * $random->normal());

        return new ExecutionErrors(
            self::PRIOR[0] * $factor(),
            self::PRIOR[1] * $factor(),
            self::PRIOR[2] * $factor(),
            self::PRIOR[3] * $factor(),
            biases: new Biases(
                0.6 * self::PRIOR[0] * $random->normal(),
                0.8 * self::PRIOR[1] * $random->normal(),
                0.6 * self::PRIOR[2] * $random->normal(),
                0.6 * self::PRIOR[3] * $random->normal(),
            ),
        );
    }

    public static function log(ExecutionErrors $true, int $count, Randomness $random, float $measured = 0.08, int $days = 0): Log
    {
        $equipment = new Equipment();
        $solver = new ShotSolver($equipment);
        $shots = [];
        while (\count($shots) < $count) {
            $shot = self::shot(\count($shots) + 1 + 1440 * $days, $true, $equipment, $solver, $random, $measured);
            if (null !== $shot) {
                $shots[] = $shot;
            }
        }
        $rack = new LoggedRack('r1', Game::NineBall, RackKind::Tries, Layout::empty(), BallInHand::None, null, $shots);
        $prior = new ExecutionErrors(...self::PRIOR, growth: $true->growth);

        return new Log($prior, [new Outing('o1', new \DateTimeImmutable('2026-11-20'), 'back room', '', $equipment, [$rack])]);
    }

    private static function shot(
        int $number,
        ExecutionErrors $true,
        Equipment $equipment,
        ShotSolver $solver,
        Randomness $random,
        float $measured,
    ): ?LoggedShot {
        $spot = static fn (): Spot => Spot::metres(0.05 + 2.44 * $random->share(), 0.05 + 1.17 * $random->share());
        $layout = Layout::empty()->with(Ball::Cue, $spot())->with(Ball::Three, $spot())->with(Ball::Nine, $spot());
        if ([] !== (new LayoutRules($equipment))->faults($layout)) {
            return null;
        }
        $best = null;
        foreach (Pocket::cases() as $pocket) {
            $line = PotModel::find($layout, Ball::Three, $pocket, $solver, $true);
            $chance = $line?->chance($layout->spot(Ball::Cue)) ?? 0.0;
            if (null !== $line && $chance > ($best[0] ?? 0.25)) {
                $best = [$chance, $line, $pocket];
            }
        }
        if (null === $best) {
            return null;
        }
        try {
            $stroke = new Stroke(
                Tip::fractions(0.3 * (2 * $random->share() - 1), -0.35 + 0.7 * $random->share()),
                1.0 + 2.2 * $random->share(),
                2.0,
            );
            $shot = $solver->aimed($layout, new ShotChoice(Ball::Three, $best[2], $stroke, $best[1]->asideMetres()));
            $demands = ShotDemands::ofAimed($layout, $shot, $equipment);
        } catch (CoreError) {
            return null;
        }
        $tap = static fn (Spot $at): Spot => Spot::metres($at->x + $measured * $random->normal(), $at->y + $measured * $random->normal());
        try {
            $strike = $true->in($shot->strike, $demands)->disturb($shot->strike, $random, $equipment->balls->radius);
        } catch (CoreError) {
            $result = new ShotResult(false, null, false, null, true, true, false, Layout::empty(), $measured);

            return self::logged($number, $equipment, $layout, $best[2], $shot->strike, $result);
        }
        $ending = $solver->simulator->rollouts($layout)->play($strike);
        $isMade = $ending->pocketOf(Ball::Three) === $best[2];
        $after = Layout::empty();
        foreach ($ending->final->balls() as $ball) {
            $after = $after->with($ball, $tap($ending->final->spot($ball)));
        }
        $isLeft = $strike->direction + $strike->squirt() > $shot->strike->direction + $shot->strike->squirt();
        $missed = $isMade || $random->share() < 0.3 ? null : ($isLeft ? Side::Right : Side::Left);
        $result = new ShotResult(
            $isMade,
            $missed,
            $ending->isScratch(),
            $ending->pocketOf(Ball::Cue),
            $ending->isScratch(),
            false,
            null,
            $after,
            $measured,
        );

        return self::logged($number, $equipment, $layout, $best[2], $shot->strike, $result);
    }

    private static function logged(
        int $number,
        Equipment $equipment,
        Layout $before,
        Pocket $pocket,
        \ZigLane\Core\Motion\Strike $meant,
        ShotResult $result,
    ): LoggedShot {
        $at = new \DateTimeImmutable('2026-11-20T19:00:00Z');

        return new LoggedShot(
            's'.$number,
            $at->modify(\sprintf('%+d minutes', $number)),
            ShotKind::Pot,
            $equipment,
            $before,
            Ball::Three,
            $pocket,
            $meant,
            null,
            null,
            null,
            null,
            null,
            $result,
        );
    }
}
