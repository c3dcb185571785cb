<?php

declare(strict_types=1);

namespace ZigLane\Core\Stroke;

/**
 * Side of the cue ball relative to the first cushion's rebound: running side lengthens its way along the cushion, reverse side shortens it.
 */
enum CushionSide: string
{
    case Running = 'running';
    case Reverse = 'reverse';
}
