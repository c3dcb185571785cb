<?php

declare(strict_types=1);

namespace ZigLane\Core\Breaking;

use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Rules\BreakShot;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/**
 * How a rack is broken: the cue ball's place behind the head string in diamonds, which part of the ball at the apex is hit (0 full, 1 its
 * right edge as the breaker sees it, -1 its left), the speed of the cue ball just after the hit in m/s, and the tip as fractions of the
 * radius.
 */
final readonly class BreakStroke
{
    /** Along, across, part of the ball, speed, side, height: least and most. */
    public const LIMITS = [
        'long' => [0.1, 2.0], 'short' => [0.2, 3.8], 'aim' => [-0.9, 0.9], 'speed' => [1.0, 12.0], 'side' => [-0.4, 0.4],
        'height' => [-0.4, 0.4],
    ];
    /** From this speed on a break is hard, m/s: common practice. */
    public const HARD = 7.5;
    private const ELEVATION = 2.0;

    public function __construct(
        public float $long,
        public float $short,
        public float $aim,
        public float $speed,
        public float $side = 0.0,
        public float $height = 0.0,
    ) {
    }

    /** The usual one of a game (BreakShot says why). */
    public static function usual(Game $game): self
    {
        [$short, $speed] = $game->rules()->breakStroke ?? [2.0, 2.8];

        return new self(2.0, $short, 0.0, $speed);
    }

    public function isHard(): bool
    {
        return $this->speed >= self::HARD;
    }

    public function spot(Equipment $equipment): Spot
    {
        return Spot::diamonds($this->long, $this->short, $equipment->table);
    }

    /** @throws IllegalStroke If it would miscue */
    public function strike(Equipment $equipment): Strike
    {
        $cue = $this->spot($equipment);
        $apex = Racking::footSpot($equipment->table);
        // Aimed to the right of the middle the cue ball passes on that side and meets the ball's right part.
        $aside = asin(max(-1.0, min(1.0, $this->aim * $equipment->balls->diameter() / $cue->distanceTo($apex))));
        $strike = Strike::degrees(
            0.0, $this->speed, $this->side, $this->height, self::ELEVATION, $equipment->cue->endMassRatio,
        );

        return $strike->withDirection($cue->directionTo($apex) - $aside - $strike->squirt());
    }

    /** @return array<string, float> by LIMITS */
    public function toArray(): array
    {
        return [
            'long' => $this->long, 'short' => $this->short, 'aim' => $this->aim, 'speed' => $this->speed, 'side' => $this->side,
            'height' => $this->height,
        ];
    }

    /** @param array<mixed> $values numbers that are not there or not allowed are those of the usual stroke, or the nearest allowed */
    public static function fromArray(array $values, self $usual): self
    {
        $read = [];
        foreach ($usual->toArray() as $field => $default) {
            [$least, $most] = self::LIMITS[$field];
            $value = $values[$field] ?? null;
            $read[$field] = is_numeric($value) && is_finite((float) $value) ? max($least, min($most, (float) $value)) : $default;
        }

        return new self(...$read);
    }
}
