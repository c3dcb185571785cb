<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

use ZigLane\Core\Name\Ball;

/** What a break comes to by the rules. */
final readonly class BreakVerdict
{
    /**
     * @param list<Foul>        $fouls   scratch; in nine- and ten-ball also a break that is not legal
     * @param bool              $isLegal a ball dropped, or enough were driven to a cushion
     * @param int               $driven  object balls that were driven to a cushion
     * @param bool              $goesOn  the breaker shoots on
     * @param bool              $isWon   the breaker has won
     * @param list<Ball>        $spots   balls that dropped and come back
     * @param BallInHand        $inHand  what the other player gets of the cue ball
     * @param int               $points  in straight pool: less two for a breaking foul, less one for a scratch on a legal one
     * @param list<BreakChoice> $choices of the player who comes to the table, where there is more than one
     * @param bool              $mayPush whoever shoots next may push out
     */
    public function __construct(
        public array $fouls,
        public bool $isLegal,
        public int $driven,
        public bool $goesOn,
        public bool $isWon,
        public array $spots,
        public BallInHand $inHand,
        public int $points,
        public array $choices,
        public bool $mayPush,
    ) {
    }
}
