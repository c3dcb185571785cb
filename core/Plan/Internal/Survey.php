<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan\Internal;

use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Plan\Order;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Sight;
use ZigLane\Core\Position\Spot;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Table\Pocket;
use ZigLane\Core\Table\PocketGeometry;
use ZigLane\Core\Table\TableGeometry;

/**
 * A layout read once for planning: the ways into pockets of every ball that may have to be shot, with what stands in them, and
 * where the cue ball can go from each. Valid for every set of its balls as long as none of them has moved.
 *
 * @internal
 */
final class Survey
{
    /** Most pockets looked at for a ball, and most kept as a rule. */
    private const LOOKED = 4;
    public const KEPT = 3;
    /** Pockets looked at for a ball that was moved in a replay. */
    private const AGAIN = 3;
    /** A ball that has moved less still lies where it was, metres. */
    private const STILL = 0.002;

    public readonly Grid $grid;
    public readonly StrokeBook $book;
    public readonly EventSimulator $simulator;
    public readonly Layout $layout;

    /** @var array<int, list<Prospect>> by the ball's number, as far as they were asked for, the best first */
    private array $prospects = [];

    /** @var array<string, RouteTable> */
    private array $routes = [];

    /** Balls that have been moved since the first survey, as bits. */
    private int $moved = 0;

    private ?int $trouble = null;

    private Sight $sight;

    /** @param self|null $before the survey of the layout before some balls were moved */
    private function __construct(public readonly Rack $rack, Layout $layout, public readonly Order $order, ?self $before, public readonly int $kept)
    {
        $this->layout = $layout->without(Ball::Cue);
        $this->grid = $before->grid ?? new Grid($rack->table, $rack->balls);
        $this->book = $before->book ?? new StrokeBook($rack->table, $rack->balls, $rack->player);
        $this->simulator = $before->simulator ?? new EventSimulator($rack->table, $rack->balls);
        $this->sight = new Sight($rack->balls);
    }

    /** @param int $kept most ways into a pocket that are kept for a ball */
    public static function of(Rack $rack, Order $order, int $kept = self::KEPT): self
    {
        return new self($rack, $rack->layout, $order, null, $kept);
    }

    /** The same table with another number of ways kept, and for another order of balls; what is known of it is taken over. */
    public function keeping(int $kept, Order $order): self
    {
        $survey = new self($this->rack, $this->layout, $order, $this, $kept);
        $survey->prospects = $this->prospects;
        $survey->routes = $this->routes;

        return $survey;
    }

    /**
     * The same table after a shot that moved some balls. What is known of those that lie still is taken over, but for what stands in
     * their ways: that is read from the real layout when they are shot.
     */
    public function moved(Layout $layout): self
    {
        $survey = new self($this->rack, $layout, $this->order, $this, $this->kept);
        $survey->moved = $this->moved;
        foreach ($survey->layout->balls() as $ball) {
            if ($this->layout->spot($ball)->distanceTo($layout->spot($ball)) > self::STILL) {
                $survey->moved |= 1 << $ball->value;
            } elseif (isset($this->prospects[$ball->value])) {
                $survey->prospects[$ball->value] = $this->prospects[$ball->value];
                foreach ($this->prospects[$ball->value] as $prospect) {
                    $survey->routes[self::key($prospect)] = $this->routes($prospect);
                }
            }
        }

        return $survey;
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
                if ([] === array_filter($this->prospects($ball), static fn (Prospect $prospect): bool => 0 === ($prospect->mask & $others))) {
                    $this->trouble |= Order::bit($ball);
                }
            }
        }

        return $this->trouble;
    }

    /**
     * @param int|null $most null: as many as are kept
     *
     * @return list<Prospect> the best ways into a pocket of a ball
     */
    public function prospects(Ball $ball, ?int $most = null): array
    {
        return \array_slice($this->prospects[$ball->value] ??= $this->found($ball), 0, $most ?? $this->kept);
    }

    public function routes(Prospect $prospect): RouteTable
    {
        return $this->routes[self::key($prospect)] ??= new RouteTable($this->racked($prospect->ball) ?? $this->without(~$this->order->after($prospect->ball)), $prospect->line, $this->simulator, $this->rack->balls, $this->book);
    }

    /** @return list<Prospect> all that were looked at and go, the best first */
    private function found(Ball $ball): array
    {
        $others = $this->layout->without($ball);
        $object = $this->layout->spot($ball);
        $alone = Layout::empty()->with($ball, $object);
        $found = [];
        foreach ($this->pocketsInOrder($object) as $geometry) {
            $line = PotModel::find($alone, $ball, $geometry->pocket, $this->simulator, $this->rack->table, $this->rack->balls, $this->rack->cue, $this->rack->player);
            if (null === $line || !$this->isOnBed($line)) {
                continue;
            }
            $mask = Prospect::inTheWay($this->sight, $others, $object, $geometry->mouth());
            foreach ($others->balls() as $other) {
                if ($others->spot($other)->distanceTo($line->ghost) < $this->rack->balls->diameter() + 1e-4) {
                    $mask |= 1 << $other->value;
                }
            }
            $prospect = new Prospect($line, $mask, $others, $this->sight, $this->book, $this->grid);
            $reach = $prospect->reach();
            if ($reach > 0.0) {
                $found[] = [$reach, $prospect];
            }
        }
        usort($found, static fn (array $a, array $b): int => $b[0] <=> $a[0]);

        return array_column($found, 1);
    }

    /** Whether a ball is the break ball of straight pool: after it the next rack is to be opened. */
    public function isBreakBall(Ball $ball): bool
    {
        return Game::StraightPool === $this->rack->game && $this->order->isLast(Order::bit($ball)) && $this->layout->count() > 1;
    }

    /** The next rack with the break ball beside it; null for other balls, or where that lies in the rack. */
    private function racked(Ball $ball): ?Layout
    {
        if (!$this->isBreakBall($ball)) {
            return null;
        }
        $corner = Spot::metres($this->rack->balls->radius, $this->rack->balls->radius);

        return Racking::again(Layout::empty()->with(Ball::Cue, $corner)->with($ball, $this->layout->spot($ball)), $this->rack->table, $this->rack->balls)?->without(Ball::Cue);
    }

    private function without(int $set): Layout
    {
        return array_reduce($this->layout->balls(), static fn (Layout $left, Ball $ball): Layout => 0 !== ($set & 1 << $ball->value) ? $left->without($ball) : $left, $this->layout);
    }

    private static function key(Prospect $prospect): string
    {
        return $prospect->ball->value.$prospect->pocket->value;
    }

    private function isOnBed(PotModel $line): bool
    {
        return $this->rack->table->beyond($line->ghost->x, $line->ghost->y, $this->rack->balls->radius) < 0.0005;
    }

    /** @return list<PocketGeometry> those that look best from a spot: how wide the mouth is, seen from there */
    private function pocketsInOrder(Spot $object): array
    {
        $wide = [];
        foreach (Pocket::cases() as $pocket) {
            $geometry = (new TableGeometry($this->rack->table))->at($pocket);
            $distance = max($object->distanceTo($geometry->mouth()), 1e-3);
            $depth = -$geometry->depth($object) / $distance;
            if ($depth > 0.25) {
                $wide[$pocket->value] = [$depth / ($distance + 0.3), $geometry];
            }
        }
        uasort($wide, static fn (array $a, array $b): int => $b[0] <=> $a[0]);

        return array_values(array_map(static fn (array $pair): PocketGeometry => $pair[1], \array_slice($wide, 0, $this->moved > 0 ? self::AGAIN : self::LOOKED)));
    }
}
