<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

use ZigLane\Core\Name\Ball;

/** The games that can be laid out; the values are the words of the rack file. */
enum Game: string
{
    case EightBall = 'eight-ball';
    case NineBall = 'nine-ball';
    case TenBall = 'ten-ball';
    case StraightPool = 'straight-pool';

    /** Highest number of an object ball in this game. */
    public function highest(): int
    {
        return match ($this) {
            self::NineBall => 9,
            self::TenBall => 10,
            self::EightBall, self::StraightPool => 15,
        };
    }

    /** The ball that decides a rack; null in straight pool, where none does. */
    public function moneyBall(): ?Ball
    {
        return match ($this) {
            self::EightBall => Ball::Eight,
            self::NineBall => Ball::Nine,
            self::TenBall => Ball::Ten,
            self::StraightPool => null,
        };
    }

    public function uses(Ball $ball): bool
    {
        return $ball->value <= $this->highest();
    }

    /** @return list<Ball> the object balls */
    public function balls(): array
    {
        return array_map(Ball::from(...), range(1, $this->highest()));
    }
}
