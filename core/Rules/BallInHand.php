<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

/** Where the cue ball may be placed; the values are the words of the rack file. */
enum BallInHand: string
{
    case None = 'none';
    case Anywhere = 'anywhere';
    /** Behind the head string. */
    case Kitchen = 'kitchen';
}
