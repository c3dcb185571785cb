<?php

declare(strict_types=1);

namespace ZigLane\Core\Camera;

/**
 * Proposes where the four corner pockets are in a picture of a table: the cloth is the most frequent colour about the middle, its sides are
 * the four longest edges of its hull, and a corner is the dark near to where two of them meet. Which corner is which cannot be seen:
 * the picture is taken to be from the right long rail, or from the head where the table is seen along. A person says whether it is right.
 *
 * Cost: about a tenth of a second.
 */
final class CornerFinder
{
    /** Width that the picture is looked at in, pixels. */
    private const WIDE = 240;
    /** Part of the picture about its middle in which the cloth's colour is looked for. */
    private const MIDDLE = [0.25, 0.75];
    /** Shares of red and green: of what is counted together, and as far as cloth may differ; and how dark it may be beside the usual. */
    private const BIN = 0.02;
    private const ALIKE = 0.045;
    private const DARK = 0.42;
    /** Of the picture that the cloth covers at least; edges that turn by less are one; degrees. */
    private const LEAST = 0.08;
    private const STRAIGHT = 7.0;
    /** A hole is looked for so far about a corner, and is darker than this share of the cloth. */
    private const ABOUT = 0.05;
    private const HOLE = 0.4;

    /** @return list<array{float, float}>|null pixels, in the order of Finder::CORNERS; null where no table is seen */
    public static function find(\GdImage $image): ?array
    {
        $scale = self::WIDE / imagesx($image);
        $small = imagescale($image, self::WIDE, max(1, (int) round($scale * imagesy($image))), \IMG_BILINEAR_FIXED);
        if (false === $small) {
            return null;
        }
        [$width, $height] = [imagesx($small), imagesy($small)];
        $cloth = self::cloth($small, $width, $height);
        $area = self::largest(self::mask($small, $width, $height, $cloth), $width);
        if ([] === $area || \count($area) < self::LEAST * $width * $height) {
            return null;
        }
        $sides = self::sides(self::hull($area, $width));
        if (null === $sides) {
            return null;
        }
        $corners = [];
        foreach ($sides as $i => $side) {
            $corner = self::meeting($sides[($i + 3) % 4], $side);
            $hole = null === $corner ? null : self::hole($small, $corner, $cloth[2]);
            if (null === $hole) {
                return null;
            }
            $corners[] = [$hole[0] / $scale, $hole[1] / $scale];
        }

        return self::named($corners);
    }

    /** @return array{float, float, float} shares of red and green, and the usual brightness (sum of three) */
    private static function cloth(\GdImage $image, int $width, int $height): array
    {
        $bins = [];
        for ($y = (int) (self::MIDDLE[0] * $height); $y < self::MIDDLE[1] * $height; ++$y) {
            for ($x = (int) (self::MIDDLE[0] * $width); $x < self::MIDDLE[1] * $width; ++$x) {
                [$red, $green, $sum] = self::colour($image, $x, $y);
                $key = (int) ($red / self::BIN) << 8 | (int) ($green / self::BIN);
                $bins[$key][] = [$red, $green, $sum];
            }
        }
        usort($bins, static fn (array $a, array $b): int => \count($b) <=> \count($a));
        $most = $bins[0];
        $sums = array_column($most, 2);
        sort($sums);

        return [
            array_sum(array_column($most, 0)) / \count($most), array_sum(array_column($most, 1)) / \count($most),
            $sums[intdiv(\count($sums), 2)],
        ];
    }

    /**
     * @param array{float, float, float} $cloth
     *
     * @return array<int, true> keyed by y * width + x
     */
    private static function mask(\GdImage $image, int $width, int $height, array $cloth): array
    {
        $mask = [];
        for ($y = 0; $y < $height; ++$y) {
            for ($x = 0; $x < $width; ++$x) {
                [$red, $green, $sum] = self::colour($image, $x, $y);
                $isAlike = abs($red - $cloth[0]) < self::ALIKE && abs($green - $cloth[1]) < self::ALIKE;
                if ($isAlike && $sum > self::DARK * $cloth[2]) {
                    $mask[$y * $width + $x] = true;
                }
            }
        }

        return $mask;
    }

