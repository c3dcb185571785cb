<?php

declare(strict_types=1);

namespace ZigLane\Core\Player;

/** What a player does wrong in the mean, nought until a log shows it. */
final readonly class Biases
{
    /** @var array<string, array{float, float, float}> default, least, most */
    public const LIMITS = [
        'aim' => [0.0, -3.0, 3.0],
        'speed' => [0.0, -0.5, 0.5],
        'tipSide' => [0.0, -10.0, 10.0],
        'tipHeight' => [0.0, -10.0, 10.0],
    ];

    /**
     * @param float $aim       degrees to the left
     * @param float $speed     relative: 0.07 is 7 % too hard
     * @param float $tipSide   of the contact point, mm to the right
     * @param float $tipHeight of the contact point, mm up
     */
    public function __construct(
        public float $aim = 0.0,
        public float $speed = 0.0,
        public float $tipSide = 0.0,
        public float $tipHeight = 0.0,
    ) {
    }

    public function areNone(): bool
    {
        return [0.0, 0.0, 0.0, 0.0] === array_values($this->toArray());
    }

    /** @return array<string, float> every field, in the order of LIMITS */
    public function toArray(): array
    {
        /** @var array<string, float> $fields */
        $fields = get_object_vars($this);

        return $fields;
    }
}
