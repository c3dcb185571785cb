<?php

declare(strict_types=1);

namespace ZigLane\Core\Reading;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Position\Side;

/** One ball and one pocket, read. */
final readonly class PocketReading
{
    /** A pocket of which less is open is as good as shut. */
    private const REAL = 0.05;

    /**
     * @param float                                                                     $openShare how much of the pocket the ball can use,
     *                                                                                             0 (shut) to 1
     * @param float                                                                     $odds      of the pot from where the cue ball is,
     *                                                                                             with the usual stroke; 0 without a cue
     *                                                                                             ball
     * @param float|null                                                                $cut       degrees; null where it would be 90 or
     *                                                                                             more, or without a cue ball
     * @param array{left: array{float, Ball}|null, right: array{float, Ball}|null}      $beside    gaps beside the object ball's way, metres
     * @param array{left: array{float, Ball}|null, right: array{float, Ball}|null}|null $way       gaps beside the cue ball's way
     * @param list<Ball>                                                                $blockers  balls in either way
     * @param Side|null                                                                 $openSide  seen from the ball, where it goes to that
     *                                                                                             side of the pocket only
     */
    public function __construct(
        public Pocket $pocket,
        public float $openShare,
        public float $odds,
        public ?float $cut,
        public array $beside,
        public ?array $way,
        public array $blockers,
        public ?Side $openSide = null,
    ) {
    }

    /** Whether the ball goes to it at all, from somewhere. */
    public function isReal(): bool
    {
        return $this->openShare > self::REAL;
    }
}
