<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion\Internal;

/**
 * One ball while a shot is simulated: its state at `since` (its own time base), the constant accelerations from then on, and
 * what will happen to it next. SI units. Its numbers have their types in words only: PHP checks every write to a typed property
 * by a call, an eighth of the engine's work (docs/performance.md).
 *
 * @internal
 */
final class Body
{
    public const SLIDING = 0;
    public const ROLLING = 1;
    public const SPINNING = 2;
    public const AT_REST = 3;
    public const POCKETED = 4;
    public const CONTACT = 5;

    /** @var float */
    public $since = 0.0;
    /** @var float */
    public $vx = 0.0;
    /** @var float */
    public $vy = 0.0;
    /** @var float */
    public $ax = 0.0;
    /** @var float */
    public $ay = 0.0;
    /** @var float */
    public $wx = 0.0;
    /** @var float */
    public $wy = 0.0;
    /** @var float */
    public $wz = 0.0;
    /** @var int */
    public $phase = self::AT_REST;

    /** @var int the pocket whose surroundings the ball is in, as an index; -1 on the open table. */
    public $zone = -1;
    /** @var float when it comes or came there; it is seen ahead. */
    public $enters = 0.0;
    /** @var float when it drops unless it leaves the hole's circle before; INF outside the circle. */
    public $drops = \INF;

    /** @var float its next event with the table or with its own motion. */
    public $ownTime = \INF;
    /** @var int */
    public $ownKind = 0;
    /** @var int */
    public $ownSurface = -1;
    /** @var float its next meeting with another ball. */
    public $pairTime = \INF;
    /** @var self|null */
    public $partner;

    /** @var float the box that the centre stays in until its own next event. */
    public $left = 0.0;
    /** @var float */
    public $right = 0.0;
    /** @var float */
    public $bottom = 0.0;
    /** @var float */
    public $top = 0.0;

    /** @var bool */
    public $hasMoved = false;

    /** @var array<int, float> until when a surface that it is pressed to is left alone, keyed by surface */
    public array $pressedUntil = [];

    /** @var list<array{float, int, float, float, float, float, float, float, float, float, float}> since, phase, x, y, vx, vy, ax, ay, wx, wy, wz */
    public array $track = [];

    /** @var int its place in the list of all balls */
    public $index;
    /** @var bool whether the pieces of its path are kept */
    public $isTracked;
    /** @var float */
    public $x;
    /** @var float */
    public $y;

    public function __construct(int $index, float $x, float $y, bool $isTracked = true)
    {
        $this->index = $index;
        $this->isTracked = $isTracked;
        $this->x = $this->left = $this->right = $x;
        $this->y = $this->bottom = $this->top = $y;
    }

    public function isMoving(): bool
    {
        return $this->phase <= self::ROLLING;
    }

    /** Writes down the piece of path that begins now. */
    public function keep(): void
    {
        $this->track[] = [$this->since, $this->phase, $this->x, $this->y, $this->vx, $this->vy, $this->ax, $this->ay, $this->wx, $this->wy, $this->wz];
    }

    /** Writes a piece of path on which contacts acted: straight, from the present spot, with the mean velocity. */
    public function trackContact(float $vx, float $vy): void
    {
        if ($this->isTracked) {
            $this->track[] = [$this->since, self::CONTACT, $this->x, $this->y, $vx, $vy, 0.0, 0.0, $this->wx, $this->wy, $this->wz];
        }
    }

    /** The ball has dropped: it takes part in nothing any more. */
    public function drop(float $time): void
    {
        $this->phase = self::POCKETED;
        $this->ownTime = $this->pairTime = \INF;
        $this->partner = null;
        $this->vx = $this->vy = $this->ax = $this->ay = 0.0;
        if ($this->isTracked) {
            $this->track[] = [$time, self::POCKETED, $this->x, $this->y, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0];
        }
    }
}
