<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Position\Ball;
use ZigLane\Core\Table\Pocket;

/** What a player calls: this ball, to the middle of this pocket, with this stroke. */
final readonly class ShotChoice
{
    public function __construct(public Ball $ball, public Pocket $pocket, public Stroke $stroke)
    {
        if (Ball::Cue === $ball) {
            throw new \InvalidArgumentException('The cue ball is not an object ball.');
        }
    }
}
