<?php

declare(strict_types=1);

namespace ZigLane\Core\Name;

/** The cue ball and the fifteen object balls; the value is the number on the ball, 0 for the cue ball. */
enum Ball: int
{
    case Cue = 0;
    case One = 1;
    case Two = 2;
    case Three = 3;
    case Four = 4;
    case Five = 5;
    case Six = 6;
    case Seven = 7;
    case Eight = 8;
    case Nine = 9;
    case Ten = 10;
    case Eleven = 11;
    case Twelve = 12;
    case Thirteen = 13;
    case Fourteen = 14;
    case Fifteen = 15;

    /** The ball of that name in a file ("cue", "1" to "15"), or null. */
    public static function named(string $name): ?self
    {
        if ('cue' === $name) {
            return self::Cue;
        }

        return 1 === preg_match('/^[1-9]\d?$/D', $name) ? self::tryFrom((int) $name) : null;
    }

    public function label(): string
    {
        return self::Cue === $this ? 'cue' : (string) $this->value;
    }

    public function isStriped(): bool
    {
        return $this->value > 8;
    }
}
