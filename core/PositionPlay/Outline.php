<?php

declare(strict_types=1);

namespace ZigLane\Core\PositionPlay;

use ZigLane\Core\Table\Spot;

/**
 * Outlines with fewer points: those are left out that lie so near to the line between others that nobody sees it
 * (Douglas and Peucker 1973). Of n points it costs n log n in the usual case, n^2 at the worst.
 */
final class Outline
{
    /**
     * @param list<Spot> $ring   the last point joined to the first
     * @param float      $within metres that it may lie aside
     *
     * @return list<Spot> at least three where there were as many
     */
    public static function thinned(array $ring, float $within): array
    {
        $count = \count($ring);
        if ($count < 5) {
            return $ring;
        }
        // The ring is parted at the point that is farthest from its first, so that each half is an open line.
        $far = 1;
        foreach ($ring as $i => $spot) {
            $far = $spot->distanceTo($ring[0]) > $ring[$far]->distanceTo($ring[0]) ? $i : $far;
        }
        $kept = [0 => true, $far => true];
        $closed = [...$ring, $ring[0]];
        $parts = [[0, $far], [$far, $count]];
        // Ends: a part is halved or left.
        while ([] !== $parts) {
            [$from, $to] = array_pop($parts);
            $worst = null;
            $off = $within;
            for ($i = $from + 1; $i < $to; ++$i) {
                $distance = self::aside($closed[$i], $closed[$from], $closed[$to]);
                if ($distance > $off) {
                    [$worst, $off] = [$i, $distance];
                }
            }
            if (null !== $worst) {
                $kept[$worst] = true;
                array_push($parts, [$from, $worst], [$worst, $to]);
            }
        }
        ksort($kept);
        $thin = array_map(static fn (int $i): Spot => $ring[$i], array_keys($kept));

        return \count($thin) < 3 ? $ring : $thin;
    }

    /** Distance of a point from the piece of a line between two others. */
    private static function aside(Spot $point, Spot $from, Spot $to): float
    {
        $dx = $to->x - $from->x;
        $dy = $to->y - $from->y;
        $length = $dx * $dx + $dy * $dy;
        $part = $length > 0.0 ? (($point->x - $from->x) * $dx + ($point->y - $from->y) * $dy) / $length : 0.0;
        $part = max(0.0, min(1.0, $part));

        return hypot($point->x - $from->x - $part * $dx, $point->y - $from->y - $part * $dy);
    }
}
