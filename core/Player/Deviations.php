<?php

declare(strict_types=1);

namespace ZigLane\Core\Player;

use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Motion\Strike;

/** A player's execution errors in one shot: standard deviations and means, drawn from normal distributions of their own. */
final readonly class Deviations
{
    /**
     * @param float $aim       degrees
     * @param float $speed     share
     * @param float $tipSide   mm on the ball
     * @param float $tipHeight mm on the ball
     */
    public function __construct(
        public float $aim,
        public float $speed,
        public float $tipSide,
        public float $tipHeight,
        public Biases $biases = new Biases(),
    ) {
    }

    /**
     * The stroke that comes of an intended one.
     *
     * @param float $ballRadius metres
     *
     * @throws IllegalStroke If the tip lands past the miscue limit
     */
    public function disturb(Strike $strike, Randomness $random, float $ballRadius): Strike
    {
        $millimetre = 0.001 / $ballRadius;
        $direction = rad2deg($strike->direction) + $this->biases->aim + $this->aim * $random->normal();
        // Normal, but never less than nothing nor more than a cue can give.
        $share = 1 + $this->biases->speed + $this->speed * $random->normal();
        $speed = min(Strike::MAX_SPEED, max(0.01, $strike->speed * $share));
        $side = $strike->side + ($this->biases->tipSide + $this->tipSide * $random->normal()) * $millimetre;
        $height = $strike->height + ($this->biases->tipHeight + $this->tipHeight * $random->normal()) * $millimetre;

        return Strike::degrees($direction, $speed, $side, $height, rad2deg($strike->elevation), $strike->endMassRatio);
    }
}