    /**
     * @param array<int, true> $mask
     *
     * @return list<int> keys of the largest piece that hangs together
     */
    private static function largest(array $mask, int $width): array
    {
        $best = [];
        // Ends: each piece is taken out of the mask.
        while ([] !== $mask) {
            $first = array_key_first($mask);
            unset($mask[$first]);
            $piece = [$first];
            for ($i = 0; $i < \count($piece); ++$i) {
                foreach ([1, -1, $width, -$width] as $step) {
                    $next = $piece[$i] + $step;
                    if (isset($mask[$next])) {
                        unset($mask[$next]);
                        $piece[] = $next;
                    }
                }
            }
            if (\count($piece) > \count($best)) {
                $best = $piece;
            }
        }

        return $best;
    }

    /**
     * The convex hull (Andrew's monotone chain).
     *
     * @param non-empty-list<int> $keys
     *
     * @return list<array{float, float}>
     */
    private static function hull(array $keys, int $width): array
    {
        $points = array_map(static fn (int $key): array => [$key % $width + 0.5, intdiv($key, $width) + 0.5], $keys);
        sort($points);
        $halves = [];
        foreach ([$points, array_reverse($points)] as $ordered) {
            $half = [];
            foreach ($ordered as $point) {
                // Ends: each round takes a point away.
                while (\count($half) > 1 && self::turn($half[\count($half) - 2], $half[\count($half) - 1], $point) <= 0) {
                    array_pop($half);
                }
                $half[] = $point;
            }
            array_pop($half);
            array_push($halves, ...$half);
        }

        return $halves;
    }

    /**
     * Positive where the way from $o over $a to $b turns to one side, negative where it turns to the other.
     *
     * @param array{float, float} $o
     * @param array{float, float} $a
     * @param array{float, float} $b
     */
    private static function turn(array $o, array $a, array $b): float
    {
        return ($a[0] - $o[0]) * ($b[1] - $o[1]) - ($a[1] - $o[1]) * ($b[0] - $o[0]);
    }

    /**
     * The four longest sides of a hull in order: edges that hardly turn are one.
     *
     * @param list<array{float, float}> $hull
     *
     * @return list<array{array{float, float}, array{float, float}}>|null from and to
     */
    private static function sides(array $hull): ?array
    {
        $count = \count($hull);
        if ($count < 4) {
            return null;
        }
        // Begins behind the sharpest turn, so that no side is cut in two.
        $angle = static fn (int $i): float => atan2(
            $hull[($i + 1) % $count][1] - $hull[$i % $count][1],
            $hull[($i + 1) % $count][0] - $hull[$i % $count][0],
        );
        $turned = static fn (float $from, float $to): float => abs(rad2deg(fmod($to - $from + 5 * \M_PI, 2 * \M_PI) - \M_PI));
        $lengths = $edges = [];
        for ($i = 0; $i < $count; ++$i) {
            [$a, $b] = [$hull[$i], $hull[($i + 1) % $count]];
            $edges[] = [$angle($i), hypot($b[0] - $a[0], $b[1] - $a[1]), $i];
        }
        usort($edges, static fn (array $a, array $b): int => $b[1] <=> $a[1]);
        // Each long edge gathers its neighbours that point as it does.
        $taken = $sides = [];
        foreach ($edges as [$way, , $i]) {
            if (isset($taken[$i])) {
                continue;
            }
            [$from, $to] = [$i, $i];
            $taken[$i] = true;
            // Ends: each round takes an edge.
            while (!isset($taken[($to + 1) % $count]) && $turned($way, $angle(($to + 1) % $count)) < self::STRAIGHT) {
                $taken[++$to % $count] = true;
            }
            // Ends: each round takes an edge.
            while (!isset($taken[($from - 1 + $count) % $count]) && $turned($way, $angle(($from - 1 + $count) % $count)) < self::STRAIGHT) {
                $from = ($from - 1 + $count) % $count;
                $taken[$from] = true;
            }
            [$a, $b] = [$hull[$from % $count], $hull[($to + 1) % $count]];
            $sides[] = [$from % $count, [$a, $b]];
            $lengths[] = hypot($b[0] - $a[0], $b[1] - $a[1]);
        }
        arsort($lengths);
        $four = [];
        foreach (\array_slice(array_keys($lengths), 0, 4) as $i) {
            $four[$sides[$i][0]] = $sides[$i][1];
        }
        ksort($four);

        return 4 === \count($four) ? array_values($four) : null;
    }

