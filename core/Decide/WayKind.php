<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

/** What a player may decide for; the values are the words of the options file. */
enum WayKind: string
{
    case Attack = 'attack';
    /** Nothing is called: the turn passes also where a ball drops, but for nine-ball. */
    case Safety = 'safety';
    /** A push-out: the other player shoots or gives the shot back. */
    case PushOut = 'pushOut';
    /** The shot is given back to the player who pushed out. */
    case Pass = 'pass';
}
