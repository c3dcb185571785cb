<?php

declare(strict_types=1);

namespace ZigLane\Core\Stroke;

use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Motion\Strike;

/**
 * A stroke before its direction is known: tip position, speed of the cue ball just after the hit in m/s, elevation of the cue
 * in degrees.
 */
final readonly class Stroke
{
    /** An elevation from which the usual caution for a raised cue is shown, degrees: common practice. */
    public const RAISED = 30.0;
    /** A speed from which that for hard shots is shown, m/s: common practice. */
    public const HARD = 8.0;

    /** @throws IllegalStroke If a number lies outside what the model covers */
    public function __construct(public Tip $tip, public float $speed, public float $elevation = 0.0)
    {
        $this->strike(0.0, 30.0);
    }

    /** @param float $direction of the cue, radians counter-clockwise from +x */
    public function strike(float $direction, float $endMassRatio): Strike
    {
        return Strike::degrees(rad2deg($direction), $this->speed, $this->tip->side, $this->tip->height, $this->elevation, $endMassRatio);
    }

    /** @return list<Caution> */
    public function cautions(): array
    {
        return [
            ...($this->elevation >= self::RAISED ? [Caution::RaisedCue] : []),
            ...($this->speed >= self::HARD ? [Caution::BreakSpeed] : []),
        ];
    }
}
