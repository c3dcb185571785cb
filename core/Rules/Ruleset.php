<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;

/**
 * What one game is: every question whose answer differs between games, by the world standard rules (WPA; from memory) with the choices of
 * RuleOptions. Callers ask here and compare no games. A game of its own class in Games\, with its case in Game and its sentences, is whole.
 */
abstract readonly class Ruleset
{
    /**
     * @param int                                $highest     number of an object ball
     * @param Ball|null                          $moneyBall   the ball that decides a rack; null where none does
     * @param bool                               $isRotation  the lowest ball is met first
     * @param bool                               $hasGroups   each player has balls of his own
     * @param bool                               $countsBalls balls are counted over racks, not racks
     * @param list<int>                          $rows        balls in each row of the rack, from the apex on
     * @param array{float, float}|null           $breakStroke the usual break: across the table in diamonds from the right rail, and
     *                                                        the cue ball's speed, m/s; null: it opens safe
     * @param list<value-of<RuleOptions::NAMES>> $options     names of the choices that it has, but those of a room
     */
    public function __construct(
        public int $highest,
        public ?Ball $moneyBall,
        public bool $isRotation,
        public bool $hasGroups,
        public bool $countsBalls,
        public array $rows,
        public ?array $breakStroke,
        public array $options,
    ) {
    }

    /** @return list<Ball> the object balls */
    final public function balls(): array
    {
        return array_map(Ball::from(...), range(1, $this->highest));
    }

    /** @return list<Ball> those of them that are on the table, in the order of the game */
    final public function lying(Layout $layout): array
    {
        return array_values(array_filter($this->balls(), $layout->has(...)));
    }

    /**
     * The balls that may be met first.
     *
     * @param list<Ball> $balls on the table, in the order of the game
     *
     * @return list<Ball>
     */
    abstract public function on(array $balls, ?Group $group): array;

    /**
     * Those of them that may be shot at a pocket.
     *
     * @param list<Ball> $on
     *
     * @return list<Ball>
     */
    public function toPot(array $on): array
    {
        return $on;
    }

    /** The group that a player of this rack has: null in games without. */
    public function group(?Group $group): ?Group
    {
        return null;
    }

    abstract public function judge(Played $shot): Verdict;

    abstract public function judgeBreak(BrokenRack $break): BreakVerdict;

    /** @return array<int, Ball> balls with a place of their own in the rack, row by row from the apex and from right to left */
    abstract public function places(Randomness $random): array;

    /** Whether whatever drops on a legal shot counts: nothing is called. */
    public function anyCounts(RuleOptions $options): bool
    {
        return false;
    }

    /** Whether a third foul in a row loses the rack. */
    public function losesByThirdFoul(RuleOptions $options): bool
    {
        return false;
    }

    /** Whether a foul now loses the rack. */
    final public function isLostByFoul(Turn $turn, RuleOptions $options): bool
    {
        return $turn->isThird() && $this->losesByThirdFoul($options);
    }

    /** What the next player gets of the cue ball after a foul, or after a scratch. */
    public function afterFoul(bool $isScratch): BallInHand
    {
        return BallInHand::Anywhere;
    }

    /**
     * How a rack is decided by its money ball, as a log knows it.
     *
     * @param bool       $isCalled it dropped as called
     * @param list<Ball> $others   the other object balls that lay there
     *
     * @return bool|null won or lost by the shooter; null where the ball comes back
     */
    abstract public function decided(
        bool $isFoul, bool $isBreak, bool $isCalled, array $others, ?Group $group, RuleOptions $options,
    ): ?bool;

    /** What must be called. */
    public function call(RuleOptions $options): Fact
    {
        return $this->anyCounts($options) ? new Fact('rules.slop') : new Fact('rules.called');
    }
}
