<?php

declare(strict_types=1);

namespace ZigLane\Core\Stroke;

use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Table\Cue;

/**
 * Where the cue meets the cue ball, off its centre as fractions of the radius: `side` positive to the right, `height` positive
 * above. Never past the miscue limit.
 */
final readonly class Tip
{
    /** @throws IllegalStroke If it would miscue */
    private function __construct(public float $side, public float $height)
    {
        foreach (['side' => $side, 'height' => $height] as $field => $value) {
            if (!is_finite($value)) {
                throw IllegalStroke::notANumber($field);
            }
        }
        if (hypot($side, $height) > Cue::MISCUE_LIMIT + 1e-9) {
            throw IllegalStroke::miscue(hypot($side, $height), Cue::MISCUE_LIMIT);
        }
    }

    public static function centre(): self
    {
        return new self(0.0, 0.0);
    }

    /** @throws IllegalStroke If it would miscue */
    public static function fractions(float $side, float $height): self
    {
        return new self($side, $height);
    }

    /**
     * @param float $hour   direction on the clock face: 12 (or 0) above, 3 right, 6 below, 9 left
     * @param float $offset distance from the centre as a fraction of the radius; a tip is Equipment::offsetPerTip() of it
     *
     * @throws IllegalStroke If it would miscue
     */
    public static function atClock(float $hour, float $offset): self
    {
        $angle = $hour * \M_PI / 6;

        return new self($offset * sin($angle), $offset * cos($angle));
    }

    /** Direction on the clock face, more than 0 and up to 12; 12 at the centre. */
    public function hour(): float
    {
        $hour = fmod(atan2($this->side, $this->height) * 6 / \M_PI + 12, 12);

        return $hour < 1e-9 ? 12.0 : $hour;
    }

    /** Distance from the centre as a fraction of the radius. */
    public function offset(): float
    {
        return hypot($this->side, $this->height);
    }

    /** The clock direction to the nearest five minutes, as "1:30". */
    public function clock(): string
    {
        $minutes = 5 * (int) round($this->hour() * 12);
        $hour = intdiv($minutes, 60) % 12;

        return \sprintf('%d:%02d', 0 === $hour ? 12 : $hour, $minutes % 60);
    }
}
