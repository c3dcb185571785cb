<?php

declare(strict_types=1);

namespace ZigLane\Core\Player;

use ZigLane\Core\Motion\Strike;

/**
 * A player's execution errors in an ordinary shot (level cue, medium speed) as standard deviations: direction of the cue in degrees,
 * speed as a share, tip placement in millimetres sideways and up; how they grow with what a shot demands, and what he does wrong in
 * the mean. The defaults are an estimate between a beginner and a club player, not measured.
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
        'club player' => [0.047, 0.052, 1.1, 1.1],
        'strong player' => [0.03, 0.036, 0.7, 0.7],
        'expert' => [0.012, 0.018, 0.25, 0.25],
    ];

    public function __construct(
        public float $aim = self::LIMITS['aim'][0],
        public float $speed = self::LIMITS['speed'][0],
        public float $tipSide = self::LIMITS['tipSide'][0],
        public float $tipHeight = self::LIMITS['tipHeight'][0],
        public ErrorGrowth $growth = new ErrorGrowth(),
        public Biases $biases = new Biases(),
    ) {
    }

    /** @return array<string, self> by the name of the level, the worst hand first */
    public static function presets(): array
    {
        return array_map(static fn (array $numbers): self => new self(...$numbers), self::PRESETS);
    }

    /** The errors in a shot: grown with its meant speed, the elevation of the cue, and what else it demands. */
    public function in(Strike $meant, Demands $demands = new Demands()): Deviations
    {
        return $this->at($meant->speed, rad2deg($meant->elevation), $demands);
    }

    /**
     * @param float $speed     meant speed just after the hit, m/s
     * @param float $elevation of the cue, degrees
     */
    public function at(float $speed, float $elevation, Demands $demands = new Demands()): Deviations
    {
        $growth = $this->growth;
        $raised = $growth->byElevation($elevation);
        $tip = $growth->bySpeed($speed) * $raised;
        $aim = $tip * ($demands->hasAwkwardBridge ? $growth->bridge : 1.0) * ($demands->cut > $growth->thinFrom ? $growth->thin : 1.0);

        return new Deviations(
            hypot($this->aim * $aim, $demands->judgement),
            $this->speed * $raised,
            $this->tipSide * $tip,
            $this->tipHeight * $tip,
            $this->biases,
        );
    }

    /** The errors of an ordinary shot. */
    public function ordinary(): Deviations
    {
        return new Deviations($this->aim, $this->speed, $this->tipSide, $this->tipHeight, $this->biases);
    }

    /** @return array<string, float|array<string, float>> for a file: growth and biases only where they are not the usual ones */
    public function toArray(): array
    {
        return [
            'aim' => $this->aim,
            'speed' => $this->speed,
            'tipSide' => $this->tipSide,
            'tipHeight' => $this->tipHeight,
            ...($this->growth == new ErrorGrowth() ? [] : ['growth' => $this->growth->toArray()]),
            ...($this->biases->areNone() ? [] : ['biases' => $this->biases->toArray()]),
        ];
    }
}
