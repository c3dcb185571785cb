<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

/** How finely ways are looked for: in a list for a player to choose from, or in one of the many shots of a duel. */
enum Effort
{
    case Full;
    case Quick;

    /** @return list<float> offsets of the cue ball's line from the full one, as shares of the most that still meets the ball */
    public function fractions(): array
    {
        return match ($this) {
            self::Full => [-0.98, -0.93, -0.85, -0.72, -0.5, -0.3, -0.12, 0.0, 0.12, 0.3, 0.5, 0.72, 0.85, 0.93, 0.98],
            self::Quick => [-0.96, -0.86, -0.7, -0.5, -0.25, 0.0, 0.25, 0.5, 0.7, 0.86, 0.96],
        };
    }

    /** @return list<float> speeds just after the hit, m/s */
    public function speeds(): array
    {
        return match ($this) {
            self::Full => [0.5, 0.8, 1.2, 1.7, 2.4, 3.3],
            self::Quick => [0.6, 1.0, 1.5, 2.3, 3.2],
        };
    }

    /** @return list<float> heights of the tip, fractions of the radius */
    public function heights(): array
    {
        return match ($this) {
            self::Full => [0.3, -0.35],
            self::Quick => [0.3, -0.3],
        };
    }

    /** Step of the direction in which kicks are looked for, degrees. */
    public function step(): float
    {
        return self::Full === $this ? 1.5 : 4.0;
    }

    /** Balls on that are met straight, the nearest first. */
    public function balls(): int
    {
        return self::Full === $this ? 8 : 4;
    }

    /** Strokes that are valued as they are meant, at the most: of more, every so manyth. */
    public function valued(): int
    {
        return self::Full === $this ? 500 : 300;
    }

    /** Ways that are tried with errors, and how often at first. */
    public function tried(): int
    {
        return self::Full === $this ? 24 : 12;
    }

    public function tries(): int
    {
        return self::Full === $this ? 8 : 5;
    }
}
