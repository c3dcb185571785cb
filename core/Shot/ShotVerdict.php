<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Motion\EventKind;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Table\TableGeometry;

/** What became of a called shot as it is meant, and of a miss, what came in between: read from the events of its simulation. */
final class ShotVerdict
{
    public static function of(SolvedShot $shot, TableGeometry $geometry): Fact
    {
        $scratch = $shot->scratch();
        if ($shot->choice->isSafety) {
            $first = $shot->outcome->firstContact();

            return null === $first
                ? new Fact('verdict.notReached', ['ball' => $shot->choice->ball, 'scratch' => $scratch])
                : new Fact('verdict.safety', ['ball' => Ball::Cue === $first->ball ? $first->other : $first->ball, 'scratch' => $scratch]);
        }
        $values = ['ball' => $shot->choice->ball, 'pocket' => $shot->choice->pocket, 'scratch' => $scratch];
        if ($shot->isMade()) {
            $moved = $shot->disturbed();

            return new Fact(null === $scratch && [] !== $moved ? 'verdict.madeMoving' : 'verdict.made', $values + ['moved' => $moved]);
        }
        $blocker = $shot->blocker();

        return match (true) {
            null !== $blocker => new Fact('verdict.inTheWay', $values + ['blocker' => $blocker]),
            $shot->touchesCushionFirst() => new Fact('verdict.cushionFirst', $values),
            null === $shot->outcome->firstContact() => new Fact('verdict.notReached', $values),
            default => self::miss($shot, $geometry),
        };
    }

    private static function miss(SolvedShot $shot, TableGeometry $geometry): Fact
    {
        $choice = $shot->choice;
        $values = ['ball' => $choice->ball, 'pocket' => $choice->pocket, 'scratch' => $shot->scratch()];
        $other = $shot->outcome->pocketOf($choice->ball);
        if (null !== $other) {
            return new Fact('verdict.otherPocket', $values + ['other' => $other]);
        }
        foreach ($shot->outcome->eventsOf($choice->ball) as $event) {
            if (EventKind::Ball === $event->kind && !$event->involves(Ball::Cue)) {
                return new Fact('verdict.meetsBall', $values + ['met' => $event->ball === $choice->ball ? $event->other : $event->ball]);
            }
            if (EventKind::Jaw === $event->kind && $event->pocket === $choice->pocket) {
                return new Fact('verdict.rattles', $values);
            }
            if (EventKind::Cushion === $event->kind) {
                return new Fact('verdict.railFirst', $values + ['rail' => $event->rail]);
            }
        }
        $short = $shot->outcome->trajectory($choice->ball)->last()->distanceTo($geometry->at($choice->pocket)->mouth());

        return new Fact('verdict.stopsShort', $values + ['byMetres' => $short]);
    }
}
