<?php

declare(strict_types=1);

namespace ZigLane\Core\Log;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\IllegalLayout;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Rerack;
use ZigLane\Core\Rules\Spotting;

/**
 * What follows from a shot as it was written down at the table: how the rack lies next, and whether the shooter goes on. Rules as in
 * Rules\Referee (WPA, from memory), but by what was noted instead of by a simulation: a foul is one where the player says so.
 */
final readonly class Continuation
{
    /**
     * @param Rack            $rack   before the next shot, whoever shoots it
     * @param bool            $goesOn the shooter is still at the table
     * @param RackResult|null $end    how the rack ends, or how the turn did; null where the shooter goes on
     * @param bool            $isOver the rack is decided
     */
    private function __construct(public Rack $rack, public bool $goesOn, public ?RackResult $end, public bool $isOver)
    {
    }

    /**
     * @param Rack $before with the cue ball where it was shot from
     *
     * @throws IllegalEntry  If that cannot have come of the shot
     * @throws IllegalLayout If the balls cannot lie so afterwards
     */
    public static function of(Rack $before, ?Ball $called, ShotKind $kind, ShotResult $result): self
    {
        $after = $result->after;
        self::check($before->layout, $called, $result);
        $after = $result->scratch ? $after->without(Ball::Cue) : $after;
        $game = $before->game;
        $isFoul = $result->foul || $result->scratch;
        $gone = array_values(array_filter($before->objectBalls(), static fn (Ball $ball): bool => !$after->has($ball)));
        $money = $game->rules()->moneyBall;
        if (null !== $money && \in_array($money, $gone, true)) {
            $decided = self::decided($before, $called, $kind, $result, $isFoul, $money);
            if (null !== $decided) {
                return new self($before->withLayout($after), false, $decided, true);
            }
            $after = Spotting::back($after, [$money], $before->equipment);
        }
        $goesOn = !$isFoul && ShotKind::Safety !== $kind
            && (true === $result->isMade || ([] !== $gone && (ShotKind::Break === $kind || $game->rules()->anyCounts($before->rules))));
        $group = $before->group;
        if (
            $game->rules()->hasGroups
            && $goesOn
            && null !== $called
            && ShotKind::Break !== $kind
            && Group::Open === ($group ?? Group::Open)
        ) {
            $group = Group::Solids->has($called) ? Group::Solids : (Group::Stripes->has($called) ? Group::Stripes : $group);
        }
        [$after, $inHand] = self::cueBall($game, $after, $isFoul, $goesOn, $before);
        $rack = new Rack($game, $after, $before->equipment, $before->player, $inHand, $group, $before->rules);

        return new self($rack, $goesOn, $goesOn ? null : self::turnEnd($kind, $result), false);
    }

    private static function check(Layout $before, ?Ball $called, ShotResult $result): void
    {
        if (null !== $called && !$before->has($called)) {
            throw IllegalEntry::notThere($called);
        }
        foreach ($result->after->balls() as $ball) {
            if (!$before->has($ball)) {
                throw IllegalEntry::alreadyDown($ball);
            }
        }
        if (null !== $called && true === $result->isMade && $result->after->has($called)) {
            throw IllegalEntry::stillThere($called);
        }
        if (!$result->scratch && !$result->after->has(Ball::Cue)) {
            throw IllegalEntry::noCueBall();
        }
    }

    /** How a rack is decided by its money ball that dropped; null where it comes back. */
    private static function decided(Rack $before, ?Ball $called, ShotKind $kind, ShotResult $result, bool $isFoul, Ball $money): ?RackResult
    {
        $won = $before->game->rules()->decided(
            $isFoul,
            ShotKind::Break === $kind,
            $called === $money && true === $result->isMade,
            array_values(array_filter($before->objectBalls(), static fn (Ball $ball): bool => $ball !== $money)),
            $before->group,
            $before->rules,
        );

        return match ($won) {
            true => RackResult::Out,
            false => RackResult::Lost,
            null => null,
        };
    }

    /** @return array{Layout, BallInHand} */
    private static function cueBall(Game $game, Layout $after, bool $isFoul, bool $goesOn, Rack $before): array
    {
        $rules = $game->rules();
        if (!$after->has(Ball::Cue)) {
            return [$after, $rules->afterFoul(true)];
        }
        if ($isFoul && BallInHand::None !== $rules->afterFoul(false)) {
            return [$after->without(Ball::Cue), $rules->afterFoul(false)];
        }
        $next = $rules->countsBalls && $goesOn ? Rerack::of($after, $before->equipment) : null;

        return null === $next ? [$after, BallInHand::None] : [$next->layout, $next->inHand];
    }

    private static function turnEnd(ShotKind $kind, ShotResult $result): RackResult
    {
        return match (true) {
            $result->scratch => RackResult::Scratch,
            $result->foul => RackResult::Foul,
            ShotKind::Safety === $kind => RackResult::Safety,
            default => RackResult::Miss,
        };
    }
}
