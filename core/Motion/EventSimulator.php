<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

use ZigLane\Core\Motion\Internal\Engine;
use ZigLane\Core\Motion\Internal\PackedEvent;
use ZigLane\Core\Motion\Internal\Surfaces;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\IllegalLayout;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/** The simulator over the event-driven engine. */
final readonly class EventSimulator implements Simulator
{
    /** By PackedEvent's BALL to REST. */
    private const KINDS = [EventKind::Ball, EventKind::Cushion, EventKind::Jaw, EventKind::Pocket, EventKind::Roll, EventKind::Rest];

    private Engine $engine;
    private LayoutRules $rules;
    private BallSet $balls;

    public function __construct(Equipment $equipment = new Equipment(), Tolerances $tolerances = new Tolerances())
    {
        $this->balls = $equipment->balls;
        $this->engine = new Engine($equipment->table, $equipment->balls, $tolerances);
        $this->rules = new LayoutRules($equipment);
    }

    /**
     * From now on it stops with OutOfTime where the closure says that no more is wanted: asked every 32 shots, each of which takes some
     * tens of microseconds.
     *
     * @param (\Closure(): bool)|null $isOver
     */
    public function stopWhen(?\Closure $isOver): void
    {
        $this->engine->isOver = $isOver;
    }

    /** How many shots it has simulated so far. */
    public function shots(): int
    {
        return $this->engine->runs;
    }

    public function play(Layout $layout, Strike $strike): Outcome
    {
        $layout->spot(Ball::Cue);

        return $this->run($layout, [Ball::Cue->value => $strike->velocities($this->balls->radius)], true);
    }

    /**
     * For many strokes from one layout: checked once, and only their endings kept.
     *
     * @throws IllegalLayout If there is no cue ball or the balls cannot lie so
     */
    public function rollouts(Layout $layout): Rollouts
    {
        $layout->spot(Ball::Cue);
        $this->rules->assertLegal($layout);

        return new Rollouts($this->engine, $layout, $this->balls->radius);
    }

    /**
     * For many strokes from one layout, of which what can be measured is kept; the layout was found legal before.
     *
     * @throws IllegalLayout If there is no cue ball
     */
    public function measurements(Layout $layout): Measurements
    {
        $layout->spot(Ball::Cue);

        return new Measurements($this->engine, $layout, $this->balls->radius);
    }

    /** For letting one object ball of a layout go many times; the layout was found legal before. */
    public function rolloutsOf(Layout $layout, Ball $ball): Rollouts
    {
        return new Rollouts($this->engine, $layout, $this->balls->radius, $ball);
    }

    /**
     * Lets balls go with given velocities and spins, without a cue.
     *
     * @param array<int, array{float, float, float, float, float}> $velocities vx, vy (m/s), wx, wy, wz (rad/s), keyed by the ball's number
     */
    public function release(Layout $layout, array $velocities): Outcome
    {
        return $this->run($layout, $velocities, false);
    }

    /**
     * Which of them is the cue ball; -1 for none.
     *
     * @internal
     *
     * @param list<Ball> $balls
     */
    public static function cueOf(array $balls): int
    {
        $cue = array_search(Ball::Cue, $balls, true);

        return false === $cue ? -1 : $cue;
    }

    /** @param array<int, array{float, float, float, float, float}> $velocities */
    private function run(Layout $layout, array $velocities, bool $struck): Outcome
    {
        $this->rules->assertLegal($layout);
        $balls = $layout->balls();
        $start = $this->engine->layOut($layout->places(), true, self::cueOf($balls));
        $moving = [];
        foreach ($balls as $i => $ball) {
            $body = $start->bodies[$i];
            if (isset($velocities[$ball->value]) && [0.0, 0.0, 0.0, 0.0, 0.0] !== $velocities[$ball->value]) {
                [$body->vx, $body->vy, $body->wx, $body->wy, $body->wz] = $velocities[$ball->value];
                $moving[] = $body;
            } else {
                $body->keep();
            }
        }
        $events = $struck ? [new Event(0.0, EventKind::Strike, Ball::Cue, $layout->spot(Ball::Cue))] : [];
        $pocketed = [];
        $happened = $this->engine->run($start, $moving);
        $times = $this->engine->times();
        foreach ($this->engine->spots() as $i => [$x, $y]) {
            $kind = self::KINDS[PackedEvent::kind($happened[$i])];
            $ball = $balls[PackedEvent::ball($happened[$i])];
            $other = PackedEvent::other($happened[$i]);
            $where = PackedEvent::place($happened[$i]);
            $pocket = EventKind::Jaw === $kind || EventKind::Pocket === $kind ? Surfaces::POCKETS[$where] : null;
            $events[] = new Event(
                $times[$i],
                $kind,
                $ball,
                Spot::metres($x, $y),
                $other < 0 ? null : $balls[$other],
                EventKind::Cushion === $kind ? Surfaces::RAILS[$where] : null,
                $pocket,
            );
            if (EventKind::Pocket === $kind && null !== $pocket) {
                $pocketed[$ball->value] = $pocket;
            }
        }
        $final = $layout;
        $trajectories = [];
        foreach ($balls as $i => $ball) {
            $trajectory = Trajectory::fromTrack($start->bodies[$i]->track);
            $trajectories[$ball->value] = $trajectory;
            if (isset($pocketed[$ball->value])) {
                $final = $final->without($ball);
            } elseif ($start->bodies[$i]->hasMoved) {
                $final = $final->with($ball, $trajectory->last());
            }
        }

        return new Outcome($events, $trajectories, $final, $pocketed);
    }
}
