<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/**
 * Straight pool to the end of a rack: which ball is left as the break ball, which goes just before it (the key ball), and in what rough
 * order the others go. Common practice: the break ball lies beside the rack with a way to a foot corner, the key ball near where the
 * cue ball must be for it; balls far from all others early, neighbours together.
 */
final class StraightRun
{
    /** How far from the middle of the rack a break ball lies, metres. */
    private const NEAREST = 0.19;
    private const FARTHEST = 0.5;
    /** The cut with which a break shot goes well into the rack, degrees. */
    private const CUT = 40.0;
    /** Pots from which the first ball is chosen. */
    private const LOOKED = 6;

    /**
     * @param list<array{Ball, Ball}> $before a player's wish
     * @param int                     $window how many of the next balls may change places; 0: as many as can be afforded
     */
    public static function order(Rack $rack, array $before = [], int $window = 0): Order
    {
        $balls = $rack->objectBalls();
        $break = self::besideRack($rack->layout, $rack->equipment) ?? (\count($balls) > 1 ? self::breakBall($rack) : null);
        $rest = array_values(array_filter($balls, static fn (Ball $ball): bool => $ball !== $break));
        if ([] === $rest) {
            return Order::aboutInTurn($balls, null, $before, $window);
        }
        $key = null === $break ? null : self::keyBall($rack, $break, $rest);
        $first = array_values(array_filter($rest, static fn (Ball $ball): bool => $ball !== $key));
        $sequence = self::neighbours($rack, $rack->layout, $first);

        return Order::aboutInTurn(null === $key ? $sequence : [...$sequence, $key], $break, $before, $window, null !== $key);
    }

    /** The ball that breaks the next rack best, or null where none lies beside the rack with a way to a foot corner. */
    public static function breakBall(Rack $rack): ?Ball
    {
        return self::breakBalls($rack)[0] ?? null;
    }

    /** @return list<Ball> those that lie beside the rack with a way to a foot corner, the best break ball first */
    public static function breakBalls(Rack $rack): array
    {
        $middle = self::rackMiddle($rack);
        $found = [];
        foreach ($rack->objectBalls() as $ball) {
            $spot = $rack->layout->spot($ball);
            $far = $spot->distanceTo($middle);
            if ($far < self::NEAREST || $far > self::FARTHEST) {
                continue;
            }
            foreach ([Pocket::FootRight, Pocket::FootLeft] as $pocket) {
                $mouth = $rack->equipment->geometry->at($pocket)->mouth();
                $line = $spot->directionTo($mouth);
                // The rack must lie to the side of the ball's way, so that a cut sends the cue ball into it.
                $aside = abs(rad2deg(atan2(sin($spot->directionTo($middle) - $line), cos($spot->directionTo($middle) - $line))));
                $worth = max(0.0, 1 - abs($aside - 100) / 60) / (0.4 + $spot->distanceTo($mouth));
                if ($worth > 0.0) {
                    $found[$ball->value] = max($worth, $found[$ball->value] ?? 0.0);
                }
            }
        }
        arsort($found);

        return array_map(Ball::from(...), array_keys($found));
    }

    /** The ball beside fourteen racked ones; null where there is none. */
    public static function besideRack(Layout $racked, Equipment $equipment): ?Ball
    {
        $inRack = Racking::racked($racked, $equipment);
        $beside = array_filter(
            null === $inRack ? [] : $racked->balls(),
            static fn (Ball $ball): bool => Ball::Cue !== $ball && !\in_array($ball, $inRack ?? [], true),
        );

        return array_values($beside)[0] ?? null;
    }

    /** The key ball: the one from which the cue ball comes to the break ball most simply; null with nothing but the break ball. */
    public static function key(Rack $rack, Ball $break): ?Ball
    {
        $rest = array_values(array_filter($rack->objectBalls(), static fn (Ball $ball): bool => $ball !== $break));

        return [] === $rest ? null : self::keyBall($rack, $break, $rest);
    }

    /** @param non-empty-list<Ball> $rest */
    private static function keyBall(Rack $rack, Ball $break, array $rest): Ball
    {
        $spot = self::breakSpot($rack, $break);
        usort(
            $rest,
            static fn (Ball $a, Ball $b): int => $rack->layout->spot($a)->distanceTo($spot) <=> $rack->layout->spot($b)->distanceTo($spot),
        );

        return $rest[0];
    }

    /** About where the cue ball should lie for the break shot. */
    private static function breakSpot(Rack $rack, Ball $break): Spot
    {
        $spot = $rack->layout->spot($break);
        $pocket = $spot->y < 0.5 * $rack->equipment->table->width() ? Pocket::FootRight : Pocket::FootLeft;
        $line = $spot->directionTo($rack->equipment->geometry->at($pocket)->mouth());
        $sign = $spot->y < self::rackMiddle($rack)->y ? -1 : 1;

        return $spot->towards($line + \M_PI - $sign * deg2rad(self::CUT), 0.45);
    }

    private static function rackMiddle(Rack $rack): Spot
    {
        $foot = Racking::footSpot($rack->equipment->table);

        return Spot::metres($foot->x + 4 * $rack->equipment->balls->radius * \sqrt(3) * 2 / 3, $foot->y);
    }

    /**
     * From the ball that is the easiest pot from the cue ball on always the nearest: neighbours together.
     *
     * @param list<Ball> $balls
     * @param Ball|null  $next  the first; null for the easiest pot from the cue ball
     *
     * @return list<Ball>
     */
    public static function neighbours(Rack $rack, Layout $layout, array $balls, ?Ball $next = null): array
    {
        $next ??= $layout->has(Ball::Cue) ? self::opener($rack, $layout, $balls) : null;
        $at = $layout->has(Ball::Cue) ? $layout->spot(Ball::Cue) : null;
        $sequence = [];
        // Ends: each round takes a ball away.
        while ([] !== $balls) {
            usort($balls, static fn (Ball $a, Ball $b): int => null === $at
                ? $a->value <=> $b->value
                : $layout->spot($a)->distanceTo($at) <=> $layout->spot($b)->distanceTo($at));
            $next ??= $balls[0];
            $sequence[] = $next;
            $at = $layout->spot($next);
            $balls = array_values(array_filter($balls, static fn (Ball $ball): bool => $ball !== $next));
            $next = null;
        }

        return $sequence;
    }

    /**
     * The easiest pot from the cue ball whose ways are free; null where nothing goes straight.
     *
     * @param list<Ball> $balls
     */
    private static function opener(Rack $rack, Layout $layout, array $balls): ?Ball
    {
        return (new Leave($rack, new ShotSolver($rack->equipment), self::LOOKED))->surest($layout, $balls)[0] ?? null;
    }
}
