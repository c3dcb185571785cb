<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan\Internal;

use ZigLane\Core\Plan\Order;
use ZigLane\Core\Plan\PlanConstraints;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Spot;

/**
 * The chance to finish from every cue ball spot of the grid, for any set of balls that is left, by going backwards from the last
 * ball (dynamic programming; Bellman 1957): the best over pots and strokes of the chance of the pot times what the next set is worth
 * where the cue ball stops. The player's errors blur that worth along the lattice of strokes: for each of speed, roll and side by the
 * three points at nought and at the square root of three standard deviations (Gauss and Hermite). Maps are kept as they are asked for.
 *
 * @internal
 */
final class ValueTable
{
    /** The weight of either outer point and how far out it lies. */
    private const BLUR = 0.28867513459481287;

    /** Share of the average worth that a route is given which runs into a ball; shots that do are tried in full before they are played. */
    private const KNOCKED = 0.5;

    /** Chance of a ball that is not to be made straight: over a cushion or another ball. A rough figure, until the shot is looked for. */
    private const INDIRECT = 0.07;
    /** Chance of a trouble ball once it has been moved somewhere. */
    private const FREED = 0.5;

    /**
     * Nodes of the lattice from which a cue ball opens a rack (2.2 m/s at contact), and what a slower one and one past the rack are worth.
     */
    private const FIRM = 5 * StrokeLattice::ROLLED * StrokeLattice::SIDED;
    private const SOFT = 0.3;
    private const PAST = 0.15;

    /** A rolling ball needs a little less speed at the start than the usual stroke: by so much a chance may be better at the most. */
    private const SURER = 1.1;

    /** Places with ball in hand lie at least so far apart, metres. */
    private const APART = 0.1;

    /** @var array<int, list<float>> by set and freed balls */
    private array $maps = [];

    /** @var array<int, float> */
    private array $halves = [];

    /** @var array<int, float> */
    private array $means = [];

    public readonly Order $order;

    /**
     * @param self|null $before  the values of the layout before some balls were moved
     * @param bool      $isRough whether strokes are taken to be met exactly, and fewer routes and sets looked at: for a first plan
     */
    public function __construct(
        public readonly PlannerTables $tables,
        public readonly PlanConstraints $constraints,
        private readonly ?self $before = null,
        public readonly bool $isRough = false,
    ) {
        $this->order = $tables->order;
    }

    /**
     * The values of a layout in which some balls have been moved by a shot. Maps are taken over from before; only where the ball that
     * must come next has been moved its chance is worked out anew, times what the rest is usually worth.
     */
    public function moved(Layout $layout): self
    {
        return new self($this->tables->moved($layout), $this->constraints, $this, $this->isRough);
    }

    /**
     * Chance to finish with a set of balls from a spot, 0 to 1.
     *
     * @param int $freed trouble balls that have been moved, as bits
     */
    public function at(int $mask, float $x, float $y, int $freed = 0): float
    {
        return $this->order->isOut($mask) ? 1.0 : $this->tables->grid->at($this->map($mask, $freed), $x, $y);
    }

    /**
     * @param float $mostX farthest from the head rail, metres
     *
     * @return list<Spot> the spots of the grid from which all balls are worth most, the best first, no two next to each other
     */
    public function bestSpots(int $count, float $mostX = \INF): array
    {
        $map = $this->map($this->tables->all());
        arsort($map);
        $spots = [];
        foreach (array_keys($map) as $i) {
            $spot = $this->tables->grid->spots[$i];
            if (
                $spot->x <= $mostX
                && [] === array_filter($spots, static fn (Spot $other): bool => $other->distanceTo($spot) < self::APART)
            ) {
                $spots[] = $spot;
            }
            if (\count($spots) === $count) {
                break;
            }
        }

        return $spots;
    }

    /** @return list<float> for every spot of the grid */
    public function map(int $mask, int $freed = 0): array
    {
        $freed &= $mask;

        return $this->maps[$mask | $freed << 16] ??= null === $this->before
            ? $this->swept($mask, $freed)
            : $this->takenOver($this->before, $mask, $freed);
    }

    /** @return list<float> */
    private function takenOver(self $before, int $mask, int $freed): array
    {
        $next = $this->order->next($mask);
        $balls = Order::balls($next);
        if (1 !== \count($balls) || !$this->tables->hasMoved($balls[0])) {
            return $before->map($mask, $freed);
        }
        $left = $mask & ~$next;
        $rest = $this->usual($left, $freed);
        $values = array_fill(0, \count($this->tables->grid->spots), self::INDIRECT * $rest);
        foreach ($this->tables->pots($balls[0]) as $pot) {
            if (0 !== ($pot->blocking & $left) || $this->constraints->forbids($balls[0], $pot->pocket)) {
                continue;
            }
            // With the usual stroke: the chance at every speed would take three times as long, for a map that serves a few shots.
            foreach ($this->tables->grid->spots as $i => $spot) {
                $chance = $pot->line->chance($spot);
                if ($rest * $chance > $values[$i] && $pot->isSeen($spot, $left)) {
                    $values[$i] = $rest * $chance;
                }
            }
        }

        return $values;
    }

