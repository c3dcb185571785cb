<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

/** Where leagues and rooms differ from each other. The defaults are the world standard rules (WPA; from memory). */
final readonly class RuleOptions
{
    public const NAMES = ['callsNine', 'tenAnyTime', 'eightOnBreak'];

    /**
     * @param bool $callsNine    nine-ball: ball and pocket are called, as in ten-ball; else any ball that drops on a legal shot counts
     * @param bool $tenAnyTime   ten-ball: the ten wins whenever it drops as called on a legal shot; else it is spotted until it is the last
     * @param bool $eightOnBreak eight-ball: the 8 wins when it drops on a legal break; else it is spotted
     */
    public function __construct(public bool $callsNine = false, public bool $tenAnyTime = false, public bool $eightOnBreak = false)
    {
    }

    /** @param list<int|string> $chosen names of those that are chosen; others do not count */
    public static function of(array $chosen): self
    {
        return new self(...array_fill_keys(array_values(array_intersect(self::NAMES, $chosen)), true));
    }

    /** @return array<string, true> those that differ from the world standard rules */
    public function chosen(): array
    {
        return array_filter(['callsNine' => $this->callsNine, 'tenAnyTime' => $this->tenAnyTime, 'eightOnBreak' => $this->eightOnBreak]);
    }
}
