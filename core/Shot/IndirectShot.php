<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

/** A ball made another way than straight: over other balls or off cushions, with its odds from simulated tries. */
final readonly class IndirectShot
{
    /**
     * @param float $width of the window of directions, radians
     * @param float $odds  share of the tries that are made legally without a scratch
     */
    public function __construct(public IndirectWay $way, public float $width, public float $odds, public int $tries)
    {
    }
}
