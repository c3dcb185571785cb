<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules\Games;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\BreakVerdict;
use ZigLane\Core\Rules\BrokenRack;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Played;
use ZigLane\Core\Rules\RuleOptions;
use ZigLane\Core\Rules\Ruleset;
use ZigLane\Core\Rules\Verdict;

/**
 * Games of the lowest ball: it is met first, the highest decides the rack, every foul gives the cue ball anywhere, and a third one in a
 * row loses. After a legal break the next shot may be a push-out.
 */
abstract readonly class Rotation extends Ruleset
{
    /** Place of the ball in the middle of the rack. */
    private const MIDDLE = 4;

    /**
     * @param list<int>                          $rows
     * @param array{float, float}                $breakStroke
     * @param list<value-of<RuleOptions::NAMES>> $options
     */
    public function __construct(private Ball $last, array $rows, array $breakStroke, array $options)
    {
        parent::__construct($last->value, $last, true, false, false, $rows, $breakStroke, [...$options, 'noThirdFoul']);
    }

    /** Whether the last ball wins before it is the only one. */
    abstract protected function winsEarly(RuleOptions $options): bool;

    /** Whether it wins on the break. */
    abstract protected function winsOnBreak(): bool;

    public function on(array $balls, ?Group $group): array
    {
        return \array_slice($balls, 0, 1);
    }

    public function judge(Played $shot): Verdict
    {
        $calls = !$this->anyCounts($shot->options);
        $goesOn = !$shot->isFoul() && ($calls ? null !== $shot->called : [] !== $shot->made);
        $dropped = $shot->dropped($this->last);
        $isLast = 1 === \count($this->lying($shot->before));
        $wins = $dropped && $goesOn && (!$calls || $shot->called === $this->last) && ($this->winsEarly($shot->options) || $isLast);
        $loses = $shot->isFoul() && $this->isLostByFoul($shot->turn, $shot->options);

        return new Verdict(
            $shot->fouls,
            $goesOn,
            $wins ? true : ($loses ? false : null),
            $dropped && !$wins ? [$this->last] : [],
            null,
            0,
            $shot->inHand(),
            $calls && !$shot->isFoul() && !$goesOn && [] !== $shot->made,
        );
    }

    public function judgeBreak(BrokenRack $break): BreakVerdict
    {
        $isLegal = $break->isOpen();
        $fouls = $break->fouls(!$isLegal);
        $dropped = $break->dropped($this->last);
        $wins = $dropped && $this->winsOnBreak() && [] === $fouls;

        return new BreakVerdict(
            $fouls, $isLegal, $break->driven, [] === $fouls && [] !== $break->made, $wins, $dropped && !$wins ? [$this->last] : [],
            [] === $fouls ? BallInHand::None : BallInHand::Anywhere, 0, [], [] === $fouls && !$wins,
        );
    }

    public function places(Randomness $random): array
    {
        return [0 => Ball::One, self::MIDDLE => $this->last];
    }

    public function losesByThirdFoul(RuleOptions $options): bool
    {
        return !$options->noThirdFoul;
    }

    public function decided(bool $isFoul, bool $isBreak, bool $isCalled, array $others, ?Group $group, RuleOptions $options): ?bool
    {
        $counts = $this->anyCounts($options) || $isCalled;
        $isInTime = $this->winsEarly($options) || [] === $others;

        return !$isFoul && $counts && $isInTime && (!$isBreak || $this->winsOnBreak()) ? true : null;
    }
}
