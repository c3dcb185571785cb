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
    public function __construct(public ShotChoice $choice, public Aim $aim, public Strike $strike, public float $value)
    {
    }

    public static function of(AimedShot $shot, float $value): self
    {
        return new self($shot->choice, $shot->aim, $shot->strike, $value);
    }

    public function aimed(): AimedShot
    {
        return new AimedShot($this->choice, $this->aim, $this->strike);
    }

    /** The same shot with another value. */
    public function withValue(float $value): self
    {
        return new self($this->choice, $this->aim, $this->strike, $value);
    }
}
