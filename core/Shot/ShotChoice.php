<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Error\IllegalStroke;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Table\Pocket;

/** What a player calls: this ball, to the middle of this pocket, with this stroke. */
final readonly class ShotChoice
{
    /** Most that a pocket can be cheated by, metres: half of the widest mouth. */
    public const MOST_ASIDE = 0.065;

    /**
     * @param float $aside cheating the pocket: how far to the left of the middle of the mouth the ball is to pass, seen from it, metres
     *
     * @throws IllegalStroke If that is more than any pocket takes
     */
    public function __construct(public Ball $ball, public Pocket $pocket, public Stroke $stroke, public float $aside = 0.0)
    {
        if (!(abs($aside) <= self::MOST_ASIDE)) {
            throw IllegalStroke::outOfRange('side of the pocket', 1000 * $aside, -1000 * self::MOST_ASIDE, 1000 * self::MOST_ASIDE, 'mm');
        }
        if (Ball::Cue === $ball) {
            throw new \InvalidArgumentException('The cue ball is not an object ball.');
        }
    }
}
