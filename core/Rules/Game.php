<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Rules\Games\EightBall;
use ZigLane\Core\Rules\Games\NineBall;
use ZigLane\Core\Rules\Games\StraightPool;
use ZigLane\Core\Rules\Games\TenBall;

/** The games that can be laid out; the values are the words of the rack file. */
enum Game: string
{
    case EightBall = 'eight-ball';
    case NineBall = 'nine-ball';
    case TenBall = 'ten-ball';
    case StraightPool = 'straight-pool';

    /** Its rules. Games are compared here and nowhere else. */
    public function rules(): Ruleset
    {
        /** @var array<string, Ruleset> $rules */
        static $rules = [];

        return $rules[$this->value] ??= match ($this) {
            self::EightBall => new EightBall(),
            self::NineBall => new NineBall(),
            self::TenBall => new TenBall(),
            self::StraightPool => new StraightPool(),
        };
    }

    public function uses(Ball $ball): bool
    {
        return $ball->value <= $this->rules()->highest;
    }

    /** @return list<Ball> the object balls */
    public function balls(): array
    {
        return $this->rules()->balls();
    }
}
