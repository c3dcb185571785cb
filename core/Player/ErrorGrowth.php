<?php

declare(strict_types=1);

namespace ZigLane\Core\Player;

/**
 * How a player's errors grow over those of an ordinary shot (level cue, medium speed), and what he misjudges where he must judge what the
 * program computes. The factors are common practice, to be fitted from a log: docs/physics.md, section 7.
 */
final readonly class ErrorGrowth
{
    /** @var array<string, array{float, float, float}> default, least, most */
    public const LIMITS = [
        'speedFrom' => [2.0, 0.0, 20.0],
        'speedRange' => [3.0, 0.1, 1.0e6],
        'elevationRange' => [20.0, 1.0, 1.0e6],
        'bridge' => [1.3, 1.0, 10.0],
        'thinFrom' => [60.0, 0.0, 90.0],
        'thin' => [1.5, 1.0, 10.0],
        'kick' => [0.7, 0.0, 10.0],
        'combination' => [0.5, 0.0, 10.0],
    ];

    /**
     * @param float $speedFrom      meant speed from which direction and tip grow, m/s
     * @param float $speedRange     so much faster they have doubled, m/s: 1 + ((V - from) / range)^2
     * @param float $elevationRange raised so far direction, tip and speed have doubled, degrees: 1 + elevation / range
     * @param float $bridge         factor of the direction where the bridge hand lies on the rail or over a ball
     * @param float $thinFrom       cut from which the direction grows, degrees
     * @param float $thin           and its factor there
     * @param float $kick           deviation of the judged angle off each cushion before the called contact, degrees
     * @param float $combination    deviation of the judged line of centres in a combination or carom, degrees
     */
    public function __construct(
        public float $speedFrom = self::LIMITS['speedFrom'][0],
        public float $speedRange = self::LIMITS['speedRange'][0],
        public float $elevationRange = self::LIMITS['elevationRange'][0],
        public float $bridge = self::LIMITS['bridge'][0],
        public float $thinFrom = self::LIMITS['thinFrom'][0],
        public float $thin = self::LIMITS['thin'][0],
        public float $kick = self::LIMITS['kick'][0],
        public float $combination = self::LIMITS['combination'][0],
    ) {
    }

    /** A player whose every shot is an ordinary one. */
    public static function none(): self
    {
        return new self(speedRange: 1.0e6, elevationRange: 1.0e6, bridge: 1.0, thin: 1.0, kick: 0.0, combination: 0.0);
    }

    /** Factor of direction and tip at a meant speed, m/s. */
    public function bySpeed(float $speed): float
    {
        $over = ($speed - $this->speedFrom) / $this->speedRange;

        return $over > 0.0 ? 1 + $over * $over : 1.0;
    }

    /** Factor of direction, tip and speed with the cue raised, degrees. */
    public function byElevation(float $degrees): float
    {
        return 1 + $degrees / $this->elevationRange;
    }

    /** @return array<string, float> every field, in the order of LIMITS */
    public function toArray(): array
    {
        /** @var array<string, float> $fields */
        $fields = get_object_vars($this);

        return $fields;
    }
}
