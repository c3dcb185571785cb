<?php

declare(strict_types=1);

namespace ZigLane\Core\Practice;

/** Where a ball of a drill lies: at one spot, at one of several that is drawn, anywhere in an area, or in hand in an area. */
final readonly class Place
{
    /**
     * @param list<array{float, float}> $spots    in diamonds, one of which is drawn; empty for an area
     * @param bool                      $isInHand the player places it in the area
     */
    public function __construct(public array $spots, public ?Area $area = null, public bool $isInHand = false)
    {
    }

    public function isFixed(): bool
    {
        return 1 === \count($this->spots);
    }
}
