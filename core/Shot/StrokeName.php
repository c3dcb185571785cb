<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Motion\EventKind;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Stroke\CushionSide;
use ZigLane\Core\Stroke\CutSide;
use ZigLane\Core\Stroke\StrokeKind;
use ZigLane\Core\Table\Equipment;

/**
 * What players call a stroke, read from what the cue ball does: how it turns when it meets the object ball, and what its side does
 * at the cut and at the first cushion.
 */
final readonly class StrokeName
{
    /** Below this cut a stunned cue ball stops rather than goes aside, degrees: common practice. */
    private const STRAIGHT = 3.0;

    private function __construct(
        /** Null if no ball is met. */
        public ?StrokeKind $kind,
        /** Null without side or cut. */
        public ?CutSide $cutSide,
        /** At the first cushion after the contact; null without side or cushion. */
        public ?CushionSide $cushionSide,
        /** Spin at contact against a natural roll of the same speed: 1 rolling, 0 none, below 0 backspin. */
        public float $roll,
    ) {
    }

    public static function of(SolvedShot $shot, Equipment $equipment): self
    {
        $contact = $shot->outcome->firstContact();
        $cue = $shot->outcome->trajectory(Ball::Cue);
        if (null === $contact) {
            return new self(null, null, null, 0.0);
        }
        $just = $contact->time - 1e-9;
        $segment = $cue->segmentAt($just);
        [$vx, $vy] = $segment->velocity($just);
        [$wx, $wy] = $segment->spin($just, $equipment->balls, $equipment->table);
        $square = max($vx ** 2 + $vy ** 2, 1e-12);
        $roll = $equipment->balls->radius * ($wy * $vx - $wx * $vy) / $square;
        $cut = $shot->aim->ghost->cutDegrees;
        $kind = match (true) {
            $roll < -0.1 => StrokeKind::Draw,
            $shot->strike->height < -0.05 && $roll > 0.5 => StrokeKind::Drag,
            $roll <= 0.1 => $cut < self::STRAIGHT ? StrokeKind::Stop : StrokeKind::Stun,
            $roll < 0.8 => StrokeKind::StunRunThrough,
            $roll <= 1.05 => StrokeKind::Follow,
            default => StrokeKind::ForceFollow,
        };
        $side = $shot->strike->side;
        // A ball that leaves to the left is cut to the left: the cue ball hits its right, and left side is inside.
        $cutSide = abs($side) < 0.02 || $cut < self::STRAIGHT
            ? null
            : (($side < 0.0) === $shot->aim->ghost->cutsLeft ? CutSide::Inside : CutSide::Outside);

        return new self($kind, $cutSide, self::atCushion($shot, $contact->time, $equipment), $roll);
    }

    private static function atCushion(SolvedShot $shot, float $after, Equipment $equipment): ?CushionSide
    {
        foreach ($shot->outcome->eventsOf(Ball::Cue, EventKind::Cushion) as $event) {
            if ($event->time <= $after || null === $event->rail) {
                continue;
            }
            $segment = $shot->outcome->trajectory(Ball::Cue)->segmentAt($event->time - 1e-9);
            [$vx, $vy] = $segment->velocity($event->time - 1e-9);
            [, , $wz] = $segment->spin($event->time - 1e-9, $equipment->balls, $equipment->table);
            if (abs($wz) * $equipment->balls->radius < 0.05 * hypot($vx, $vy)) {
                return null;
            }
            // Along the cushion, the surface that touches it moves by spin against the ball's own way when the side is running.
            [$nx, $ny] = match ($event->rail) {
                Rail::Head => [-1.0, 0.0],
                Rail::Foot => [1.0, 0.0],
                Rail::Right => [0.0, -1.0],
                Rail::Left => [0.0, 1.0],
            };
            $along = $vx * $ny - $vy * $nx;
            $spun = -$wz;

            return $along * $spun < 0.0 ? CushionSide::Running : CushionSide::Reverse;
        }

        return null;
    }
}
