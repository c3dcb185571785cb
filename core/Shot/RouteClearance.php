<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Spot;

/** The balls that a shot's cue ball passes on its way, and by how much: what stands beside the route and is not touched. */
final readonly class RouteClearance
{
    /** Balls that are passed by more are not obstacles, metres: common practice. */
    private const NEAR = 0.1;
    /** How true to the route its points are, metres. */
    private const TRUE = 0.0005;

    /** @param list<array{Ball, float}> $passed each ball with the gap, metres, the nearest first */
    private function __construct(public array $passed)
    {
    }

    public static function of(SolvedShot $shot, BallSet $set): self
    {
        $points = $shot->outcome->trajectory(Ball::Cue)->points(self::TRUE);
        $moved = [$shot->choice->ball, ...$shot->disturbed()];
        $passed = [];
        foreach ($shot->layout->balls() as $ball) {
            if (Ball::Cue === $ball || \in_array($ball, $moved, true)) {
                continue;
            }
            $spot = $shot->layout->spot($ball);
            $nearest = self::nearest($points, $spot);
            $gap = $nearest - $set->diameter();
            // A ball behind the cue ball, or beside it, is left and not passed.
            if ($gap < self::NEAR && $nearest < $points[0]->distanceTo($spot) - self::TRUE) {
                $passed[] = [$ball, max(0.0, $gap)];
            }
        }
        usort($passed, static fn (array $a, array $b): int => $a[1] <=> $b[1]);

        return new self($passed);
    }

    /** @param non-empty-list<Spot> $points */
    private static function nearest(array $points, Spot $spot): float
    {
        $least = $points[0]->distanceTo($spot);
        foreach (\array_slice($points, 1) as $i => $to) {
            $from = $points[$i];
            [$dx, $dy] = [$to->x - $from->x, $to->y - $from->y];
            $square = $dx ** 2 + $dy ** 2;
            $share = $square > 0.0 ? max(0.0, min(1.0, (($spot->x - $from->x) * $dx + ($spot->y - $from->y) * $dy) / $square)) : 0.0;
            $least = min($least, hypot($from->x + $share * $dx - $spot->x, $from->y + $share * $dy - $spot->y));
        }

        return $least;
    }
}
