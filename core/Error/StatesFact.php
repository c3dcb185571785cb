<?php

declare(strict_types=1);

namespace ZigLane\Core\Error;

use ZigLane\Core\Fact\Fact;

/**
 * An exception that is a fact.
 *
 * @internal
 */
trait StatesFact
{
    private function __construct(private readonly Fact $fact)
    {
        parent::__construct((string) $fact);
    }

    public function fact(): Fact
    {
        return $this->fact;
    }
}
