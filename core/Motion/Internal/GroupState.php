<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion\Internal;

/**
 * The balls of a compliant stage (Cluster) and their contacts while it runs: the numbers of ball i stand at i of each array, those of
 * contact k at k of each. Who computes with them takes the arrays into local variables and gives them back: properties and references
 * would be followed at every access. SI units.
 *
 * @internal
 */
final class GroupState
{
    /** @var list<Body> */
    public array $members = [];
    /** @var int the cue ball's number; -1 where it is not in it */
    public int $cue = -1;
    /** @var array<int, float> */
    public array $x = [];
    /** @var array<int, float> */
    public array $y = [];
    /** @var array<int, float> */
    public array $vx = [];
    /** @var array<int, float> */
    public array $vy = [];
    /** @var array<int, float> */
    public array $wx = [];
    /** @var array<int, float> */
    public array $wy = [];
    /** @var array<int, float> */
    public array $wz = [];
    /** @var array<int, bool> whether each ball has moved */
    public array $touched = [];
    /** @var array<int, float> when each came into the stage */
    public array $start = [];

    /** @var list<int> one ball of each contact */
    public array $first = [];
    /** @var list<int> and the other */
    public array $second = [];
    /** @var list<float> the distance of centres below which they push */
    public array $lengths = [];
    /** @var array<int, float> the coefficient of friction; negative while they do not push */
    public array $frictions = [];
    /** @var array<int, float> the line of centres from first to second, while they push */
    public array $nxs = [];
    /** @var array<int, float> */
    public array $nys = [];
    /** @var array<int, float> the greatest slip of this push, m/s */
    public array $most = [];
    /** @var array<int, float> the impulse of friction so far, over mass */
    public array $rubbed = [];

    /** @var array<int, int> numbers of the contacts, keyed by 32 first + second */
    private array $numbers = [];

    /** @param list<Body> $members their states at $now */
    public function __construct(array $members, float $now)
    {
        foreach ($members as $body) {
            $this->add($body, $now);
        }
    }

    /** A ball comes into the stage. */
    public function add(Body $body, float $now): void
    {
        if ($body->isCue) {
            $this->cue = \count($this->members);
        }
        $this->members[] = $body;
        $this->x[] = $body->x;
        $this->y[] = $body->y;
        $this->vx[] = $body->vx;
        $this->vy[] = $body->vy;
        $this->wx[] = $body->wx;
        $this->wy[] = $body->wy;
        $this->wz[] = $body->wz;
        $this->touched[] = $body->phase <= Body::ROLLING || 0.0 !== $body->vx || 0.0 !== $body->vy;
        $this->start[] = $now;
    }

    /**
     * The contact of two balls that have come near each other.
     *
     * @param int   $key    32 times the first ball plus the second
     * @param float $length below which they push, metres; it is that of their first time here
     *
     * @return int its number
     */
    public function contact(int $key, float $length): int
    {
        if (!isset($this->numbers[$key])) {
            $this->numbers[$key] = \count($this->first);
            $this->first[] = $key >> 5;
            $this->second[] = $key & 31;
            $this->lengths[] = $length;
            $this->frictions[] = -1.0;
            $this->nxs[] = $this->nys[] = $this->most[] = $this->rubbed[] = 0.0;
        }

        return $this->numbers[$key];
    }
}
