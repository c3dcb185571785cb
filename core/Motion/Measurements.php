<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

use ZigLane\Core\Motion\Internal\Body;
use ZigLane\Core\Motion\Internal\Engine;
use ZigLane\Core\Motion\Internal\InitialState;
use ZigLane\Core\Motion\Internal\PackedEvent;
use ZigLane\Core\Motion\Internal\Surfaces;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Spot;

/** Plays many strokes from one layout, which was found legal before, and keeps of each what can be measured. */
final class Measurements
{
    /** @var list<Ball> */
    private readonly array $balls;
    private readonly int $cue;
    private readonly InitialState $start;

    /** @var list<Body> the balls that the last stroke moved: they are put back before the next */
    private array $moved = [];

    /** @internal made by EventSimulator::measurements */
    public function __construct(private readonly Engine $engine, Layout $layout, private readonly float $radius)
    {
        $this->balls = $layout->balls();
        $this->cue = (int) array_search(Ball::Cue, $this->balls, true);
        $this->start = $engine->layOut($layout->places(), true, $this->cue);
    }

    /** @throws SimulationLimit If the bound on events is met */
    public function play(Strike $strike): Measured
    {
        foreach ($this->moved as $body) {
            $body->track = [];
        }
        $this->start->putBack($this->moved);
        $struck = $this->start->bodies[$this->cue];
        [$struck->vx, $struck->vy, $struck->wx, $struck->wy, $struck->wz] = $strike->velocities($this->radius);
        try {
            $events = $this->engine->run($this->start, [$struck]);
        } finally {
            $this->moved = $this->engine->touched();
        }
        $spots = $this->engine->spots();
        $cushions = $pocketed = $before = [];
        foreach ($events as $i => $event) {
            $kind = PackedEvent::kind($event);
            $ball = PackedEvent::ball($event);
            if (PackedEvent::CUSHION === $kind) {
                $place = PackedEvent::place($event);
                [$x, $y] = $spots[$i];
                $last = $before[$ball] ?? null;
                if (null === $last || $last[0] !== $place || hypot($x - $last[1], $y - $last[2]) > Measured::ONCE) {
                    $cushions[$this->balls[$ball]->value][] = [Surfaces::RAILS[$place], Spot::metres($x, $y)];
                }
                $before[$ball] = [$place, $x, $y];
            } elseif (PackedEvent::POCKET === $kind) {
                $pocketed[$this->balls[$ball]->value] = Surfaces::POCKETS[PackedEvent::place($event)];
            }
        }
        $ends = [];
        $seconds = 0.0;
        foreach ($this->start->bodies as $i => $body) {
            $ends[$this->balls[$i]->value] = Spot::metres($body->x, $body->y);
            for ($piece = \count($body->track) - 1; $piece > 0; --$piece) {
                if ($body->track[$piece - 1][1] <= Body::ROLLING || Body::CONTACT === $body->track[$piece - 1][1]) {
                    $seconds = max($seconds, $body->track[$piece][0]);
                    break;
                }
            }
        }

        return new Measured($ends, $pocketed, $cushions, $seconds);
    }
}
