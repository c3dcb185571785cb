<?php

declare(strict_types=1);

namespace ZigLane\Core\Practice;

/**
 * A part of the table, in diamonds, so that it grows with the table: a polygon, or rings about a point of which the innermost that a ball
 * lies in counts.
 */
final readonly class Area
{
    /**
     * @param list<array{float, float}> $corners of the polygon, at least three; empty for rings
     * @param array{float, float}|null  $centre  of the rings
     * @param list<array{float, float}> $rings   radius and points, the innermost first
     */
    private function __construct(public array $corners, public ?array $centre = null, public array $rings = [])
    {
    }

    /** @param list<array{float, float}> $corners */
    public static function polygon(array $corners): self
    {
        return new self($corners);
    }

    public static function box(float $fromLong, float $fromShort, float $toLong, float $toShort): self
    {
        return new self([[$fromLong, $fromShort], [$toLong, $fromShort], [$toLong, $toShort], [$fromLong, $toShort]]);
    }

    /**
     * @param array{float, float}       $centre
     * @param list<array{float, float}> $rings  radius and points
     */
    public static function rings(array $centre, array $rings): self
    {
        usort($rings, static fn (array $a, array $b): int => $a[0] <=> $b[0]);

        return new self([], $centre, $rings);
    }

    /** What a ball there is worth, as a factor of the target's points: in a polygon 1. */
    public function worth(float $long, float $short): float
    {
        if (null !== $this->centre) {
            $far = hypot($long - $this->centre[0], $short - $this->centre[1]);
            foreach ($this->rings as [$radius, $points]) {
                if ($far <= $radius) {
                    return $points;
                }
            }

            return 0.0;
        }

        return $this->has($long, $short) ? 1.0 : 0.0;
    }

    /** The most that a ball can be worth in it. */
    public function most(): float
    {
        return null === $this->centre ? 1.0 : max([0.0, ...array_column($this->rings, 1)]);
    }

    /** How far a spot lies outside, diamonds; 0 inside. Of rings: from the innermost. */
    public function outside(float $long, float $short): float
    {
        if (null !== $this->centre) {
            return max(0.0, hypot($long - $this->centre[0], $short - $this->centre[1]) - $this->rings[0][0]);
        }
        if ($this->has($long, $short)) {
            return 0.0;
        }
        $least = \INF;
        foreach ($this->edges() as [[$ax, $ay], [$bx, $by]]) {
            [$dx, $dy] = [$bx - $ax, $by - $ay];
            $share = max(0.0, min(1.0, (($long - $ax) * $dx + ($short - $ay) * $dy) / max(1e-12, $dx * $dx + $dy * $dy)));
            $least = min($least, hypot($long - $ax - $share * $dx, $short - $ay - $share * $dy));
        }

        return $least;
    }

    /** @return array{float, float, float, float} the box about it: least long and short, most long and short */
    public function bounds(): array
    {
        if (null !== $this->centre) {
            $reach = $this->rings[\count($this->rings) - 1][0];

            return [$this->centre[0] - $reach, $this->centre[1] - $reach, $this->centre[0] + $reach, $this->centre[1] + $reach];
        }
        [$long, $short] = [array_column($this->corners, 0), array_column($this->corners, 1)];

        \assert([] !== $long && [] !== $short);

        return [min($long), min($short), max($long), max($short)];
    }

    /** Whether some of it lies on a table of 8 by 4 diamonds. */
    public function isOnTable(): bool
    {
        [$long, $short, $toLong, $toShort] = $this->bounds();

        return $toLong > 0.0 && $toShort > 0.0 && $long < 8.0 && $short < 4.0;
    }

    /** By the crossings of a ray (even-odd rule); an edge counts as in. */
    private function has(float $long, float $short): bool
    {
        $isIn = false;
        foreach ($this->edges() as [[$ax, $ay], [$bx, $by]]) {
            if (abs(($bx - $ax) * ($short - $ay) - ($by - $ay) * ($long - $ax)) < 1e-9
                && min($ax, $bx) - 1e-9 <= $long && $long <= max($ax, $bx) + 1e-9
                && min($ay, $by) - 1e-9 <= $short && $short <= max($ay, $by) + 1e-9
            ) {
                return true;
            }
            if (($ay > $short) !== ($by > $short) && $long < ($bx - $ax) * ($short - $ay) / ($by - $ay) + $ax) {
                $isIn = !$isIn;
            }
        }

        return $isIn;
    }

    /** @return \Generator<array{array{float, float}, array{float, float}}> */
    private function edges(): \Generator
    {
        foreach ($this->corners as $i => $corner) {
            yield [$corner, $this->corners[($i + 1) % \count($this->corners)]];
        }
    }
}
