<?php

declare(strict_types=1);

namespace ZigLane\Core\Log;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Error\StatesFact;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;

/** What was written down of a shot cannot have come of it. */
final class IllegalEntry extends \DomainException implements CoreError
{
    use StatesFact;

    /** A ball that lies on the table afterwards was not there before. */
    public static function alreadyDown(Ball $ball): self
    {
        return new self(new Fact('entry.alreadyDown', ['ball' => $ball]));
    }

    /** A ball that was made still lies on the table. */
    public static function stillThere(Ball $ball): self
    {
        return new self(new Fact('entry.stillThere', ['ball' => $ball]));
    }

    /** The called ball is not on the table. */
    public static function notThere(Ball $ball): self
    {
        return new self(new Fact('entry.notThere', ['ball' => $ball]));
    }

    /** Neither the cue ball's spot nor that it dropped. */
    public static function noCueBall(): self
    {
        return new self(new Fact('entry.noCueBall'));
    }
}
