<?php

declare(strict_types=1);

namespace ZigLane\Core\Error;

/** There is no shot to plan a run with. */
final class NothingToPlan extends \DomainException implements CoreError
{
    public static function onTheTable(): self
    {
        return new self('There is nothing to plan: no ball on the table can be shot from here, straight or over a cushion. Lay out the cue ball, or give ball in hand.');
    }
}
