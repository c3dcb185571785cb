<?php

declare(strict_types=1);

namespace ZigLane\Core\Error;

use ZigLane\Core\Fact\Fact;

/** There is no shot to plan a run with. */
final class NothingToPlan extends \DomainException implements CoreError
{
    use StatesFact;

    public static function onTheTable(): self
    {
        return new self(new Fact('plan.nothing'));
    }
}
