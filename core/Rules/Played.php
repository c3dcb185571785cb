<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;

/** A shot that was played, as a game judges it. */
final readonly class Played
{
    /**
     * @param Layout     $before the balls before the shot
     * @param list<Foul> $fouls  those of every game, found already
     * @param list<Ball> $made   the object balls that dropped
     * @param Ball|null  $called the called ball, where it dropped in its pocket
     */
    public function __construct(
        public Layout $before,
        public Turn $turn,
        public Ending $ending,
        public array $fouls,
        public array $made,
        public ?Ball $called,
        public RuleOptions $options,
    ) {
    }

    public function isFoul(): bool
    {
        return [] !== $this->fouls;
    }

    public function dropped(Ball $ball): bool
    {
        return \in_array($ball, $this->made, true);
    }

    /** What the other player gets where every foul gives the cue ball anywhere. */
    public function inHand(): BallInHand
    {
        return $this->isFoul() ? BallInHand::Anywhere : BallInHand::None;
    }
}
