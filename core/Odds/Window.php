<?php

declare(strict_types=1);

namespace ZigLane\Core\Odds;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;
use ZigLane\Core\Table\Cue;

/** How far the cue may turn from the aim of a shot that pots before the ball stays out, everything else as meant. */
final readonly class Window
{
    /** Never looked for beyond this, radians. */
    private const WIDEST = 0.1;
    private const ROUNDS = 12;

    private function __construct(
        /** Radians to the left and to the right of the aim, both >= 0. */
        public float $left,
        public float $right,
        /**
         * @var array{float, float} how far beside the middle of the mouth the object ball would pass there, metres, on the cue's left and
         *                          right edge; nought for a shot aimed by hand
         */
        public array $atPocket,
    ) {
    }

    public static function of(SolvedShot $shot, ShotSolver $solver): self
    {
        $rollouts = $solver->simulator->rollouts($shot->layout);
        $pots = static fn (float $turn): bool => $rollouts->play(
            $shot->strike->withDirection($shot->strike->direction + $turn),
        )->pocketOf($shot->choice->ball) === $shot->choice->pocket;
        if (!$pots(0.0)) {
            return new self(0.0, 0.0, [0.0, 0.0]);
        }
        $edges = $misses = [];
        foreach ([1.0, -1.0] as $sign) {
            // Outwards in growing steps, so that the first edge is found and not one beyond a gap.
            $in = 0.0;
            $out = 0.0005;
            // Ends: the step grows.
            while ($out < self::WIDEST && $pots($sign * $out)) {
                $in = $out;
                $out *= 1.5;
            }
            for ($round = 0; $round < self::ROUNDS; ++$round) {
                $middle = 0.5 * ($in + $out);
                $pots($sign * $middle) ? $in = $middle : $out = $middle;
            }
            $edges[] = $in;
            $misses[] = null !== $shot->choice->direction
                ? 0.0
                : abs(
                    $solver->aims->missAt(
                        $shot->layout->spot(Ball::Cue),
                        $shot->layout->spot($shot->choice->ball),
                        $shot->choice,
                        $shot->strike->direction + $sign * $in,
                    )
                        ?? 0.0,
                );
        }

        return new self($edges[0], $edges[1], [$misses[0], $misses[1]]);
    }
}
