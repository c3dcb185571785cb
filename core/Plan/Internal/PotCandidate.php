<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan\Internal;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Position\Angle;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Sight;
use ZigLane\Core\Table\Spot;

/**
 * One ball to one pocket, for every set of the other balls: the balls that must be gone for the ball's own way and for the ghost
 * ball to be free, and from any cue ball spot the balls that must be gone for the cue ball's way, and the chance of the pot by speed.
 *
 * @internal
 */
final class PotCandidate
{
    /** Nodes of the StrokeLattice's speeds for which the chance is worked out; between them straight. */
    private const ANCHORS = [1, 3, 6];
    /** Spots of the grid that are passed over from one to the next when a rough sum will do: no divisor of a column's. */
    private const EVERY = 7;
    /** Chances below this are not looked at. */
    private const LEAST = 0.02;

    /** @var array<int, array{float, int, int, non-empty-list<float>}>|null by grid spot, once asked for */
    private ?array $views = null;

    public readonly Ball $ball;
    public readonly Pocket $pocket;

    /** @param int $blocking balls that must be gone, as bits */
    public function __construct(
        public readonly PotModel $line,
        public readonly int $blocking,
        private readonly Layout $others,
        private readonly Sight $sight,
        public readonly StrokeLattice $lattice,
        private readonly Grid $grid,
    ) {
        $this->ball = $line->ball;
        $this->pocket = $line->pocket;
    }

    /**
     * @return array<int, array{float, int, int, non-empty-list<float>}> what the pot looks like from the spots of the grid, as `view` gives
     *                                                                   it
     */
    public function views(): array
    {
        return $this->views ??= array_filter(
            array_map(fn (Spot $spot): ?array => $this->view($spot), $this->grid->spots),
            static fn (?array $view): bool => null !== $view,
        );
    }

    /** How much of the table the pot can be played from with the usual stroke: the sum of its chances over every few spots of the grid. */
    public function reach(): float
    {
        $sum = 0.0;
        for ($i = 0, $n = \count($this->grid->spots); $i < $n; $i += self::EVERY) {
            $sum += $this->line->chance($this->grid->spots[$i]);
        }

        return $sum;
    }

    /** The same as a share of the table: the mean chance over those spots, 0 to 1. */
    public function reachShare(): float
    {
        return $this->reach() / ceil(\count($this->grid->spots) / self::EVERY);
    }

    /**
     * What the pot looks like from a spot: place of the cut in the RouteTable, row of the distance in the StrokeLattice, balls that must be
     * gone as bits, and the chance at each speed of the book; null where it cannot be played.
     *
     * @param int $left balls that lie on the table, as bits: where one of them is in the cue ball's way there is nothing to see
     *
     * @return array{float, int, int, non-empty-list<float>}|null
     */
    public function view(Spot $cue, int $left = 0): ?array
    {
        $ghost = $this->line->ghost;
        $distance = $cue->distanceTo($ghost);
        $place = RouteTable::place(Angle::wrapped($this->line->aimedLine() - $cue->directionTo($ghost)));
        if (null === $place || $distance < 0.01) {
            return null;
        }
        $blocking = self::inTheWay($this->sight, $this->others, $cue, $ghost);
        if (0 !== ($blocking & $left)) {
            return null;
        }
        $chances = [];
        foreach (self::ANCHORS as $node) {
            $chances[] = $this->line->chanceAt($cue, $this->lattice->speeds[$node]);
        }
        if (max($chances) < self::LEAST) {
            return null;
        }

        return [$place, $this->lattice->row($distance), $blocking, self::bySpeed($chances)];
    }

    /** Whether none of the balls that lie on the table, as bits, is in the cue ball's way from a spot. */
    public function isSeen(Spot $cue, int $left): bool
    {
        return 0 === (self::inTheWay($this->sight, $this->others, $cue, $this->line->ghost) & $left);
    }

    /** @return int the balls that lie in a straight way, as bits */
    public static function inTheWay(Sight $sight, Layout $others, Spot $from, Spot $to): int
    {
        $blocking = 0;
        // Ends: each round takes a ball away.
        do {
            $found = false;
            foreach ($sight->clearance($others, $from, $to, []) as $nearest) {
                if (null !== $nearest && $nearest[0] < Sight::TIGHT) {
                    $blocking |= 1 << $nearest[1]->value;
                    $others = $others->without($nearest[1]);
                    $found = true;
                }
            }
        } while ($found);

        return $blocking;
    }

    /**
     * @param list<float> $chances at ANCHORS
     *
     * @return non-empty-list<float> at every speed of the book
     */
    private static function bySpeed(array $chances): array
    {
        [$a, $b, $c] = self::ANCHORS;
        $all = [];
        for ($node = 0; $node < StrokeLattice::SPEEDS; ++$node) {
            $all[] = max(0.0, min(1.0, $node < $b
                ? $chances[0] + ($node - $a) / ($b - $a) * ($chances[1] - $chances[0])
                : $chances[1] + ($node - $b) / ($c - $b) * ($chances[2] - $chances[1])));
        }
        if (0.0 === $chances[0]) {
            // Too slow to reach the pocket: the speeds between are taken as if it were fast enough, those below as nothing.
            $all[0] = $all[1] = 0.0;
        }

        return $all;
    }
}
