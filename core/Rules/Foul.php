<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

/** What makes a shot a foul. */
enum Foul: string
{
    case Scratch = 'scratch';
    case NothingHit = 'no ball hit';
    /** The first ball met is not one that may be met first. */
    case WrongBall = 'wrong ball first';
    /** No ball dropped and none met a cushion after the first contact. */
    case NoCushion = 'no cushion after contact';
}
