<?php

declare(strict_types=1);

namespace ZigLane\Core\Stroke;

/** Side of the cue ball relative to the cut: inside is the side to which the object ball is cut. */
enum CutSide: string
{
    case Inside = 'inside';
    case Outside = 'outside';
}
