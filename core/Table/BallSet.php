<?php

declare(strict_types=1);

namespace ZigLane\Core\Table;

use ZigLane\Core\Name\Pocket;

/**
 * A set of balls, equal but for the cue ball's weight. Radius in metres, mass in kilograms; `cueBallWeight` is the cue ball's mass over
 * that of the others (worn and magnetic ones differ), and what it does to a stroke is not counted: speeds are the cue ball's own. Friction
 * between two balls at slip speed v (m/s) is `frictionFloor + frictionFall * exp(-frictionRate * v)`, fitted to data in Marlow, The
 * Physics of Pocket Billiards (1995). `stiffness` is Young's modulus over (1 - Poisson's ratio squared) in pascals, which sets how long
 * balls touch: a quarter of a millisecond at 1 m/s (from memory). Defaults: WPA equipment specification (2.25 in, 6 oz).
 */
final readonly class BallSet
{
    /** @var array<string, array{float, float, float}> default, least, most */
    public const LIMITS = [
        'radius' => [0.028575, 0.02, 0.035],
        'mass' => [0.1701, 0.05, 0.5],
        'restitution' => [0.97, 0.5, 1.0],
        'frictionFloor' => [0.00995, 0.0, 0.5],
        'frictionFall' => [0.108, 0.0, 0.5],
        'frictionRate' => [1.088, 0.0, 20.0],
        'stiffness' => [2.0e10, 1.0e8, 1.0e11],
        'cueBallWeight' => [1.0, 0.8, 1.3],
    ];

    /** @throws IllegalTable If a field lies outside LIMITS */
    public function __construct(
        public float $radius = self::LIMITS['radius'][0],
        public float $mass = self::LIMITS['mass'][0],
        public float $restitution = self::LIMITS['restitution'][0],
        public float $frictionFloor = self::LIMITS['frictionFloor'][0],
        public float $frictionFall = self::LIMITS['frictionFall'][0],
        public float $frictionRate = self::LIMITS['frictionRate'][0],
        public float $stiffness = self::LIMITS['stiffness'][0],
        public float $cueBallWeight = self::LIMITS['cueBallWeight'][0],
    ) {
        foreach ($this->toArray() as $field => $value) {
            [, $least, $most] = self::LIMITS[$field];
            if (!($value >= $least && $value <= $most)) {
                throw IllegalTable::outOfRange($field, $value, $least, $most);
            }
        }
    }

    /** Friction coefficient between two balls whose surfaces slide at the given speed (m/s). */
    public function friction(float $slipMps): float
    {
        return $this->frictionFloor + $this->frictionFall * exp(-$this->frictionRate * $slipMps);
    }

    /** What a ball that the cue ball meets takes of the change of velocity and spin that it would take from an equal one. */
    public function takenFromCueBall(): float
    {
        return 2 * $this->cueBallWeight / (1 + $this->cueBallWeight);
    }

    /** The same of the cue ball itself. */
    public function takenByCueBall(): float
    {
        return 2 / (1 + $this->cueBallWeight);
    }

    /** Speed along the line of centres that a ball takes from the cue ball, over what that had along it. */
    public function passedOn(): float
    {
        return 0.5 * (1 + $this->restitution) * $this->takenFromCueBall();
    }

    /** Friction between its balls over that of clean ones: 1 clean, up to 2 dirty (docs/physics.md, section 4). */
    public function dirt(): float
    {
        return $this->frictionFall / self::LIMITS['frictionFall'][0];
    }

    /** The same balls with so many times the friction. */
    public function dirtier(float $times): self
    {
        return new self(...[
            ...$this->toArray(),
            'frictionFloor' => $this->frictionFloor * $times,
            'frictionFall' => $this->frictionFall * $times,
        ]);
    }

    public function diameter(): float
    {
        return 2 * $this->radius;
    }

    /** @return array<string, float> every field, in the order of LIMITS */
    public function toArray(): array
    {
        /** @var array<string, float> $fields */
        $fields = get_object_vars($this);

        return $fields;
    }
}
