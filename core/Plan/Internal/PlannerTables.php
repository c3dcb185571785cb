<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan\Internal;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Plan\Order;
use ZigLane\Core\Plan\ThreeAhead;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Sight;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Rerack;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Table\PocketGeometry;
use ZigLane\Core\Table\Spot;

/**
 * A layout read once for planning: the ways into pockets of every ball that may have to be shot, with what stands in them, and
 * where the cue ball can go from each. Valid for every set of its balls as long as none of them has moved.
 *
 * @internal
 */
final class PlannerTables
{
    /** Most pockets looked at for a ball, and most kept as a rule. */
    private const LOOKED = 4;
    public const KEPT = 3;
    /** Pockets looked at for a ball that was moved in a replay. */
    private const AGAIN = 3;
    /** Width of the grid on which a sound player takes balls to lie, metres. */
    private const ROUGH_GRID = 0.02;
    /** A ball that has moved less still lies where it was, metres. */
    private const STILL = 0.002;

    public readonly Grid $grid;
    public readonly StrokeLattice $lattice;
    public readonly ShotSolver $solver;
    public readonly Layout $layout;

    /** @var array<int, list<PotCandidate>> by the ball's number, as far as they were asked for, the best first */
    private array $pots = [];

    /** @var array<int, ThreeAhead> by the balls that are held */
    private array $sound = [];

    /** @var array<int, IndirectTable> by the ball's number */
    private array $indirect = [];

    /** @var array<string, RouteTable> */
    private array $routes = [];

    /** Balls that have been moved since the first survey, as bits. */
    private int $moved = 0;

    private ?int $trouble = null;

    private Sight $sight;

    /** @param self|null $before the survey of the layout before some balls were moved */
    private function __construct(
        public readonly Rack $rack,
        Layout $layout,
        public readonly Order $order,
        ?self $before,
        public readonly int $kept,
    ) {
        $this->layout = $layout->without(Ball::Cue);
        $this->grid = $before->grid ?? new Grid($rack->equipment);
        $this->lattice = $before->lattice ?? new StrokeLattice($rack->equipment, $rack->player);
        $this->solver = $before->solver ?? new ShotSolver($rack->equipment);
        $this->sight = new Sight($rack->equipment->balls);
    }

    /** @param int $kept most ways into a pocket that are kept for a ball */
    public static function of(Rack $rack, Order $order, int $kept = self::KEPT): self
    {
        return new self($rack, $rack->layout, $order, null, $kept);
    }

    /** The same table with another number of ways kept, and for another order of balls; what is known of it is taken over. */
    public function keeping(int $kept, Order $order): self
    {
        $tables = new self($this->rack, $this->layout, $order, $this, $kept);
        $tables->pots = $this->pots;
        $tables->routes = $this->routes;
        $tables->indirect = $this->indirect;
        $tables->sound = $this->sound;

        return $tables;
    }

    /**
     * The same table after a shot that moved some balls. What is known of those that lie still is taken over, but for what stands in
     * their ways: that is read from the real layout when they are shot.
     */
    public function moved(Layout $layout): self
    {
        $tables = new self($this->rack, $layout, $this->order, $this, $this->kept);
        $tables->moved = $this->moved;
        foreach ($tables->layout->balls() as $ball) {
            if ($this->layout->spot($ball)->distanceTo($layout->spot($ball)) > self::STILL) {
                $tables->moved |= 1 << $ball->value;
            } elseif (isset($this->pots[$ball->value])) {
                $tables->pots[$ball->value] = $this->pots[$ball->value];
                foreach ($this->pots[$ball->value] as $pot) {
                    $tables->routes[self::key($pot)] = $this->routes($pot);
                }
            }
        }

        return $tables;
    }

    public function hasMoved(Ball $ball): bool
    {
        return 0 !== ($this->moved & 1 << $ball->value);
    }

    /** Whether some ball of a layout does not lie where it was surveyed. */
    public function differsFrom(Layout $layout): bool
    {
        foreach ($layout->balls() as $ball) {
            if (Ball::Cue !== $ball && $this->layout->spot($ball)->distanceTo($layout->spot($ball)) > self::STILL) {
                return true;
            }
        }

        return false;
    }

    /** Every object ball of the layout, as bits. */
    public function all(): int
    {
        return array_sum(array_map(static fn (Ball $ball): int => 1 << $ball->value, $this->layout->balls()));
    }

    /** The balls that no pocket is open to as long as all others lie there, as bits. */
    public function trouble(): int
    {
        if (null === $this->trouble) {
            $this->trouble = 0;
            foreach (Order::balls($this->order->toCome($this->all())) as $ball) {
                $others = $this->all() & $this->order->after($ball);
                if ([] === array_filter($this->pots($ball), static fn (PotCandidate $pot): bool => 0 === ($pot->blocking & $others))) {
                    $this->trouble |= Order::bit($ball);
                }
            }
        }

        return $this->trouble;
    }

