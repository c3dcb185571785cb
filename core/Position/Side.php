<?php

declare(strict_types=1);

namespace ZigLane\Core\Position;

/** A side of a line or of a pocket, seen along the ball's way. */
enum Side: string
{
    case Left = 'left';
    case Right = 'right';
}
