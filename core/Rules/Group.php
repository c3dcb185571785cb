<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

use ZigLane\Core\Name\Ball;

/** The group of balls that the shooter plays in eight-ball. */
enum Group: string
{
    case Solids = 'solids';
    case Stripes = 'stripes';
    case Open = 'open';

    /** The other player's; an open table is open to both. */
    public function other(): self
    {
        return match ($this) {
            self::Solids => self::Stripes,
            self::Stripes => self::Solids,
            self::Open => self::Open,
        };
    }

    /** Whether a ball is of this group; the 8 is of neither, and an open table holds both. */
    public function has(Ball $ball): bool
    {
        return match ($this) {
            self::Solids => $ball->value > 0 && $ball->value < 8,
            self::Stripes => $ball->value > 8,
            self::Open => $ball->value > 0 && 8 !== $ball->value,
        };
    }
}