    /** @return list<float> */
    private function swept(int $mask, int $freed): array
    {
        $floor = 0.0;
        foreach (Order::balls($this->order->next($mask)) as $ball) {
            $bit = Order::bit($ball);
            $isDead = !$this->isRough && 0 !== ($bit & $this->tables->trouble() & ~$freed);
            $share = match (true) {
                0 !== ($freed & $bit) => self::FREED,
                $isDead => 0.0,
                default => self::INDIRECT,
            };
            $floor = max($floor, $share * $this->usual($mask & ~$bit, $freed));
        }
        $values = array_fill(0, \count($this->tables->grid->spots), $floor);
        $dead = $this->isRough ? 0 : $this->order->next($mask) & $this->tables->trouble() & ~$freed;
        foreach (Order::balls($dead) as $ball) {
            $rest = $this->usual($mask & ~Order::bit($ball), $freed);
            $values = array_map(
                static fn (float $value, float $chance): float => max($value, $chance * $rest),
                $values,
                $this->tables->indirect($ball),
            );
        }
        // Roughly: every other cut of the routes.
        $step = $this->isRough ? 2 : 1;
        foreach (Order::balls($this->order->next($mask)) as $ball) {
            $left = $mask & ~Order::bit($ball);
            // No pot here can be worth more than its chance times the best that may come after it.
            $most = $this->most($left, $freed);
            foreach ($this->tables->pots($ball) as $pot) {
                if (0 !== ($pot->blocking & $left) || $this->constraints->forbids($ball, $pot->pocket)) {
                    continue;
                }
                $worth = [];
                foreach ($pot->views() as $i => [$place, $row, $blocking, $chances]) {
                    if (0 !== ($blocking & $left) || $most * max($chances) <= $values[$i]) {
                        continue;
                    }
                    $cut = $step * min(intdiv((int) $place, $step), intdiv(RouteTable::CUTS - 1, $step) - 1);
                    $low = $worth[$cut] ??= $this->worth($pot, $cut, $left, $freed);
                    $high = $worth[$cut + $step] ??= $this->worth($pot, $cut + $step, $left, $freed);
                    $share = ($place - $cut) / $step;
                    [$spreads, $powers] = [$this->tables->lattice->spreads[$row], $this->tables->lattice->powers[$row]];
                    $values[$i] = $this->isRough
                        ? self::sharpest($low, $high, $share, $chances, $spreads, $values[$i], $most)
                        : self::best($low, $high, $share, $chances, $spreads, $powers, $values[$i], $most);
                }
            }
        }

        return $values;
    }

    /**
     * What the rest is worth at the end of every route of a cut; 0 after a scratch.
     *
     * @return list<float> by node
     */
    public function worth(PotCandidate $pot, int $cut, int $left, int $freed = 0): array
    {
        [$blockings, $x, $y] = $this->tables->routes($pot)->row($cut);
        $out = $this->order->isOut($left);
        $map = $out ? [] : $this->map($left, $freed);
        $grid = $this->tables->grid;
        // Where a route runs into a ball the cue ball ends anywhere, and the ball has been moved: trouble balls for the better.
        $trouble = $this->tables->trouble() & $this->order->toCome($left) & ~$freed;
        $knocked = [];
        $worth = [];
        $isBreak = $out && $this->tables->isBreakBall($pot->ball);
        foreach ($blockings as $node => $blocking) {
            $met = $blocking & $left;
            $helped = 0;
            if (0 !== $met && !$out) {
                $helped = RouteTable::DEAD === $blocking ? 0 : $met & $trouble;
                // Roughly: all at once, for the sets of freed balls are too many.
                $helped = $this->isRough && 0 !== $helped ? $trouble : $helped;
                $knocked[$helped] ??= self::KNOCKED * $this->average($left, $freed | $helped);
            }
            $worth[] = match (true) {
                // A break shot is to open the rack; a cue ball that misses it or is slow seldom does.
                $isBreak => 0 !== $blocking ? ($node >= self::FIRM ? 1.0 : self::SOFT) : ($x[$node] < 0.0 ? 0.0 : self::PAST),
                // With the last ball down it matters no more what the cue ball runs into.
                $out => 0 !== $met || $x[$node] >= 0.0 ? 1.0 : 0.0,
                0 !== $met => $knocked[$helped] ?? 0.0,
                $x[$node] < 0.0 => 0.0,
                default => $grid->at($map, $x[$node], $y[$node]),
            };
        }

        return $worth;
    }

    /** What a set is worth at the best. */
    public function most(int $mask, int $freed = 0): float
    {
        return $this->order->isOut($mask) ? 1.0 : max(0.0, ...$this->map($mask, $freed));
    }

