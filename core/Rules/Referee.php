<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Equipment;

/**
 * Judges a shot by the rules of its game: the world standard rules (WPA; from memory), with the choices of RuleOptions. Every rule has
 * its row in tests/Core/Rules/RefereeTest. Not judged: balls off the table (the model has none), breaks (BreakReferee).
 */
final readonly class Referee
{
    /** A ball nearer to a rail than this is frozen to it, metres. */
    public const FROZEN = 0.001;
    /** A frozen ball that meets its rail within this of being struck has not left it, seconds. */
    private const PRESSED = 0.1;

    public function __construct(
        private Game $game,
        private RuleOptions $options = new RuleOptions(),
        private Equipment $equipment = new Equipment(),
    ) {
    }

    public static function of(Rack $rack): self
    {
        return new self($rack->game, $rack->rules, $rack->equipment);
    }

    /**
     * @param Layout      $before the balls before the shot
     * @param Ball|null   $ball   the called ball, with its pocket; null: nothing is called, or a safety
     * @param Strike|null $strike the stroke, for hits close before the cue ball; null where those do not matter
     */
    public function judge(
        Layout $before, Turn $turn, Ending $ending, ?Ball $ball, ?Pocket $pocket, ?Strike $strike = null,
    ): Verdict {
        $fouls = $this->fouls($before, $turn, $ending, $strike);
        $called = null !== $ball && null !== $pocket && $ending->pocketOf($ball) === $pocket ? $ball : null;

        return $this->game->rules()->judge(
            new Played($before, $turn, $ending, $fouls, self::made($ending), $called, $this->options),
        );
    }

    /** @return list<Foul> */
    private function fouls(Layout $before, Turn $turn, Ending $ending, ?Strike $strike): array
    {
        $fouls = $ending->isScratch() ? [Foul::Scratch] : [];
        if (null !== $strike && null !== NearContact::of($before, $strike, $this->equipment)) {
            $fouls[] = Foul::DoubleHit;
        }
        if (null === $ending->first) {
            return [...$fouls, Foul::NothingHit];
        }
        if (!\in_array($ending->first, BallsOn::of($this->game, $before, $turn->group), true)) {
            $fouls[] = Foul::WrongBall;
        }
        if ($turn->fromKitchen && !$this->crossesString($before, $ending, $ending->first)) {
            $fouls[] = Foul::BehindString;
        }
        if ([] === self::made($ending) && !$this->isDriven($before, $ending)) {
            $fouls[] = Foul::NoCushion;
        }

        return $fouls;
    }

    /**
     * Whether the first ball lies beyond the head string, or the cue ball crosses it first: that is told by what it met before, so that a
     * kick off a long rail behind the string, which may cross it, does not count.
     */
    private function crossesString(Layout $before, Ending $ending, Ball $first): bool
    {
        if ($before->spot($first)->x > $this->equipment->table->length / 4) {
            return true;
        }
        foreach ($ending->before as $met) {
            if (Rail::Foot === $met || ($met instanceof Pocket && Pocket::HeadRight !== $met && Pocket::HeadLeft !== $met)) {
                return true;
            }
        }

        return false;
    }

    /**
     * Whether any ball is driven to a cushion after the contact: a rail or the jaw of a pocket. A ball that is frozen to a rail is driven
     * to it only when it leaves and comes back.
     */
    private function isDriven(Layout $before, Ending $ending): bool
    {
        foreach ($ending->driven as [$ball, $where, $seconds]) {
            if (!$where instanceof Rail || $seconds >= self::PRESSED || !$this->isFrozen($before, $ball, $where)) {
                return true;
            }
        }

        return false;
    }

    private function isFrozen(Layout $before, Ball $ball, Rail $rail): bool
    {
        $spot = $before->spot($ball);

        return $this->equipment->table->fromRail($rail, $spot->x, $spot->y) - $this->equipment->balls->radius < self::FROZEN;
    }

    /**
     * A push-out of nine- or ten-ball: nothing need be hit and no cushion reached, and balls that drop do not count, but the money ball
     * comes back; the other player shoots or gives the shot back. A scratch is a foul all the same.
     */
    public function judgePush(Turn $turn, Ending $ending): Verdict
    {
        $rules = $this->game->rules();
        $money = $rules->moneyBall;
        $fouls = $ending->isScratch() ? [Foul::Scratch] : [];

        return new Verdict(
            $fouls,
            false,
            [] !== $fouls && $rules->isLostByFoul($turn, $this->options) ? false : null,
            null !== $money && \in_array($money, self::made($ending), true) ? [$money] : [],
            null,
            0,
            [] === $fouls ? BallInHand::None : BallInHand::Anywhere,
            [] === $fouls,
        );
    }

    /** @return list<Ball> the object balls that dropped */
    public static function made(Ending $ending): array
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
