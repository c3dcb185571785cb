<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

/** Where leagues and rooms differ from each other. The defaults are the world standard rules (WPA; from memory). */
final readonly class RuleOptions
{
    /**
     * @param bool $callsNine    nine-ball: ball and pocket are called, as in ten-ball; else any ball that drops on a legal shot counts
     * @param bool $tenAnyTime   ten-ball: the ten wins whenever it drops as called on a legal shot; else it is spotted until it is the last
     * @param bool $eightOnBreak eight-ball: the 8 wins when it drops on a legal break; else it is spotted
     */
    public function __construct(public bool $callsNine = false, public bool $tenAnyTime = false, public bool $eightOnBreak = false)
    {
    }
}
