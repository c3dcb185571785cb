<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

/** How a run ends that is not finished; the values are the words of the plan file. */
enum RunEnd: string
{
    /** The called ball stays out, a miscue included. */
    case Missed = 'missed';
    case Scratch = 'scratch';
    /** Another foul, after the ball that was shot had been met. */
    case Foul = 'foul';
    /** The ball that was to be met could not be reached straight, and was not met. */
    case Hooked = 'hooked';
    /** Nothing is left that can be played. */
    case NoShot = 'noShot';
    /** The game is lost by the rules. */
    case Lost = 'lost';
    /** The run came to where the plan plays safe. */
    case Safety = 'safety';
}
