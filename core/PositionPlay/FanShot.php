<?php

declare(strict_types=1);

namespace ZigLane\Core\PositionPlay;

use ZigLane\Core\Shot\SolvedShot;

/** One shot of a fan, and what is different in it: the tip, or the speed in lengths. */
final readonly class FanShot
{
    /** @param float|null $lengths null in a fan over tips */
    public function __construct(public SolvedShot $shot, public ?float $lengths = null)
    {
    }
}
