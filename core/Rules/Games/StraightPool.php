<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules\Games;

use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\BreakChoice;
use ZigLane\Core\Rules\BreakVerdict;
use ZigLane\Core\Rules\BrokenRack;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Played;
use ZigLane\Core\Rules\RuleOptions;
use ZigLane\Core\Rules\Ruleset;
use ZigLane\Core\Rules\Verdict;

/**
 * Straight pool: any ball, called with its pocket; each counts one, and fourteen are racked again. A foul costs one, the third in a row
 * fifteen more; the cue ball stays where it lies but for a scratch.
 */
final readonly class StraightPool extends Ruleset
{
    /** What a third foul in a row costs besides the one for the foul. */
    private const SERIES = 15;
    /** Object balls that an opening break drives to a cushion, and what it costs that does not. */
    private const DRIVEN = 2;
    private const BREAKING_FOUL = 2;

    public function __construct()
    {
        parent::__construct(15, null, false, false, true, [1, 2, 3, 4, 5], null, []);
    }

    public function on(array $balls, ?Group $group): array
    {
        return $balls;
    }

    public function judge(Played $shot): Verdict
    {
        $goesOn = !$shot->isFoul() && null !== $shot->called;
        $cost = $shot->turn->isThird() ? 1 + self::SERIES : 1;

        // Balls that drop without the called one, or on a foul, come back.
        return new Verdict(
            $shot->fouls,
            $goesOn,
            null,
            $goesOn ? [] : $shot->made,
            null,
            $goesOn ? \count($shot->made) : ($shot->isFoul() ? -$cost : 0),
            $this->afterFoul($shot->ending->isScratch()),
        );
    }

    public function judgeBreak(BrokenRack $break): BreakVerdict
    {
        // Nothing is called here: a ball that drops comes back.
        $isLegal = $break->cueIsDriven && $break->driven >= self::DRIVEN;
        $fouls = $break->fouls(!$isLegal);

        return new BreakVerdict(
            $fouls, $isLegal, $break->driven, false, false, $break->made,
            $this->afterFoul($break->isScratch),
            $isLegal ? -\count($fouls) : -self::BREAKING_FOUL,
            $isLegal ? [] : [BreakChoice::Accept, BreakChoice::BreakAgain],
            false,
        );
    }

    public function places(Randomness $random): array
    {
        return [];
    }

    public function afterFoul(bool $isScratch): BallInHand
    {
        return $isScratch ? BallInHand::Kitchen : BallInHand::None;
    }

    /** No ball decides it. */
    public function decided(bool $isFoul, bool $isBreak, bool $isCalled, array $others, ?Group $group, RuleOptions $options): ?bool
    {
        return null;
    }
}
