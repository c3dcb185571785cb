<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

/** What goes wrong in the tries of a leg, as shares of them. */
final readonly class Risks
{
    /**
     * @param float $scratch the cue ball drops
     * @param float $hook    the ball is made, but the next cannot be met straight
     * @param float $contact another ball is struck: of the one that is struck most
     * @param float $miscue  the tip slips off
     */
    public function __construct(
        public float $scratch = 0.0,
        public float $hook = 0.0,
        public float $contact = 0.0,
        public float $miscue = 0.0,
    ) {
    }

    /** @return array{scratch: float, hook: float, contact: float, miscue: float} */
    public function toArray(): array
    {
        return ['scratch' => $this->scratch, 'hook' => $this->hook, 'contact' => $this->contact, 'miscue' => $this->miscue];
    }
}
