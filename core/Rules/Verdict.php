<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

use ZigLane\Core\Name\Ball;

/** What a shot comes to by the rules. */
final readonly class Verdict
{
    /**
     * @param list<Foul> $fouls
     * @param bool       $goesOn       the shooter shoots again, or has won
     * @param bool|null  $isWon        true: the game is won with this shot; false: it is lost; null: neither
     * @param list<Ball> $spots        balls that dropped and come back to the long string
     * @param Group|null $group        the shooter's group after the shot, in eight-ball
     * @param int        $points       balls that count less what a foul costs, in straight pool
     * @param BallInHand $inHand       what the other player gets of the cue ball
     * @param bool       $othersChoice the other player may take the shot or give it back: in ten-ball, after a ball that was not called
     */
    public function __construct(
        public array $fouls,
        public bool $goesOn,
        public ?bool $isWon,
        public array $spots,
        public ?Group $group,
        public int $points = 0,
        public BallInHand $inHand = BallInHand::None,
        public bool $othersChoice = false,
    ) {
    }

    public function isFoul(): bool
    {
        return [] !== $this->fouls;
    }

    /** Whether the other player gets the cue ball in hand anywhere, or has won. */
    public function givesAll(): bool
    {
        return BallInHand::Anywhere === $this->inHand || false === $this->isWon;
    }
}
