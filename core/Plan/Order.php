<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;

/**
 * Which balls may be shot next and when the run is out, for sets of balls given as bits (1 shifted by each ball's number). Nine- and
 * ten-ball: the lowest. Eight-ball: those of the group, then the 8. Straight pool: any but the break ball, which comes last; of
 * many balls only the next few of a sequence are looked at, or there would be too many sets.
 */
final readonly class Order
{
    private const EIGHT = 1 << 8;
    /** Balls of a sequence that may be shot next: at the most, and as many as leave no more sets than this. */
    private const WINDOW = 4;
    private const SETS = 130;

    /**
     * @param int                   $own      the balls of the shooter that come in any order, as bits; 0 where the lowest comes first
     * @param int                   $last     the ball that ends the run when all of `own` are gone, as bits: the 8, the break ball; or 0
     * @param list<int>             $sequence of single bits; empty where any of `own` may come next
     * @param list<array{int, int}> $before   pairs of bits: the first is to go before the second
     * @param int                   $window   balls of the sequence that may be shot next
     * @param bool                  $holdsKey whether the last of the sequence, the key ball, is held until all before it are gone
     */
    private function __construct(
        private int $own,
        private int $last,
        private bool $isRotation,
        private array $sequence,
        private array $before,
        private int $window = self::WINDOW,
        private bool $holdsKey = false,
    ) {
    }

    /**
     * @param Group|null              $group  in eight-ball: solids or stripes
     * @param list<array{Ball, Ball}> $before a player's wish: the first of each pair before the second
     */
    public static function of(Game $game, ?Group $group = null, array $before = []): self
    {
        $pairs = array_map(static fn (array $pair): array => [self::bit($pair[0]), self::bit($pair[1])], $before);

        $rules = $game->rules();

        return match (true) {
            $rules->isRotation => new self(0, 0, true, [], $pairs),
            $rules->hasGroups => new self(
                array_sum(array_map(self::bit(...), array_filter($game->balls(), ($group ?? Group::Solids)->has(...)))),
                self::EIGHT,
                false,
                [],
                $pairs,
            ),
            default => new self((1 << 16) - 2, 0, false, [], $pairs),
        };
    }

    /** @param list<Ball> $balls that are shot one after the other, whatever else lies there */
    public static function inTurn(array $balls): self
    {
        $pairs = [];
        foreach (\array_slice($balls, 1) as $i => $ball) {
            $pairs[] = [self::bit($balls[$i]), self::bit($ball)];
        }

        return new self(array_sum(array_map(self::bit(...), $balls)), 0, false, [], $pairs);
    }

    /**
     * @param list<Ball>              $balls    that are shot about one after the other
     * @param Ball|null               $last     that is left until all of them are gone
     * @param list<array{Ball, Ball}> $before
     * @param int                     $window   how many of the next ones may change places; 0: as many as can be afforded, of many balls
     *                                          fewer
     * @param bool                    $holdsKey whether the last of them is the key ball, which waits for all others
     */
    public static function aboutInTurn(array $balls, ?Ball $last, array $before = [], int $window = 0, bool $holdsKey = false): self
    {
        $bits = array_map(self::bit(...), $balls);
        $window = 0 === $window ? self::WINDOW : $window;
        // Ends: the window shrinks.
        while ($window > 2 && self::sets(\count($balls), $window) > self::SETS) {
            --$window;
        }

        return new self(
            array_sum($bits),
            null === $last ? 0 : self::bit($last),
            false,
            $bits,
            array_map(static fn (array $pair): array => [self::bit($pair[0]), self::bit($pair[1])], $before),
            $window,
            $holdsKey,
        );
    }

    /** The key ball of a sequence, as bits; 0 where there is none, or nothing else of it is left. */
    public function key(int $mask): int
    {
        $key = $this->holdsKey ? $this->sequence[\count($this->sequence) - 1] : 0;

        return ($mask & $this->own) === $key ? 0 : $mask & $key;
    }

    /** The balls of a set between which a sequence chooses, as bits; 0 where there is no sequence. */
    public function choice(int $mask): int
    {
        return [] === $this->sequence ? 0 : $mask & $this->own;
    }

    /** @param list<Ball> $balls those that come in any order, in another sequence */
    public function anew(array $balls): self
    {
        $key = $this->holdsKey ? $this->sequence[\count($this->sequence) - 1] : 0;
        $bits = array_values(array_filter(array_map(self::bit(...), $balls), static fn (int $bit): bool => $bit !== $key));
        $isHeld = 0 !== $key && \count($bits) < \count($balls);

        return new self($this->own, $this->last, false, $isHeld ? [...$bits, $key] : $bits, $this->before, $this->window, $isHeld);
    }

    /** How many sets of a sequence can be come to: the balls from one on, and up to one less than the window of those before it. */
    private static function sets(int $balls, int $window): int
    {
        $sets = 0;
        for ($gone = 0; $gone < $balls; ++$gone) {
            $ways = 1;
            for ($left = 0; $left < $window && $left <= $gone; ++$left) {
                $sets += $ways;
                $ways = intdiv($ways * ($gone - $left), $left + 1);
            }
        }

        return $sets;
    }

    /** The balls that may still lie on the table when a ball has been shot, as bits, of all. */
    public function after(Ball $ball): int
    {
        return $this->isRotation ? ~((2 << $ball->value) - 1) : ~self::bit($ball);
    }

    /** The balls of a set that may be shot, as bits. */
    public function next(int $mask): int
    {
        if ($this->isRotation) {
            return $mask & -$mask;
        }
        $own = $mask & $this->own;
        if (0 === $own) {
            return $mask & $this->last;
        }
        if ([] !== $this->sequence) {
            $own = $this->window($own);
        }
        foreach ($this->before as [$first, $second]) {
            if (0 !== ($mask & $first) && 0 !== ($own & $second)) {
                $own &= ~$second;
            }
        }

        return $own;
    }

    private function window(int $own): int
    {
        $next = 0;
        $count = 0;
        $own &= ~$this->key($own);
        foreach ($this->sequence as $bit) {
            if (0 !== ($own & $bit)) {
                $next |= $bit;
                if ($this->window === ++$count) {
                    break;
                }
            }
        }

        return $next;
    }

    /** The break ball and the key ball of a sequence while others are left, as bits. */
    public function held(int $mask): int
    {
        return [] === $this->sequence ? 0 : ($mask & $this->last) | $this->key($mask);
    }

    /** Whether nothing is left to be shot. */
    public function isOut(int $mask): bool
    {
        return 0 === ($this->isRotation ? $mask : $mask & ($this->own | $this->last));
    }

    /** Whether only the ball is left that was kept for the end: in straight pool the break ball. */
    public function isLast(int $mask): bool
    {
        return 0 !== $this->last && $mask === $this->last;
    }

    /** The balls that are still to be shot, as bits. */
    public function toCome(int $mask): int
    {
        return $this->isRotation ? $mask : $mask & ($this->own | $this->last);
    }

    /** The balls of a set that are not kept for the end, as bits; the one that is when only it is left. */
    public function notKept(int $mask): int
    {
        return $this->isRotation ? $mask : ($mask & $this->own & ~$this->key($mask) ?: $mask & $this->last);
    }

    public static function bit(Ball $ball): int
    {
        return 1 << $ball->value;
    }

    /** The object balls of a layout, as bits. */
    public static function maskOf(Layout $layout): int
    {
        $mask = 0;
        foreach ($layout->balls() as $ball) {
            $mask |= Ball::Cue === $ball ? 0 : self::bit($ball);
        }

        return $mask;
    }

    /** @return list<Ball> */
    public static function balls(int $mask): array
    {
        $balls = [];
        foreach (Ball::cases() as $ball) {
            if (Ball::Cue !== $ball && 0 !== ($mask & 1 << $ball->value)) {
                $balls[] = $ball;
            }
        }

        return $balls;
    }
}
