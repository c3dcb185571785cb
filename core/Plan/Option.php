<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Shot\Aim;
use ZigLane\Core\Shot\AimedShot;
use ZigLane\Core\Shot\ShotChoice;

/** A shot that may be played next, aimed, and the chance to finish with it by the planner's reckoning, 0 to 1. */
final readonly class Option
{
    /** @param float $fuss share of the value by which it is ranked lower than a plain shot (cushions, speed, side), 0 to 1 */
    public function __construct(
        public ShotChoice $choice,
        public Aim $aim,
        public Strike $strike,
        public float $value,
        public float $fuss = 0.0,
    ) {
    }

    public static function of(AimedShot $shot, float $value, float $fuss = 0.0): self
    {
        return new self($shot->choice, $shot->aim, $shot->strike, $value, $fuss);
    }

    /** By what shots are ranked: those of equal value by how plain they are. */
    public function rank(): float
    {
        return $this->value * (1 - $this->fuss);
    }

    /**
     * @param list<self> $options
     *
     * @return list<self> the best first
     */
    public static function ranked(array $options): array
    {
        usort($options, static fn (self $a, self $b): int => $b->rank() <=> $a->rank());

        return $options;
    }

    public function aimed(): AimedShot
    {
        return new AimedShot($this->choice, $this->aim, $this->strike);
    }

    /** The same shot with another value. */
    public function withValue(float $value): self
    {
        return new self($this->choice, $this->aim, $this->strike, $value, $this->fuss);
    }
}
