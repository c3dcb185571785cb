<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

use ZigLane\Core\Position\Ball;

/** What a shot comes to by the rules. */
final readonly class Verdict
{
    /**
     * @param list<Foul> $fouls
     * @param bool       $goesOn the shooter shoots again, or has won
     * @param bool|null  $isWon  true: the game is won with this shot; false: it is lost; null: neither
     * @param list<Ball> $spots  balls that dropped and come back to the foot spot
     * @param Group|null $group  the shooter's group after the shot, in eight-ball
     * @param int        $points balls that count, in straight pool; a foul takes one
     */
    public function __construct(
        public array $fouls,
        public bool $goesOn,
        public ?bool $isWon,
        public array $spots,
        public ?Group $group,
        public int $points = 0,
    ) {
    }

    public function isFoul(): bool
    {
        return [] !== $this->fouls;
    }

    /** Whether the other player gets the ball in hand, or has won. */
    public function givesAll(): bool
    {
        return $this->isFoul() || false === $this->isWon;
    }
}
