<?php

declare(strict_types=1);

namespace ZigLane\Core\Fit;

/** A number of a fit with its 90 percent interval. */
final readonly class FittedNumber
{
    /**
     * @param array{float, float} $interval  at 90 percent
     * @param float|null          $prior     what it was taken to be before
     * @param bool                $isLearned whether the data say more of it than the prior did
     */
    public function __construct(public float $value, public array $interval, public ?float $prior, public bool $isLearned)
    {
    }
}
