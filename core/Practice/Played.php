<?php

declare(strict_types=1);

namespace ZigLane\Core\Practice;

use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Player\Deviations;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Table\Spot;

/** A stroke for a try, with its player's errors in it. */
final readonly class Played
{
    /**
     * @param Spot|null       $place  of the cue ball in hand
     * @param ShotChoice|null $choice of a pot
     * @param float           $mean   points that a few tries brought on average
     */
    public function __construct(
        public Strike $strike,
        public Deviations $errors,
        public ?Spot $place,
        public ?ShotChoice $choice,
        public float $mean = 0.0,
    ) {
    }

    public function withMean(float $mean): self
    {
        return new self($this->strike, $this->errors, $this->place, $this->choice, $mean);
    }
}