    /** What a set is worth on the average over the table. */
    private function average(int $mask, int $freed): float
    {
        $key = $mask | $freed << 16;
        if (!isset($this->means[$key])) {
            $map = $this->map($mask, $freed);
            $this->means[$key] = array_sum($map) / \count($map);
        }

        return $this->means[$key];
    }

    /** What a set is worth on the average over the better half of the table. */
    public function usual(int $mask, int $freed = 0): float
    {
        if ($this->order->isOut($mask)) {
            return 1.0;
        }
        $key = $mask | $freed << 16;
        if (!isset($this->halves[$key])) {
            $map = $this->map($mask, $freed);
            rsort($map);
            $half = \array_slice($map, 0, intdiv(\count($map), 2));
            $this->halves[$key] = array_sum($half) / \count($half);
        }

        return $this->halves[$key];
    }

    /**
     * The best between two cuts: chance of the pot times the blurred worth.
     *
     * @param list<float>                           $low     worth at the cut below
     * @param list<float>                           $high    worth at the cut above
     * @param float                                 $share   of the way from the one to the other
     * @param list<float>                           $chances of the pot, by speed
     * @param list<array{float, float, float}|null> $spreads
     * @param list<float>                           $powers  as StrokeLattice has them, by node
     * @param float                                 $least   what there is already
     * @param float                                 $most    no end of a route is worth more
     */
    private static function best(
        array $low, array $high, float $share, array $chances, array $spreads, array $powers, float $least, float $most,
    ): float {
        $worth = [];
        foreach ($low as $node => $value) {
            $worth[] = $value + $share * ($high[$node] - $value);
        }
        $best = $least;
        for ($speed = 0; $speed < StrokeLattice::SPEEDS; ++$speed) {
            $chance = $chances[$speed];
            // A stroke that starts slower than the usual one goes a little oftener.
            if (self::SURER * $chance * $most <= $best) {
                continue;
            }
            foreach (self::blurred($worth, $spreads, $speed) as $node => $value) {
                $value *= StrokeLattice::chance($chance, $powers[$node]);
                if ($value > $best) {
                    $best = $value;
                }
            }
        }

        return $best;
    }

    /**
     * What a spot is worth where every stroke is met exactly: a tenth of the work.
     *
     * @param list<float>                           $low
     * @param list<float>                           $high
     * @param list<float>                           $chances
     * @param list<array{float, float, float}|null> $spreads
     */
    private static function sharpest(
        array $low, array $high, float $share, array $chances, array $spreads, float $least, float $most,
    ): float {
        $best = $least;
        $stride = StrokeLattice::ROLLED * StrokeLattice::SIDED;
        for ($speed = 0; $speed < StrokeLattice::SPEEDS; ++$speed) {
            $chance = $chances[$speed];
            if ($chance * $most <= $best) {
                continue;
            }
            for ($node = $speed * $stride, $end = $node + $stride; $node < $end; ++$node) {
                $value = $low[$node];
                $value = $chance * ($value + $share * ($high[$node] - $value));
                if ($value > $best && null !== $spreads[$node]) {
                    $best = $value;
                }
            }
        }

        return $best;
    }

    /**
     * @param list<float>                           $worth   by node
     * @param list<array{float, float, float}|null> $spreads
     *
     * @return array<int, float> the blurred worth of the nodes of a speed that can be played
     */
    public static function blurred(array $worth, array $spreads, int $speed): array
    {
        $blurred = [];
        $stride = StrokeLattice::ROLLED * StrokeLattice::SIDED;
        $slower = $speed > 0 ? -$stride : 0;
        $faster = $speed < StrokeLattice::SPEEDS - 1 ? $stride : 0;
        for ($roll = 0; $roll < StrokeLattice::ROLLED; ++$roll) {
            $lower = $roll > 0 ? -StrokeLattice::SIDED : 0;
            $higher = $roll < StrokeLattice::ROLLED - 1 ? StrokeLattice::SIDED : 0;
            for ($side = 0; $side < StrokeLattice::SIDED; ++$side) {
                $node = $speed * $stride + $roll * StrokeLattice::SIDED + $side;
                $spread = $spreads[$node];
                if (null === $spread) {
                    continue;
                }
                $here = $worth[$node];
                $less = $side > 0 ? 1 : 0;
                $more = $side < StrokeLattice::SIDED - 1 ? 1 : 0;
                $value = $here
                    + self::BLUR * $spread[0] * ($worth[$node + $slower] + $worth[$node + $faster] - 2 * $here)
                    + self::BLUR * $spread[1] * ($worth[$node + $lower] + $worth[$node + $higher] - 2 * $here)
                    + self::BLUR * $spread[2] * ($worth[$node - $less] + $worth[$node + $more] - 2 * $here);
                $blurred[$node] = $value;
            }
        }

        return $blurred;
    }
}
