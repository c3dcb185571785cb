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
    /** No ball dropped and none was driven to a cushion after the first contact. */
    case NoCushion = 'noCushion';
    /** From behind the head string a ball behind it was met before the cue ball crossed it. */
    case BehindString = 'behindString';
    /** The tip met the cue ball twice, or pushed it through a ball close before it. */
    case DoubleHit = 'doubleHit';
}
