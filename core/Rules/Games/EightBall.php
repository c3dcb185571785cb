<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules\Games;

use ZigLane\Core\Name\Ball;
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
 * Eight-ball: any ball but the 8 while the table is open, then those of one's group, and the 8 when none of them is left. Ball and pocket
 * are called. The 8 loses where it drops otherwise, but on the break.
 */
final readonly class EightBall extends Ruleset
{
    public function __construct()
    {
        parent::__construct(15, Ball::Eight, false, true, false, [1, 2, 3, 4, 5], [2.0, 9.0], ['eightOnBreak', 'eightReracks']);
    }

    public function on(array $balls, ?Group $group): array
    {
        $own = array_values(array_filter($balls, ($group ?? Group::Open)->has(...)));

        return [] !== $own ? $own : array_values(array_filter($balls, static fn (Ball $ball): bool => Ball::Eight === $ball));
    }

    /** On an open table not the 8. */
    public function toPot(array $on): array
    {
        return \count($on) > 1 ? array_values(array_filter($on, static fn (Ball $ball): bool => Ball::Eight !== $ball)) : $on;
    }

    public function group(?Group $group): Group
    {
        return $group ?? Group::Open;
    }

    public function judge(Played $shot): Verdict
    {
        $group = $this->group($shot->turn->group);
        if ($shot->dropped(Ball::Eight)) {
            // The 8 wins only when it is on, called and no foul is made; else it loses the game.
            $isOn = [Ball::Eight] === $this->on($this->lying($shot->before), $group);
            $wins = !$shot->isFoul() && $isOn && Ball::Eight === $shot->called;

            return new Verdict($shot->fouls, $wins, $wins, [], $group, 0, $shot->inHand());
        }
        $isOpen = Group::Open === $group;
        $goesOn = !$shot->isFoul() && null !== $shot->called && ($isOpen || $group->has($shot->called));
        if ($goesOn && $isOpen) {
            $group = Group::Solids->has($shot->called) ? Group::Solids : Group::Stripes;
        }

        return new Verdict($shot->fouls, $goesOn, null, [], $group, 0, $shot->inHand());
    }

    /** After a break that is not legal the other player takes the table, or has it racked and broken again by either. */
    public function judgeBreak(BrokenRack $break): BreakVerdict
    {
        $fouls = $break->fouls(false);
        $dropped = $break->dropped(Ball::Eight);
        $wins = $dropped && [] === $fouls && $break->options->eightOnBreak;
        $again = [] === $fouls ? BreakChoice::BreakAgain : BreakChoice::BreakSelf;
        $choices = match (true) {
            !$break->isOpen() => [BreakChoice::Accept, BreakChoice::BreakSelf, BreakChoice::BreakAgain],
            $dropped && !$wins => $break->options->eightReracks ? [$again] : [BreakChoice::SpotEight, $again],
            default => [],
        };

        return new BreakVerdict(
            $fouls, $break->isOpen(), $break->driven, [] === $fouls && [] !== $break->made, $wins, $dropped && !$wins ? [Ball::Eight] : [],
            [] === $fouls ? BallInHand::None : BallInHand::Kitchen, 0, $choices, false,
        );
    }

    /** The 8 in the middle and one of each group in the rear corners. */
    public function places(Randomness $random): array
    {
        $corners = $random->shuffled([
            Ball::from(1 + (int) floor(7 * $random->share())),
            Ball::from(9 + (int) floor(7 * $random->share())),
        ]);

        return [4 => Ball::Eight, 10 => $corners[0], 14 => $corners[1]];
    }

    public function decided(bool $isFoul, bool $isBreak, bool $isCalled, array $others, ?Group $group, RuleOptions $options): ?bool
    {
        if ($isBreak) {
            return $options->eightOnBreak && !$isFoul ? true : null;
        }

        return !$isFoul && $isCalled && [] === array_filter($others, $this->group($group)->has(...));
    }
}
