<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

use ZigLane\Core\Table\Cue;

/**
 * How the cue meets the cue ball: direction of the cue in radians counter-clockwise from +x; speed of the cue ball just after
 * the hit in m/s; contact off the centre as fractions of the radius, `side` positive to the right and `height` positive
 * above; elevation of the cue in radians. Never past the miscue limit.
 */
final readonly class Strike
{
    public const MAX_SPEED = 15.0;
    public const MAX_ELEVATION_DEGREES = 80.0;

    /** @throws IllegalStroke If it would miscue or a number lies outside what the model covers */
    private function __construct(
        public float $direction,
        public float $speed,
        public float $side,
        public float $height,
        public float $elevation,
        public float $endMassRatio,
    ) {
        foreach ([
            'direction' => $direction,
            'speed' => $speed,
            'side' => $side,
            'height' => $height,
            'elevation' => $elevation,
        ] as $field => $value) {
            if (!is_finite($value)) {
                throw IllegalStroke::notANumber($field);
            }
        }
        if ($speed <= 0 || $speed > self::MAX_SPEED) {
            throw IllegalStroke::outOfRange('speed', $speed, 0.01, self::MAX_SPEED, 'm/s');
        }
        $degrees = rad2deg($elevation);
        if ($degrees < 0 || $degrees > self::MAX_ELEVATION_DEGREES + 1e-9) {
            throw IllegalStroke::outOfRange('elevation', $degrees, 0, self::MAX_ELEVATION_DEGREES, 'degrees');
        }
        $offset = hypot($side, $height);
        if ($offset > Cue::MISCUE_LIMIT + 1e-12) {
            throw IllegalStroke::miscue($offset, Cue::MISCUE_LIMIT);
        }
    }

    /** @throws IllegalStroke If it would miscue or a number lies outside what the model covers */
    public static function degrees(
        float $direction,
        float $speedMps,
        float $side = 0.0,
        float $height = 0.0,
        float $elevation = 0.0,
        float $endMassRatio = Cue::END_MASS_RATIO[0],
    ): self {
        return new self(deg2rad($direction), $speedMps, $side, $height, deg2rad($elevation), $endMassRatio);
    }

    /** The same strike with the cue pointing elsewhere (radians). */
    public function withDirection(float $direction): self
    {
        return new self($direction, $this->speed, $this->side, $this->height, $this->elevation, $this->endMassRatio);
    }

    /** The same strike at another speed, m/s. */
    public function withSpeed(float $speed): self
    {
        return new self($this->direction, $speed, $this->side, $this->height, $this->elevation, $this->endMassRatio);
    }

    /**
     * Angle by which the cue ball leaves the cue's line, radians, positive to the left: squirt, away from the side that is
     * hit. Shepard, Everything You Always Wanted to Know About Cue Ball Squirt (1997); Cross, Am. J. Phys. 76 (2008).
     */
    public function squirt(): float
    {
        $rest = 1 - $this->side ** 2;

        return atan(2.5 * $this->side * \sqrt($rest) / (1 + $this->endMassRatio + 2.5 * $rest));
    }

    /**
     * Velocity and spin of the cue ball just after the hit.
     *
     * @return array{float, float, float, float, float} vx, vy in m/s; wx, wy, wz in rad/s
     */
    public function velocities(float $ballRadius): array
    {
        $departure = $this->direction + $this->squirt();
        $fx = cos($departure);
        $fy = sin($departure);
        $spin = 2.5 * $this->speed / $ballRadius;
        $along = $spin * $this->side * tan($this->elevation);
        $across = $spin * $this->height / cos($this->elevation);

        return [
            $this->speed * $fx,
            $this->speed * $fy,
            $along * $fx - $across * $fy,
            $along * $fy + $across * $fx,
            $spin * $this->side,
        ];
    }
}
