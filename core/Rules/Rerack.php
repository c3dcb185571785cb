<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/**
 * Straight pool when a rack has been run: where the fifteenth ball and the cue ball come to lie for the next (WPA, straight pool, the
 * table of re-racks, from memory). A ball that overlaps the outline of the rack is in it.
 *
 * | fifteenth ball | cue ball in the rack | cue ball elsewhere | cue ball on the head spot |
 * | --- | --- | --- | --- |
 * | in the rack | all fifteen racked, cue ball in hand | to the head spot, cue ball stays | to the centre spot, cue ball stays |
 * | pocketed with the fourteenth | all fifteen racked, cue ball in hand | all fifteen racked, cue ball stays | the same |
 * | behind the head string, not on the spot | stays, cue ball to the head spot | both stay | both stay |
 * | elsewhere | stays, cue ball in hand | both stay | both stay |
 * | on the head spot | stays, cue ball to the centre spot | both stay | |
 *
 * In hand is behind the head string.
 */
final readonly class Rerack
{
    /** Nearer to a spot than this a ball is on it, metres. */
    private const ON_SPOT = 0.02;

    /** @param bool $isWhole all fifteen are racked: there is no break ball */
    private function __construct(public Layout $layout, public BallInHand $inHand, public bool $isWhole)
    {
    }

    /** The next rack; null where more than one object ball is left, or no cue ball lies there. */
    public static function of(Layout $left, Equipment $equipment): ?self
    {
        if (!$left->has(Ball::Cue) || $left->count() > 2) {
            return null;
        }
        $head = Spot::diamonds(2.0, 2.0, $equipment->table);
        $centre = Spot::diamonds(4.0, 2.0, $equipment->table);
        $cue = $left->spot(Ball::Cue);
        $last = array_values(array_filter($left->balls(), static fn (Ball $ball): bool => Ball::Cue !== $ball))[0] ?? null;
        $cueIsIn = Racking::isInOutline($cue, $equipment);
        $cueIsOnHead = $cue->distanceTo($head) < self::ON_SPOT;
        $spot = null === $last ? null : $left->spot($last);
        if (null === $last || null === $spot || (Racking::isInOutline($spot, $equipment) && $cueIsIn)) {
            $whole = Racking::whole($equipment);

            return $cueIsIn ? new self($whole, BallInHand::Kitchen, true) : new self($whole->with(Ball::Cue, $cue), BallInHand::None, true);
        }
        $on = Layout::empty()->with(Ball::Cue, $cue);
        $inHand = BallInHand::None;
        if (Racking::isInOutline($spot, $equipment)) {
            $spot = $cueIsOnHead ? $centre : self::freeNear($head, $cue, $equipment);
        } elseif ($cueIsIn) {
            $isOnHead = $spot->distanceTo($head) < self::ON_SPOT;
            if ($isOnHead || $spot->x <= $head->x) {
                $on = $on->with(Ball::Cue, $isOnHead ? $centre : $head);
            } else {
                $on = $on->without(Ball::Cue);
                $inHand = BallInHand::Kitchen;
            }
        }
        $layout = Racking::fourteen($on->with($last, $spot), $equipment);

        return null === $layout ? null : new self($layout, $inHand, false);
    }

    /** A spot, or the nearest place beside it that a ball does not take. */
    private static function freeNear(Spot $spot, Spot $taken, Equipment $equipment): Spot
    {
        $reach = $equipment->balls->diameter() + 0.001;

        return $spot->distanceTo($taken) >= $reach ? $spot : Spot::metres($taken->x + $reach, $spot->y);
    }
}
