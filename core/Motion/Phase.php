<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

/** What a ball does on the cloth. */
enum Phase: int
{
    /** Its lowest point slips: the path is a parabola. */
    case Sliding = 0;
    /** No slip: it slows along a straight line. */
    case Rolling = 1;
    /** It stands and turns about the vertical. */
    case Spinning = 2;
    case AtRest = 3;
    case Pocketed = 4;
    /** In a group of balls that push each other for some milliseconds: the piece gives the mean velocity. */
    case Contact = 5;
}
