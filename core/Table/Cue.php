<?php

declare(strict_types=1);

namespace ZigLane\Core\Table;

/**
 * A cue: ball mass over the effective mass of its end (decides squirt; Shepard 1997, Cross 2008), width of the tip and radius
 * of its dome in metres.
 */
final readonly class Cue
{
    public const END_MASS_RATIO = [30.0, 5.0, 200.0];

    /** Farthest contact from the centre that does not miscue, as a fraction of the ball's radius: common practice. */
    public const MISCUE_LIMIT = 0.5;

    /** @throws IllegalTable If the ratio lies outside END_MASS_RATIO */
    public function __construct(
        public float $endMassRatio = self::END_MASS_RATIO[0],
        public float $tipWidth = 0.01275,
        public float $tipDome = 0.009,
    ) {
        if (!($endMassRatio >= self::END_MASS_RATIO[1] && $endMassRatio <= self::END_MASS_RATIO[2])) {
            throw IllegalTable::outOfRange('endMassRatio', $endMassRatio, self::END_MASS_RATIO[1], self::END_MASS_RATIO[2]);
        }
    }

    /** How far the contact moves from the centre when the cue is moved by one tip, as a fraction of the ball's radius. */
    public function offsetPerTip(float $ballRadius): float
    {
        return $this->tipWidth / ($ballRadius + $this->tipDome);
    }
}
