<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

/** A time by which something is to be done. */
final readonly class Deadline
{
    /** @param int $from nanoseconds of the clock, and how many later it ends */
    private function __construct(private int $from, private int $length)
    {
    }

    public static function in(float $seconds): self
    {
        return new self(hrtime(true), (int) (1e9 * $seconds));
    }

    /** An earlier one, after a share of the time. */
    public function at(float $share): self
    {
        return new self($this->from, (int) ($share * $this->length));
    }

    public function isOver(): bool
    {
        return hrtime(true) - $this->from >= $this->length;
    }
}
