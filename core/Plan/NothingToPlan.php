<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Error\StatesFact;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;

/** There is no shot to plan a run with. */
final class NothingToPlan extends \DomainException implements CoreError
{
    use StatesFact;

    public static function onTheTable(): self
    {
        return new self(new Fact('plan.nothing'));
    }

    /** No ball can be hit at all. */
    public static function noHit(): self
    {
        return new self(new Fact('decide.noHit'));
    }

    /** Straight pool: the last ball of a rack lies alone, and the others are to be racked first. */
    public static function lastOfRack(): self
    {
        return new self(new Fact('decide.lastOfRack'));
    }

    /** @param non-empty-list<Fact> $hits the legal hits that there are, the best first */
    public static function but(array $hits): self
    {
        return new self(new Fact('plan.nothingBut', ['hits' => $hits]));
    }

    /** The ball that decides the game is not on the table. */
    public static function noMoneyBall(Ball $ball): self
    {
        return new self(new Fact('plan.noMoneyBall', ['ball' => $ball]));
    }

    /** The cue ball is in hand and no spot is free, or no ball is on. */
    public static function noCueBall(): self
    {
        return new self(new Fact('plan.noCueBall'));
    }
}
