<?php

declare(strict_types=1);

namespace ZigLane\Tests;

use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\Internal\Body;
use ZigLane\Core\Motion\Internal\Engine;
use ZigLane\Core\Motion\Outcome;
use ZigLane\Core\Motion\Tolerances;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableProfile;

/** A table in a test: lays balls out, lets them go, weighs their energy. */
final readonly class Table
{
    public const R = 0.028575;

    public function __construct(public TableProfile $profile = new TableProfile(), public BallSet $balls = new BallSet())
    {
    }

    /** Perfect balls on a cloth without friction between them, for closed forms. */
    public static function ideal(): self
    {
        return new self(new TableProfile(), new BallSet(restitution: 1.0, frictionFloor: 0.0, frictionFall: 0.0));
    }

    public function simulator(): EventSimulator
    {
        return new EventSimulator(new Equipment($this->profile, $this->balls));
    }

    /**
     * Balls as the engine has them, on the usual table.
     *
     * @param array{float, float} $first metres
     * @param array{float, float} $more
     *
     * @return non-empty-list<Body>
     */
    public static function bodies(array $first, array ...$more): array
    {
        $bodies = (new Engine(new TableProfile(), new BallSet(), new Tolerances()))->layOut([$first, ...array_values($more)])->bodies;
        \assert([] !== $bodies);

        return $bodies;
    }

    /** @param array<int, array{float, float}> $spots metres, keyed by the ball's number */
    public static function layout(array $spots): Layout
    {
        $layout = Layout::empty();
        foreach ($spots as $number => [$x, $y]) {
            $layout = $layout->with(Ball::from($number), Spot::metres($x, $y));
        }

        return $layout;
    }

    /**
     * A cue ball with the given speed and follow (1 rolling, 0 stun) that meets the 1 at a cut, moving along +x.
     *
     * @return array{Outcome, float, float} the outcome and the directions (radians) of cue ball and 1 just after contact
     */
    public function hit(float $cutDegrees, float $speed, float $roll = 0.0, float $side = 0.0): array
    {
        $cut = deg2rad($cutDegrees);
        $gap = 1e-7;
        $layout = self::layout([0 => [1.0 - 2 * self::R * cos($cut) - $gap, 0.6 - 2 * self::R * sin($cut)], 1 => [1.0, 0.6]]);
        $outcome = $this->simulator()->release(
            $layout,
            [0 => [$speed, 0.0, 0.0, $roll * $speed / self::R, $side * 2.5 * $speed / self::R]],
        );

        return [$outcome, self::heading($outcome, Ball::Cue), self::heading($outcome, Ball::One)];
    }

    /** Direction of a ball just after the first contact, radians. */
    public static function heading(Outcome $outcome, Ball $ball): float
    {
        $contact = $outcome->firstContact();
        $segment = $outcome->trajectory($ball)->segmentAt($contact->time ?? 0.0);

        return atan2($segment->vy, $segment->vx);
    }

    /** Kinetic energy of all balls at a time, joules. */
    public function energy(Outcome $outcome, float $time): float
    {
        $sum = 0.0;
        foreach ($outcome->trajectories as $number => $trajectory) {
            $end = $outcome->pocketed[$number] ?? null;
            if (null !== $end && $time >= $trajectory->end()) {
                continue;
            }
            $segment = $trajectory->segmentAt($time);
            $within = min($time, $segment->end());
            [$vx, $vy] = $segment->velocity($within);
            [$wx, $wy, $wz] = $segment->spin($within, $this->balls, $this->profile);
            $sum += 0.5 * $this->balls->mass * ($vx ** 2 + $vy ** 2)
                + 0.2 * $this->balls->mass * $this->balls->radius ** 2 * ($wx ** 2 + $wy ** 2 + $wz ** 2);
        }

        return $sum;
    }

    /** A random legal layout of so many balls, the cue ball first; some of them touch. */
    public function randomLayout(Chance $random, int $count, float $touching = 0.0): Layout
    {
        $rules = new LayoutRules(new Equipment($this->profile, $this->balls));
        $layout = Layout::empty();
        while ($layout->count() < $count) {
            $ball = Ball::from($layout->count());
            $spot = Spot::metres(
                $random->float(self::R, $this->profile->length - self::R),
                $random->float(self::R, $this->profile->width() - self::R),
            );
            if ($layout->count() > 0 && $random->float(0, 1) < $touching) {
                $other = $layout->spot(Ball::from($random->int(0, $layout->count() - 1)));
                $spot = $other->towards($random->float(0, 2 * \M_PI), 2 * self::R);
            }
            if ([] === $rules->faults($layout->with($ball, $spot))) {
                $layout = $layout->with($ball, $spot);
            }
        }

        return $layout;
    }
}
