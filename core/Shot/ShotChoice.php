<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Position\Angle;
use ZigLane\Core\Stroke\Stroke;

/**
 * What a player calls: this ball, to the middle of this pocket, with this stroke. A shot that gets there another way (over another
 * ball, off a cushion) is aimed by hand: it holds the cue's own direction. So is a safety, of which the ball is the one that is met first,
 * and nothing is called.
 */
final readonly class ShotChoice
{
    /**
     * Most that a ball can be sent beside the middle of a mouth, metres: half of the widest mouth, and as much again of the rail before it.
     */
    public const MOST_ASIDE = 0.12;

    /**
     * @param float      $aside     cheating the pocket: how far to the left of the middle of the mouth the ball is to pass, seen from it,
     *                              metres
     * @param float|null $direction of the cue, radians, where the shot is aimed by hand; null: found by AimFinder
     *
     * @throws IllegalStroke If a number is out of its range
     */
    public function __construct(
        public Ball $ball,
        public Pocket $pocket,
        public Stroke $stroke,
        public float $aside = 0.0,
        public ?float $direction = null,
        public bool $isSafety = false,
    ) {
        if (null !== $direction && !is_finite($direction)) {
            throw IllegalStroke::notANumber('direction');
        }
        if (!(abs($aside) <= self::MOST_ASIDE)) {
            throw IllegalStroke::outOfRange('side of the pocket', 1000 * $aside, -1000 * self::MOST_ASIDE, 1000 * self::MOST_ASIDE, 'mm');
        }
        if (Ball::Cue === $ball) {
            throw new \InvalidArgumentException('The cue ball is not an object ball.');
        }
    }

    /**
     * Whether another shot is this one to a player: the same pot aimed at its pocket, whatever the stroke; or one aimed by hand at the same
     * ball whose stroke he could not tell from this (a degree of the cue, a fifth of the speed, a quarter of the radius).
     */
    public function isAbout(self $other): bool
    {
        if (
            $this->ball !== $other->ball
            || $this->isSafety !== $other->isSafety
            || (null === $this->direction) !== (null === $other->direction)
            || (!$this->isSafety && $this->pocket !== $other->pocket)
        ) {
            return false;
        }

        return null === $this->direction || null === $other->direction || (
            rad2deg(abs(Angle::wrapped($this->direction - $other->direction))) < 1.0
            && abs($this->stroke->speed / $other->stroke->speed - 1) < 0.2
            && abs($this->stroke->tip->side - $other->stroke->tip->side) < 0.25
            && abs($this->stroke->tip->height - $other->stroke->tip->height) < 0.25
        );
    }

    /** The same call with another stroke. */
    public function withStroke(Stroke $stroke): self
    {
        return new self($this->ball, $this->pocket, $stroke, $this->aside, $this->direction, $this->isSafety);
    }
}
