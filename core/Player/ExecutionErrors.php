<?php

declare(strict_types=1);

namespace ZigLane\Core\Player;

use ZigLane\Core\Error\IllegalStroke;
use ZigLane\Core\Motion\Strike;

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

    /**
     * Presets: estimates (common practice), until the player's own tests or log replace them. Aim degrees, speed share, tip millimetres.
     */
    public const PRESETS = [
        'beginner' => [0.20, 0.15, 4.0, 4.0],
        'club player' => [0.06, 0.06, 1.5, 1.5],
        'strong player' => [0.035, 0.04, 0.8, 0.8],
        'expert' => [0.02, 0.025, 0.4, 0.4],
    ];

    public function __construct(
        public float $aim = self::LIMITS['aim'][0],
        public float $speed = self::LIMITS['speed'][0],
        public float $tipSide = self::LIMITS['tipSide'][0],
        public float $tipHeight = self::LIMITS['tipHeight'][0],
    ) {
    }

    /**
     * The stroke that comes of an intended one: direction, speed and tip placement each with an error of their own.
     *
     * @param float $ballRadius metres
     *
     * @throws IllegalStroke If the tip lands past the miscue limit
     */
    public function disturb(Strike $strike, Randomness $random, float $ballRadius): Strike
    {
        $millimetre = 0.001 / $ballRadius;
        $direction = rad2deg($strike->direction) + $this->aim * $random->normal();
        // Normal, but never less than nothing nor more than a cue can give.
        $speed = min(Strike::MAX_SPEED, max(0.01, $strike->speed * (1 + $this->speed * $random->normal())));
        $side = $strike->side + $this->tipSide * $millimetre * $random->normal();
        $height = $strike->height + $this->tipHeight * $millimetre * $random->normal();

        return Strike::degrees($direction, $speed, $side, $height, rad2deg($strike->elevation), $strike->endMassRatio);
    }

    /** @return array<string, float> */
    public function toArray(): array
    {
        /** @var array<string, float> $fields */
        $fields = get_object_vars($this);

        return $fields;
    }
}
