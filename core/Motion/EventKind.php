<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

/** What is written down of a shot; the values are the words of the outcome file. */
enum EventKind: string
{
    /** The cue strikes the cue ball. */
    case Strike = 'strike';
    /** Sliding ends and the ball goes on. */
    case Roll = 'roll';
    /** Two balls meet. */
    case Ball = 'ball';
    /** A rail's nose. */
    case Cushion = 'cushion';
    /** A facing or a nose point of a pocket. */
    case Jaw = 'jaw';
    /** The ball has dropped. */
    case Pocket = 'pocket';
    /** A ball that had moved has neither speed nor spin left. */
    case Rest = 'rest';
}
