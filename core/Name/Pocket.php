<?php

declare(strict_types=1);

namespace ZigLane\Core\Name;

/** The six pockets, named as a player at the head rail sees them: H head, S side, F foot; R right, L left. */
enum Pocket: string
{
    case HeadRight = 'HR';
    case SideRight = 'SR';
    case FootRight = 'FR';
    case HeadLeft = 'HL';
    case SideLeft = 'SL';
    case FootLeft = 'FL';

    public function isSide(): bool
    {
        return self::SideRight === $this || self::SideLeft === $this;
    }
}
