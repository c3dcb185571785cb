<?php

declare(strict_types=1);

namespace ZigLane\Core\Stroke;

use ZigLane\Core\Motion\EventKind;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Shot\SolvedShot;
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
        /** stop, stun, stun run-through, follow, force follow, draw or drag; empty if no ball is met. */
        public string $height,
        /** inside or outside of the cut; empty without side or cut. */
        public string $cutSide,
        /** running or reverse at the first cushion after the contact; empty without side or cushion. */
        public string $cushionSide,
        /** Spin at contact against a natural roll of the same speed: 1 rolling, 0 none, below 0 backspin. */
        public float $roll,
    ) {
    }

    public static function of(SolvedShot $shot, Equipment $equipment): self
    {
        $contact = $shot->outcome->firstContact();
        $cue = $shot->outcome->trajectory(Ball::Cue);
        if (null === $contact) {
            return new self('', '', '', 0.0);
        }
        $just = $contact->time - 1e-9;
        $segment = $cue->segmentAt($just);
        [$vx, $vy] = $segment->velocity($just);
        [$wx, $wy] = $segment->spin($just, $equipment->balls, $equipment->table);
        $square = max($vx ** 2 + $vy ** 2, 1e-12);
        $roll = $equipment->balls->radius * ($wy * $vx - $wx * $vy) / $square;
        $cut = $shot->aim->ghost->cutDegrees;
        $height = match (true) {
            $roll < -0.1 => 'draw',
            $shot->strike->height < -0.05 && $roll > 0.5 => 'drag',
            $roll <= 0.1 => $cut < self::STRAIGHT ? 'stop' : 'stun',
            $roll < 0.8 => 'stun run-through',
            $roll <= 1.05 => 'follow',
            default => 'force follow',
        };
        $side = $shot->strike->side;
        // A ball that leaves to the left is cut to the left: the cue ball hits its right, and left side is inside.
        $cutSide = abs($side) < 0.02 || $cut < self::STRAIGHT ? '' : (($side < 0.0) === $shot->aim->ghost->cutsLeft ? 'inside' : 'outside');

        return new self($height, $cutSide, self::atCushion($shot, $contact->time, $equipment), $roll);
    }

    private static function atCushion(SolvedShot $shot, float $after, Equipment $equipment): string
    {
        foreach ($shot->outcome->eventsOf(Ball::Cue, EventKind::Cushion) as $event) {
            if ($event->time <= $after || null === $event->rail) {
                continue;
            }
            $segment = $shot->outcome->trajectory(Ball::Cue)->segmentAt($event->time - 1e-9);
            [$vx, $vy] = $segment->velocity($event->time - 1e-9);
            [, , $wz] = $segment->spin($event->time - 1e-9, $equipment->balls, $equipment->table);
            if (abs($wz) * $equipment->balls->radius < 0.05 * hypot($vx, $vy)) {
                return '';
            }
            // Along the cushion, the surface that touches it moves by spin against the ball's own way when the side is running.
            [$nx, $ny] = match ($event->rail->value) {
                'head' => [-1.0, 0.0],
                'foot' => [1.0, 0.0],
                'right' => [0.0, -1.0],
                default => [0.0, 1.0],
            };
            $along = $vx * $ny - $vy * $nx;
            $spun = -$wz;

            return $along * $spun < 0.0 ? 'running' : 'reverse';
        }

        return '';
    }

    /** In one phrase: "follow, outside side, running". */
    public function spoken(): string
    {
        return implode(', ', array_filter([
            $this->height,
            '' === $this->cutSide ? '' : $this->cutSide.' side',
            '' === $this->cushionSide ? '' : $this->cushionSide.' at the cushion',
        ]));
    }
}
