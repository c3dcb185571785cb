<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

use ZigLane\Core\Motion\Internal\Body;
use ZigLane\Core\Motion\Internal\Engine;
use ZigLane\Core\Motion\Internal\InitialState;
use ZigLane\Core\Motion\Internal\PackedEvent;
use ZigLane\Core\Motion\Internal\Surfaces;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Spot;

/** Plays many strokes from one layout, which was found legal before, and keeps of each only how it ends. */
final class Rollouts
{
    /** @var list<Ball> */
    private readonly array $balls;

    /** Index of the ball that is played: the cue ball. */
    private readonly int $cue;

    private readonly InitialState $start;

    /** @var list<Body> the balls that the last stroke moved: they are put back before the next */
    private array $moved = [];

    /** @internal made by EventSimulator::rollouts */
    public function __construct(
        private readonly Engine $engine,
        private readonly Layout $layout,
        private readonly float $radius,
        Ball $played = Ball::Cue,
    ) {
        $this->balls = $layout->balls();
        $this->cue = (int) array_search($played, $this->balls, true);
        $this->start = $engine->layOut($layout->places(), false, EventSimulator::cueOf($this->balls));
    }

    /**
     * Where the ball that is played stops, or which ball it meets before.
     *
     * @param array{float, float, float, float, float} $motion vx, vy (m/s), wx, wy, wz (rad/s)
     *
     * @return array{Ball|null, float, float} the ball that is met, or null; then where it stops, metres, x of -1 if it drops
     *
     * @throws SimulationLimit If the bound on events is met
     */
    public function alone(array $motion): array
    {
        $events = $this->run($motion, true);
        foreach ($events as $event) {
            if (PackedEvent::BALL === PackedEvent::kind($event)) {
                $ball = PackedEvent::ball($event);

                return [$this->balls[$ball === $this->cue ? PackedEvent::other($event) : $ball], -1.0, -1.0];
            }
        }
        $played = $this->start->bodies[$this->cue];

        return Body::POCKETED === $played->phase ? [null, -1.0, -1.0] : [null, $played->x, $played->y];
    }

    /**
     * Whether the ball that is played drops in a pocket without meeting another; one that comes back to it from across the table does not.
     *
     * @param array{float, float, float, float, float} $motion vx, vy (m/s), wx, wy, wz (rad/s)
     *
     * @throws SimulationLimit If the bound on events is met
     */
    public function drops(array $motion, Pocket $pocket): bool
    {
        $index = (int) array_search($pocket, Surfaces::POCKETS, true);
        foreach ($this->run($motion, true, $index) as $event) {
            if (PackedEvent::BALL === PackedEvent::kind($event)) {
                return false;
            }
            if (PackedEvent::POCKET === PackedEvent::kind($event)) {
                return PackedEvent::place($event) === $index;
            }
        }

        return false;
    }

    /** @throws SimulationLimit If the bound on events is met */
    public function play(Strike $strike): Ending
    {
        return $this->let($strike->velocities($this->radius));
    }

    /**
     * @param array{float, float, float, float, float} $motion of the ball that is played: vx, vy (m/s), wx, wy, wz (rad/s)
     *
     * @throws SimulationLimit If the bound on events is met
     */
    public function let(array $motion): Ending
    {
        $first = null;
        $pocketed = $cushions = $driven = $struckAt = [];
        $before = null;
        $events = $this->run($motion);
        $times = $this->engine->times();
        foreach ($events as $i => $event) {
            $kind = PackedEvent::kind($event);
            $ball = PackedEvent::ball($event);
            $where = PackedEvent::place($event);
            if (PackedEvent::BALL === $kind) {
                $other = PackedEvent::other($event);
                $struckAt[$ball] ??= $times[$i];
                $struckAt[$other] ??= $times[$i];
                if (null === $first && ($ball === $this->cue || $other === $this->cue)) {
                    $first = $this->balls[$ball === $this->cue ? $other : $ball];
                    $before = $cushions;
                }
            } elseif (PackedEvent::POCKET === $kind) {
                $pocketed[$this->balls[$ball]->value] = Surfaces::POCKETS[$where];
            } elseif (PackedEvent::CUSHION === $kind || PackedEvent::JAW === $kind) {
                $met = PackedEvent::CUSHION === $kind ? Surfaces::RAILS[$where] : Surfaces::POCKETS[$where];
                if ($ball === $this->cue) {
                    $cushions[] = $met;
                }
                if (null !== $first) {
                    $driven[] = [$this->balls[$ball], $met, $times[$i] - ($struckAt[$ball] ?? 0.0)];
                }
            }
        }
        $final = $this->layout;
        $struck = [];
        foreach ($this->start->bodies as $i => $body) {
            $ball = $this->balls[$i];
            if (Body::POCKETED === $body->phase) {
                $final = $final->without($ball);
            } elseif ($body->hasMoved) {
                $final = $final->with($ball, Spot::metres($body->x, $body->y));
            } else {
                continue;
            }
            if (Ball::Cue !== $ball) {
                $struck[] = $ball;
            }
        }

        return new Ending($final, $pocketed, $first, $struck, $cushions, $before ?? $cushions, $driven);
    }

    /**
     * @param array{float, float, float, float, float} $motion of the ball that is played
     *
     * @return list<int> the engine's events; the balls are left as they end
     */
    private function run(array $motion, bool $untilMeeting = false, int $towards = -1): array
    {
        $this->start->putBack($this->moved);
        $played = $this->start->bodies[$this->cue];
        [$played->vx, $played->vy, $played->wx, $played->wy, $played->wz] = $motion;
        try {
            return $this->engine->run($this->start, [$played], $untilMeeting, $towards);
        } finally {
            $this->moved = $this->engine->touched();
        }
    }
}
