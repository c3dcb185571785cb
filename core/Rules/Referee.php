<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Pocket;

/**
 * Judges a shot by the rules of its game: the world standard rules (WPA; from memory), with the choices of RuleOptions. Every rule has
 * its row in tests/Core/Rules/RefereeTest.
 *
 * A ball that lies frozen to a cushion at the start counts as driven to it only when it leaves and comes back or meets another
 * cushion; the simulation makes no event for the first touch, so this holds by itself. Not judged: double hits, pushes, balls
 * off the table (the model has none), three fouls in a row.
 */
final readonly class Referee
{
    public function __construct(private Game $game, private RuleOptions $options = new RuleOptions())
    {
    }

    /**
     * @param Layout     $before the balls before the shot
     * @param Group|null $group  the shooter's in eight-ball; open or null on an open table
     * @param Ball|null  $ball   the called ball, with its pocket; null: nothing is called, or a safety
     */
    public function judge(Layout $before, ?Group $group, Ending $ending, ?Ball $ball, ?Pocket $pocket): Verdict
    {
        $fouls = $this->fouls($before, $group, $ending);
        $called = null !== $ball && null !== $pocket && $ending->pocketOf($ball) === $pocket;

        return match ($this->game) {
            Game::NineBall => $this->rotation(
                $before, $ending, $fouls, Ball::Nine, $called ? $ball : null, $this->options->callsNine,
                true,
            ),
            Game::TenBall => $this->rotation($before, $ending, $fouls, Ball::Ten, $called ? $ball : null, true, $this->options->tenAnyTime),
            Game::EightBall => $this->eightBall($before, $group, $ending, $fouls, $called ? $ball : null),
            Game::StraightPool => $this->straightPool($ending, $fouls, $called),
        };
    }

    /** @return list<Foul> */
    private function fouls(Layout $before, ?Group $group, Ending $ending): array
    {
        $fouls = $ending->isScratch() ? [Foul::Scratch] : [];
        if (null === $ending->first) {
            return [...$fouls, Foul::NothingHit];
        }
        if (!\in_array($ending->first, BallsOn::of($this->game, $before, $group), true)) {
            $fouls[] = Foul::WrongBall;
        }
        if ([] === self::made($ending) && !$ending->meetsCushion) {
            $fouls[] = Foul::NoCushion;
        }

        return $fouls;
    }

    /**
     * Nine-ball and ten-ball: on after any ball, or only after the called one; the last ball wins, early or only as the last.
     *
     * @param list<Foul> $fouls
     */
    private function rotation(
        Layout $before, Ending $ending, array $fouls, Ball $money, ?Ball $called, bool $calls,
        bool $winsEarly,
    ): Verdict {
        $made = self::made($ending);
        $goesOn = [] === $fouls && ($calls ? null !== $called : [] !== $made);
        $dropped = \in_array($money, $made, true);
        $isLast = BallsOn::of($this->game, $before, null) === [$money];
        $wins = $dropped && $goesOn && (!$calls || $called === $money) && ($winsEarly || $isLast);

        return new Verdict($fouls, $goesOn, $wins ? true : null, $dropped && !$wins ? [$money] : [], null);
    }

    /** @param list<Foul> $fouls */
    private function eightBall(Layout $before, ?Group $group, Ending $ending, array $fouls, ?Ball $called): Verdict
    {
        $isOpen = null === $group || Group::Open === $group;
        $group = $isOpen ? Group::Open : $group;
        if (null !== $ending->pocketOf(Ball::Eight)) {
            // The 8 wins only when it is on, called and no foul is made; else it loses the game.
            $isOn = BallsOn::of($this->game, $before, $group) === [Ball::Eight];
            $wins = [] === $fouls && $isOn && Ball::Eight === $called;

            return new Verdict($fouls, $wins, $wins, [], $group);
        }
        $goesOn = [] === $fouls && null !== $called && ($isOpen || $group->has($called));
        if ($goesOn && $isOpen) {
            $group = Group::Solids->has($called) ? Group::Solids : Group::Stripes;
        }

        return new Verdict($fouls, $goesOn, null, [], $group);
    }

    /** @param list<Foul> $fouls */
    private function straightPool(Ending $ending, array $fouls, bool $called): Verdict
    {
        $made = self::made($ending);
        $goesOn = [] === $fouls && $called;

        // Balls that drop without the called one, or on a foul, come back.
        return new Verdict($fouls, $goesOn, null, $goesOn ? [] : $made, null, $goesOn ? \count($made) : ([] === $fouls ? 0 : -1));
    }

    /**
     * The break of eight-ball: the 8 on a legal break wins or is spotted, as the players choose; the table stays open.
     */
    public function judgeEightOnBreak(Ending $ending): Verdict
    {
        $fouls = $ending->isScratch() ? [Foul::Scratch] : [];
        $made = self::made($ending);
        $eight = \in_array(Ball::Eight, $made, true);
        $wins = $eight && [] === $fouls && $this->options->eightOnBreak;

        return new Verdict($fouls, [] === $fouls && [] !== $made, $wins ? true : null, $eight && !$wins ? [Ball::Eight] : [], Group::Open);
    }

    /** @return list<Ball> the object balls that dropped */
    private static function made(Ending $ending): array
    {
        $made = [];
        foreach (array_keys($ending->pocketed) as $number) {
            if (0 !== $number) {
                $made[] = Ball::from($number);
            }
        }

        return $made;
    }
}
