<?php

declare(strict_types=1);

namespace ZigLane\Core\Player;

/**
 * A player's execution errors as standard deviations: direction of the cue in degrees, speed as a share, tip placement in
 * millimetres sideways and up. The defaults are an estimate for a good club player (common practice), not measured.
 */
final readonly class ExecutionErrors
{
    /** @var array<string, array{float, float, float}> default, least, most */
    public const LIMITS = [
        'aim' => [0.06, 0.0, 3.0],
        'speed' => [0.06, 0.0, 0.5],
        'tipSide' => [1.5, 0.0, 10.0],
        'tipHeight' => [1.5, 0.0, 10.0],
    ];

    public function __construct(
        public float $aim = self::LIMITS['aim'][0],
        public float $speed = self::LIMITS['speed'][0],
        public float $tipSide = self::LIMITS['tipSide'][0],
        public float $tipHeight = self::LIMITS['tipHeight'][0],
    ) {
    }

    /** @return array<string, float> */
    public function toArray(): array
    {
        /** @var array<string, float> $fields */
        $fields = get_object_vars($this);

        return $fields;
    }
}
