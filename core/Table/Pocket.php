<?php

declare(strict_types=1);

namespace ZigLane\Core\Table;

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

    /** "foot left corner", "right side". */
    public function spoken(): string
    {
        return match ($this) {
            self::HeadRight => 'head right corner',
            self::SideRight => 'right side',
            self::FootRight => 'foot right corner',
            self::HeadLeft => 'head left corner',
            self::SideLeft => 'left side',
            self::FootLeft => 'foot left corner',
        };
    }
}
