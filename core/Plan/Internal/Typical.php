<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan\Internal;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\Order;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Referee;
use ZigLane\Core\Rules\Spotting;
use ZigLane\Core\Rules\Turn;
use ZigLane\Core\Rules\Verdict;
use ZigLane\Core\Shot\ShotDemands;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;
use ZigLane\Core\Table\Equipment;

/**
 * How a shot typically ends when the player goes on: of many tries with his errors those that leave the balls that most of them leave, and
 * of these the one whose cue ball lies nearest to all others (the medoid). A later leg that begins there is as hard as it mostly is; one
 * that begins where a shot without errors ends is easier.
 *
 * @internal
 */
final readonly class Typical
{
    private function __construct(public Layout $layout, public Verdict $verdict)
    {
    }

    /** Null where no try goes on. */
    public static function of(
        SolvedShot $shot,
        ShotSolver $solver,
        ExecutionErrors $player,
        Referee $referee,
        Turn $turn,
        int $tries,
        int $seed,
    ): ?self {
        $random = new Randomness($seed);
        $rollouts = $solver->simulator->rollouts($shot->layout);
        $errors = $player->in($shot->strike, ShotDemands::ofSolved($shot, $solver->equipment, $player->growth));
        $choice = $shot->choice;
        $sets = [];
        for ($try = 0; $try < $tries; ++$try) {
            try {
                $ending = $rollouts->play($errors->disturb($shot->strike, $random, $solver->equipment->balls->radius));
            } catch (CoreError) {
                continue;
            }
            $verdict = $referee->judge($shot->layout, $turn, $ending, $choice->ball, $choice->pocket, $shot->strike);
            if (($verdict->goesOn || true === $verdict->isWon) && $ending->final->has(Ball::Cue)) {
                $sets[self::setOf($ending, $verdict)][] = [$ending, $verdict];
            }
        }
        if ([] === $sets) {
            return null;
        }
        usort($sets, static fn (array $a, array $b): int => \count($b) <=> \count($a));
        [$ending, $verdict] = self::medoid($sets[0]);

        return new self(Spotting::back($ending->final, $verdict->spots, $solver->equipment), $verdict);
    }

    /** As it ends without errors; null where the player does not go on so. */
    public static function meant(SolvedShot $shot, Referee $referee, Turn $turn, Equipment $equipment): ?self
    {
        $ending = Ending::of($shot->outcome);
        $verdict = $referee->judge($shot->layout, $turn, $ending, $shot->choice->ball, $shot->choice->pocket, $shot->strike);

        return $verdict->goesOn || true === $verdict->isWon
            ? new self(Spotting::back($ending->final, $verdict->spots, $equipment), $verdict)
            : null;
    }

    private static function setOf(Ending $ending, Verdict $verdict): string
    {
        return Order::maskOf($ending->final)
            .' '
            .\count($verdict->spots)
            .' '
            .($verdict->group->value ?? '')
            .(true === $verdict->isWon ? ' won' : '');
    }

    /**
     * @param non-empty-list<array{Ending, Verdict}> $tries
     *
     * @return array{Ending, Verdict}
     */
    private static function medoid(array $tries): array
    {
        $best = 0;
        $least = \INF;
        foreach ($tries as $i => [$ending]) {
            $far = 0.0;
            foreach ($tries as [$other]) {
                $far += $ending->final->spot(Ball::Cue)->distanceTo($other->final->spot(Ball::Cue));
            }
            if ($far < $least) {
                [$best, $least] = [$i, $far];
            }
        }

        return $tries[$best];
    }
}
