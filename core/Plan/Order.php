<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Position\Ball;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;

/**
 * Which balls may be shot next and when the run is out, for sets of balls given as bits (1 shifted by each ball's number). Nine- and
 * ten-ball: the lowest. Eight-ball: those of the group, then the 8. Straight pool: any but the break ball, which is left at the end.
 */
final readonly class Order
{
    private const EIGHT = 1 << 8;

    /**
     * @param int                   $own    the balls of the shooter that come in any order, as bits; 0 where the lowest comes first
     * @param int                   $last   the ball that ends the run when all of `own` are gone, as bits: the 8; 0 in straight pool
     * @param int                   $wins   the ball that wins at once when it drops on a legal shot, as bits: the 9; 0 in other games
     * @param list<array{int, int}> $before pairs of bits: the first is to go before the second
     */
    private function __construct(private int $own, private int $last, private bool $isRotation, private int $wins, private array $before)
    {
    }

    /**
     * @param Group|null              $group     in eight-ball: solids or stripes
     * @param Ball|null               $breakBall in straight pool: the ball to be left
     * @param list<array{Ball, Ball}> $before    a player's wish: the first of each pair before the second
     */
    public static function of(Game $game, ?Group $group = null, ?Ball $breakBall = null, array $before = []): self
    {
        $pairs = array_map(static fn (array $pair): array => [1 << $pair[0]->value, 1 << $pair[1]->value], $before);
        $every = (1 << $game->highest() + 1) - 2;

        return match ($game) {
            Game::NineBall => new self(0, 0, true, 1 << 9, $pairs),
            Game::TenBall => new self(0, 0, true, 0, $pairs),
            Game::EightBall => new self(Group::Stripes === $group ? $every & ~((1 << 9) - 1) : (1 << 8) - 2, self::EIGHT, false, 0, $pairs),
            Game::StraightPool => new self($every & ~(null === $breakBall ? 0 : 1 << $breakBall->value), 0, false, 0, $pairs),
        };
    }

    /** @param list<Ball> $balls that are shot one after the other, whatever else lies there */
    public static function inTurn(array $balls): self
    {
        $pairs = [];
        foreach (\array_slice($balls, 1) as $i => $ball) {
            $pairs[] = [1 << $balls[$i]->value, 1 << $ball->value];
        }

        return new self(array_sum(array_map(static fn (Ball $ball): int => 1 << $ball->value, $balls)), 0, false, 0, $pairs);
    }

    /** The balls that may still lie on the table when a ball has been shot, as bits, of all. */
    public function after(Ball $ball): int
    {
        return $this->isRotation ? ~((2 << $ball->value) - 1) : ~(1 << $ball->value);
    }

    /** The balls of a set that may be shot, as bits. */
    public function next(int $set): int
    {
        if ($this->isRotation) {
            return $set & -$set;
        }
        $own = $set & $this->own;
        if (0 === $own) {
            return $set & $this->last;
        }
        foreach ($this->before as [$first, $second]) {
            if (0 !== ($own & $first) && 0 !== ($own & $second)) {
                $own &= ~$second;
            }
        }

        return $own;
    }

    /** Whether nothing is left to be shot. */
    public function isOut(int $set): bool
    {
        return 0 === $this->next($set);
    }

    /**
     * Whether a legal shot that leaves a set ends the game: true won, false lost, null neither.
     */
    public function isWon(int $before, int $after): ?bool
    {
        $gone = $before & ~$after;
        if (0 !== ($gone & $this->wins)) {
            return true;
        }

        return 0 !== ($gone & $this->last) && 0 !== ($before & $this->own) ? false : null;
    }

    /** The balls that are still to be shot, as bits. */
    public function toCome(int $set): int
    {
        return $this->isRotation ? $set : $set & ($this->own | $this->last);
    }

    /** @return list<Ball> */
    public static function balls(int $set): array
    {
        $balls = [];
        foreach (Ball::cases() as $ball) {
            if (Ball::Cue !== $ball && 0 !== ($set & 1 << $ball->value)) {
                $balls[] = $ball;
            }
        }

        return $balls;
    }
}
