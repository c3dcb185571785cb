<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\Leg;
use ZigLane\Core\Plan\Risks;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\CushionPoint;
use ZigLane\Core\Shot\ShotSolver;

/** An option as the leg of a plan: the last of it, since what comes after it hangs on what it leaves. */
final class OptionLeg
{
    /**
     * @param Layout $before the balls before the shot, with the cue ball
     *
     * @return Leg|null null where it plays no shot, or the shot can no longer be solved
     */
    public static function of(Rack $rack, Judged $judged, Layout $before, int $number = 1): ?Leg
    {
        $choice = $judged->way->choice;
        if (null === $choice) {
            return null;
        }
        try {
            $shot = (new ShotSolver($rack->equipment))->solve($before, $choice);
        } catch (CoreError) {
            return null;
        }
        $tally = $judged->tally;
        $isAttack = WayKind::Attack === $judged->way->kind;

        return new Leg(
            $number,
            $choice,
            $before,
            $shot->strike->direction,
            null === $choice->direction ? $shot->aim->ghost->cutDegrees : null,
            null === $choice->direction ? $shot->aim->ghost->at : null,
            CushionPoint::of($shot),
            null === $shot->scratch() ? $shot->outcome->trajectory(Ball::Cue)->last() : null,
            $isAttack ? $tally->share($tally->made) : null,
            $isAttack ? $tally->share($tally->position) : null,
            null,
            null,
            0,
            new Risks($tally->share($tally->scratches)),
            null,
            [],
            null,
            $judged->reasons,
        );
    }
}