    /**
     * @param array{array{float, float}, array{float, float}} $one
     * @param array{array{float, float}, array{float, float}} $other
     *
     * @return array{float, float}|null where their lines meet; null where they run alike
     */
    private static function meeting(array $one, array $other): ?array
    {
        [[$ax, $ay], [$bx, $by]] = $one;
        [[$cx, $cy], [$dx, $dy]] = $other;
        $cross = ($bx - $ax) * ($dy - $cy) - ($by - $ay) * ($dx - $cx);
        if (abs($cross) < 1e-3) {
            return null;
        }
        $t = (($cx - $ax) * ($dy - $cy) - ($cy - $ay) * ($dx - $cx)) / $cross;

        return [$ax + $t * ($bx - $ax), $ay + $t * ($by - $ay)];
    }

    /**
     * The middle of the dark about a corner.
     *
     * @param array{float, float} $corner
     *
     * @return array{float, float}|null
     */
    private static function hole(\GdImage $image, array $corner, float $usual): ?array
    {
        [$width, $height] = [imagesx($image), imagesy($image)];
        $reach = self::ABOUT * $width;
        $sumX = $sumY = $count = 0;
        for ($y = (int) ($corner[1] - $reach); $y <= $corner[1] + $reach; ++$y) {
            for ($x = (int) ($corner[0] - $reach); $x <= $corner[0] + $reach; ++$x) {
                if ($x < 0 || $y < 0 || $x >= $width || $y >= $height || hypot($x - $corner[0], $y - $corner[1]) > $reach) {
                    continue;
                }
                // A hole is dark and has no colour; the floor beyond the wood is lighter.
                if (self::colour($image, $x, $y)[2] < min(75.0, self::HOLE * $usual)) {
                    $sumX += $x;
                    $sumY += $y;
                    ++$count;
                }
            }
        }

        return $count < 3 ? null : [$sumX / $count + 0.5, $sumY / $count + 0.5];
    }

    /**
     * @param list<array{float, float}> $corners in turn
     *
     * @return list<array{float, float}> in the order of Finder::CORNERS
     */
    private static function named(array $corners): array
    {
        $length = static fn (int $i): float => hypot(
            $corners[($i + 1) % 4][0] - $corners[$i][0],
            $corners[($i + 1) % 4][1] - $corners[$i][1],
        );
        // The long rails are the longer pair; the right one is the lower of them, or the one to the right where they run away from the
        // camera.
        $pair = $length(0) + $length(2) > $length(1) + $length(3) ? [0, 2] : [1, 3];
        $wide = $high = 0.0;
        foreach ($pair as $i) {
            $wide += abs($corners[($i + 1) % 4][0] - $corners[$i][0]);
            $high += abs($corners[($i + 1) % 4][1] - $corners[$i][1]);
        }
        $isSeenAlong = $high > $wide;
        $middle = static fn (int $i): float => $isSeenAlong
            ? $corners[$i][0] + $corners[($i + 1) % 4][0]
            : $corners[$i][1] + $corners[($i + 1) % 4][1];
        $right = $middle($pair[0]) > $middle($pair[1]) ? $pair[0] : $pair[1];
        [$a, $b] = [$corners[$right], $corners[($right + 1) % 4]];
        // Its head end is to the left, or the near one.
        $isInOrder = $isSeenAlong ? $a[1] > $b[1] : $a[0] < $b[0];

        return $isInOrder
            ? [$a, $b, $corners[($right + 2) % 4], $corners[($right + 3) % 4]]
            : [$b, $a, $corners[($right + 3) % 4], $corners[($right + 2) % 4]];
    }

    /** @return array{float, float, float} shares of red and green; the sum of three */
    private static function colour(\GdImage $image, int $x, int $y): array
    {
        $colour = (int) imagecolorat($image, $x, $y);
        $sum = (float) ((($colour >> 16) & 255) + (($colour >> 8) & 255) + ($colour & 255));

        return 0.0 === $sum ? [0.33, 0.33, 0.0] : [(($colour >> 16) & 255) / $sum, (($colour >> 8) & 255) / $sum, $sum];
    }
}
