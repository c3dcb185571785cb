<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

use ZigLane\Core\Error\SimulationLimit;
use ZigLane\Core\Motion\Internal\Body;
use ZigLane\Core\Motion\Internal\Engine;
use ZigLane\Core\Motion\Internal\Surfaces;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Spot;
use ZigLane\Core\Table\Pocket;

/** Plays many strokes from one layout, which was found legal before, and keeps of each only how it ends. */
final class Rollouts
{
    /** @var list<Ball> */
    private readonly array $balls;

    /** @var list<array{float, float}> */
    private readonly array $spots;

    /** Index of the ball that is played: the cue ball. */
    private readonly int $cue;

    /** @var list<Body> the balls, as the last stroke left them */
    private array $bodies = [];

    /** @var list<Body> those that it moved: they are put back before the next */
    private array $moved = [];

    /** @internal made by EventSimulator::rollouts */
    public function __construct(private readonly Engine $engine, private readonly Layout $layout, private readonly float $radius, Ball $played = Ball::Cue)
    {
        $this->balls = $layout->balls();
        $this->cue = (int) array_search($played, $this->balls, true);
        $this->spots = array_map(static fn (Ball $ball): array => [$layout->spot($ball)->x, $layout->spot($ball)->y], $this->balls);
        foreach ($this->spots as $i => [$x, $y]) {
            $this->bodies[] = $engine->ball($i, $x, $y, false);
        }
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
        [$events, $bodies] = $this->run($motion, true);
        foreach ($events as [, $kind, $body, $other]) {
            if (EventKind::Ball === $kind && null !== $other) {
                return [$this->balls[$body->index === $this->cue ? $other->index : $body->index], -1.0, -1.0];
            }
        }
        $played = $bodies[$this->cue];

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
        foreach ($this->run($motion, true, $index)[0] as [, $kind, , , $where]) {
            if (EventKind::Ball === $kind) {
                return false;
            }
            if (EventKind::Pocket === $kind) {
                return $where === $index;
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
        $pocketed = $cushions = [];
        $meetsCushion = false;
        [$events, $bodies] = $this->run($motion);
        $cue = $bodies[$this->cue];
        foreach ($events as [, $kind, $body, $other, $where]) {
            if (EventKind::Ball === $kind) {
                if (null === $first && null !== $other && ($body === $cue || $other === $cue)) {
                    $first = $this->balls[$body === $cue ? $other->index : $body->index];
                }
            } elseif (EventKind::Pocket === $kind) {
                $pocketed[$this->balls[$body->index]->value] = Surfaces::POCKETS[$where];
            } elseif (EventKind::Cushion === $kind) {
                $meetsCushion = $meetsCushion || null !== $first;
                if ($body === $cue) {
                    $cushions[] = Surfaces::RAILS[$where];
                }
            } elseif ($body === $cue && EventKind::Jaw === $kind) {
                $cushions[] = Surfaces::POCKETS[$where];
            }
        }
        $final = $this->layout;
        $struck = [];
        foreach ($bodies as $i => $body) {
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

        return new Ending($final, $pocketed, $first, $struck, $cushions, $meetsCushion);
    }

    /**
     * @param array{float, float, float, float, float} $motion of the ball that is played
     *
     * @return array{list<array{float, EventKind, Body, Body|null, int, float, float}>, array<int, Body>} the engine's events, and the balls as they end
     */
    private function run(array $motion, bool $untilMeeting = false, int $towards = -1): array
    {
        foreach ($this->moved as $body) {
            [$x, $y] = $this->spots[$body->index];
            $body->lie($x, $y);
        }
        $played = $this->bodies[$this->cue];
        [$played->vx, $played->vy, $played->wx, $played->wy, $played->wz] = $motion;
        try {
            return [$this->engine->run($this->bodies, [$played], $untilMeeting, $towards), $this->bodies];
        } finally {
            $this->moved = $this->engine->touched();
        }
    }
}
