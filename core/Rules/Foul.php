<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

/** What makes a shot a foul. */
enum Foul: string
{
    case Scratch = 'scratch';
    case NothingHit = 'nothingHit';
    /** The first ball met is not one that may be met first. */
    case WrongBall = 'wrongBall';
    /** No ball dropped and none met a cushion after the first contact. */
    case NoCushion = 'noCushion';
}