    /**
     * @param int|null $most null: as many as are kept
     *
     * @return list<PotCandidate> the best ways into a pocket of a ball
     */
    public function pots(Ball $ball, ?int $most = null): array
    {
        return \array_slice($this->pots[$ball->value] ??= $this->found($ball), 0, $most ?? $this->kept);
    }

    /** A sound player's way among all balls but some. */
    public function sound(int $held): ThreeAhead
    {
        return $this->sound[$held] ??= new ThreeAhead($this->rack, $this->solver, grid: self::ROUGH_GRID, isQuick: true, held: $held);
    }

    /**
     * What a ball that no pocket is open to is worth by kicks, banks and caroms.
     *
     * @return list<float> chances for every spot of the grid
     */
    public function indirect(Ball $ball): array
    {
        $this->indirect[$ball->value] ??= new IndirectTable(
            $this->rack,
            $this->without(~($this->order->after($ball) | Order::bit($ball))),
            $ball,
            $this->grid,
            $this->solver,
        );

        return $this->indirect[$ball->value]->chances();
    }

    public function routes(PotCandidate $pot): RouteTable
    {
        return $this->routes[self::key($pot)] ??= new RouteTable(
            $this->racked($pot->ball) ?? $this->without(~$this->order->after($pot->ball)),
            $pot->line,
            $this->solver,
            $this->lattice,
        );
    }

    /** @return list<PotCandidate> all that were looked at and go, the best first */
    private function found(Ball $ball): array
    {
        $others = $this->layout->without($ball);
        $object = $this->layout->spot($ball);
        $alone = Layout::empty()->with($ball, $object);
        $found = [];
        foreach ($this->pocketsInOrder($object) as $geometry) {
            $line = PotModel::find($alone, $ball, $geometry->pocket, $this->solver, $this->rack->player);
            if (null === $line || !$line->isOnBed()) {
                continue;
            }
            $blocking = PotCandidate::inTheWay($this->sight, $others, $object, $geometry->target($object));
            foreach ($others->balls() as $other) {
                if ($others->spot($other)->distanceTo($line->ghost) < $this->rack->equipment->balls->diameter() + 1e-4) {
                    $blocking |= 1 << $other->value;
                }
            }
            $pot = new PotCandidate($line, $blocking, $others, $this->sight, $this->lattice, $this->grid);
            $reach = $pot->reach();
            if ($reach > 0.0) {
                $found[] = [$reach, $pot];
            }
        }
        usort($found, static fn (array $a, array $b): int => $b[0] <=> $a[0]);

        return array_column($found, 1);
    }

    /** Whether a ball is the break ball of straight pool: after it the next rack is to be opened. */
    public function isBreakBall(Ball $ball): bool
    {
        return $this->rack->game->rules()->countsBalls && $this->order->isLast(Order::bit($ball)) && $this->layout->count() > 1;
    }

    /** The next rack with the break ball beside it; null for other balls, or where that lies in the rack. */
    private function racked(Ball $ball): ?Layout
    {
        if (!$this->isBreakBall($ball)) {
            return null;
        }
        $corner = Spot::metres($this->rack->equipment->balls->radius, $this->rack->equipment->balls->radius);

        $rerack = Rerack::of(Layout::empty()->with(Ball::Cue, $corner)->with($ball, $this->layout->spot($ball)), $this->rack->equipment);

        // A ball that lies in the outline is moved away: then there is no break shot with it.
        return null === $rerack || $rerack->isWhole || $rerack->layout->spot($ball)->distanceTo($this->layout->spot($ball)) > self::STILL
            ? null
            : $rerack->layout->without(Ball::Cue);
    }

    private function without(int $mask): Layout
    {
        return array_reduce(
            $this->layout->balls(),
            static fn (Layout $left, Ball $ball): Layout => 0 !== ($mask & 1 << $ball->value) ? $left->without($ball) : $left,
            $this->layout,
        );
    }

    private static function key(PotCandidate $pot): string
    {
        return $pot->ball->value.$pot->pocket->value;
    }

    /** @return list<PocketGeometry> those that look best from a spot: how wide the mouth is, seen from there */
    private function pocketsInOrder(Spot $object): array
    {
        $wide = [];
        foreach (Pocket::cases() as $pocket) {
            $geometry = $this->rack->equipment->geometry->at($pocket);
            $target = $geometry->target($object);
            $distance = max($object->distanceTo($target), 1e-3);
            $depth = $geometry->hole === $target ? 1.0 : -$geometry->depth($object) / $distance;
            if ($depth > 0.25) {
                $wide[$pocket->value] = [$depth / ($distance + 0.3), $geometry];
            }
        }
        uasort($wide, static fn (array $a, array $b): int => $b[0] <=> $a[0]);

        return array_values(array_map(
            static fn (array $pair): PocketGeometry => $pair[1],
            \array_slice($wide, 0, $this->moved > 0 ? self::AGAIN : self::LOOKED),
        ));
    }
}
