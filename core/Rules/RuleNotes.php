<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;

/**
 * What the rules say before a shot, for a player who is about to play: what may be shot, what must be called, and what a foul would give.
 */
final class RuleNotes
{
    /** @return list<Fact> */
    public static function of(Rack $rack): array
    {
        return array_values(array_filter([
            self::on($rack),
            self::called($rack),
            self::foul($rack),
            BallInHand::Kitchen === $rack->ballInHand ? new Fact('rules.kitchen') : null,
            $rack->standing->mayPush ? new Fact('rules.pushOut') : null,
            $rack->standing->mayPass ? new Fact('rules.mayPass') : null,
            self::near($rack),
        ]));
    }

    private static function on(Rack $rack): ?Fact
    {
        $balls = BallsOn::of($rack->game, $rack->layout, $rack->group);
        if ([] === $balls) {
            return null;
        }

        return match (true) {
            $rack->game->rules()->hasGroups
                && \in_array($rack->group, [null, Group::Open], true)
                && !\in_array($rack->game->rules()->moneyBall, $balls, true) => new Fact('rules.onOpen'),
            1 === \count($balls) => new Fact('rules.onOne', ['ball' => $balls[0]]),
            \count($balls) === \count($rack->objectBalls()) => new Fact('rules.onAny'),
            default => new Fact('rules.onThese', ['balls' => $balls]),
        };
    }

    private static function called(Rack $rack): Fact
    {
        return $rack->game->rules()->call($rack->rules);
    }

    private static function foul(Rack $rack): Fact
    {
        return match (true) {
            !$rack->game->rules()->countsBalls && self::losesByFoul($rack) => new Fact('rules.foulLoses'),
            !$rack->game->rules()->countsBalls => new Fact('rules.foulInHand'),
            Turn::first($rack)->isThird() => new Fact('rules.foulThird'),
            default => new Fact('rules.foulPoint', ['fouls' => $rack->standing->fouls]),
        };
    }

    private static function losesByFoul(Rack $rack): bool
    {
        return $rack->game->rules()->isLostByFoul(Turn::first($rack), $rack->rules);
    }

    /** A ball on so near to the cue ball that a full hit through it is a double hit. */
    private static function near(Rack $rack): ?Fact
    {
        if (!$rack->layout->has(Ball::Cue)) {
            return null;
        }
        $cue = $rack->layout->spot(Ball::Cue);
        foreach (BallsOn::of($rack->game, $rack->layout, $rack->group) as $ball) {
            $gap = $cue->distanceTo($rack->layout->spot($ball)) - $rack->equipment->balls->diameter();
            if ($gap < NearContact::NEAR) {
                return new Fact(
                    $gap < NearContact::TOUCHING ? 'rules.frozen' : 'rules.near',
                    ['ball' => $ball, 'byMetres' => max(0.0, $gap)],
                );
            }
        }

        return null;
    }
}
