<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan\Internal;

use ZigLane\Core\Motion\BallContact;
use ZigLane\Core\Motion\Rollouts;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Shot\ShotSolver;

/**
 * Where the cue ball goes after it has sent a ball along its line, for every cut of a row and every node of the StrokeLattice,
 * simulated from the contact on among the other balls. A route that meets a ball is simulated again without it, so that one entry
 * serves every set of balls that may still lie there: the balls that must be gone are its mask, one bit for each ball's number.
 *
 * @internal
 */
final class RouteTable
{
    /** Cuts of the row, degrees: positive to the left. */
    private const STEP = 10.0;
    private const MOST = 70.0;
    public const CUTS = 15;
    /** A route past so many balls one after the other is given up. */
    private const PAST = 4;
    public const DEAD = -1;
    /** Speed from which side is told apart, m/s. */
    private const SIDE_FROM = 0.7;

    /** @var array<int, array{list<int>, list<float>, list<float>}> by cut, as far as they were asked for */
    private array $rows = [];

    /** @var array<int, Rollouts> the table without some balls, by the bits of those */
    private array $tables = [];

    private Layout $layout;
    private readonly BallContact $contact;

    /** @param Layout $layout the other balls; those that touch the ghost ball are not looked at */
    public function __construct(
        Layout $layout,
        private readonly PotModel $line,
        private readonly ShotSolver $solver,
        private readonly StrokeLattice $lattice,
    ) {
        $layout = $layout->without($line->ball)->without(Ball::Cue);
        foreach ($layout->balls() as $ball) {
            if ($layout->spot($ball)->distanceTo($line->ghost) < $solver->equipment->balls->diameter() + 1e-4) {
                $layout = $layout->without($ball);
            }
        }
        $this->layout = $layout->with(Ball::Cue, $line->ghost);
        $this->contact = new BallContact($solver->equipment->balls);
    }

    /**
     * The ends of the routes from one cut on, by node.
     *
     * @return array{list<int>, list<float>, list<float>} the balls that must be gone for the route to be free, as bits (DEAD: never), and
     *                                                    where the cue ball stops, metres: x of -1 for a scratch
     */
    public function row(int $cut): array
    {
        return $this->rows[$cut] ??= $this->played($cut);
    }

    /** @return array{list<int>, list<float>, list<float>} */
    private function played(int $cut): array
    {
        $along = $this->line->aimedLine();
        $approach = $along - deg2rad(self::STEP * $cut - self::MOST);
        $blockings = $x = $y = [];
        $end = [self::DEAD, -1.0, -1.0];
        foreach ($this->lattice->speeds as $speed) {
            foreach (StrokeLattice::ROLLS as $roll) {
                foreach (StrokeLattice::SIDES as $side) {
                    // So slow a ball reaches no cushion where its side would tell.
                    if ($speed >= self::SIDE_FROM || StrokeLattice::SIDES[0] === $side) {
                        $end = $this->end($this->after($approach, $along, $speed, $roll, $speed < self::SIDE_FROM ? 0.0 : $side));
                    }
                    $blockings[] = $end[0];
                    $x[] = $end[1];
                    $y[] = $end[2];
                }
            }
        }

        return [$blockings, $x, $y];
    }

    /**
     * The row's place of a cut, in steps; null past its ends.
     *
     * @param float $cut radians, positive to the left
     */
    public static function place(float $cut): ?float
    {
        $place = (rad2deg($cut) + self::MOST) / self::STEP;

        return $place < 0.0 || $place > self::CUTS - 1 ? null : $place;
    }

    /**
     * @param array{float, float, float, float, float} $motion of the cue ball just after the contact
     *
     * @return array{int, float, float}
     */
    private function end(array $motion): array
    {
        $blocking = 0;
        for ($past = 0; $past < self::PAST; ++$past) {
            [$met, $x, $y] = $this->without($blocking)->alone($motion);
            if (null === $met) {
                return [$blocking, $x, $y];
            }
            $blocking |= 1 << $met->value;
        }

        return [self::DEAD, -1.0, -1.0];
    }

    private function without(int $blocking): Rollouts
    {
        return $this->tables[$blocking] ??= $this->solver->simulator->rolloutsOf(
            array_reduce(
                $this->layout->balls(),
                static fn (Layout $left, Ball $ball): Layout => 0 !== ($blocking & 1 << $ball->value) ? $left->without($ball) : $left,
                $this->layout,
            ),
            Ball::Cue,
        );
    }

    /**
     * The cue ball's motion after a contact that sends the object ball along a line: the contact is turned until throw is made up for.
     *
     * @return array{float, float, float, float, float}
     */
    private function after(float $approach, float $along, float $speed, float $roll, float $side): array
    {
        $radius = $this->solver->equipment->balls->radius;
        $vx = $speed * cos($approach);
        $vy = $speed * sin($approach);
        $wx = -$roll * $vy / $radius;
        $wy = $roll * $vx / $radius;
        $wz = $side * $speed / $radius;
        $normal = $along;
        // Ends: after three rounds, below.
        for ($round = 0;; ++$round) {
            $impulse = $this->contact->impulse(cos($normal), sin($normal), $vx, $vy, $wx, $wy, $wz);
            $off = fmod(atan2(-$impulse[1], -$impulse[0]) - $along + 3 * \M_PI, 2 * \M_PI) - \M_PI;
            // Throw changes slowly with the contact: three rounds leave less than a hundredth of a degree.
            if ($round >= 3) {
                $share = $this->solver->equipment->balls->takenByCueBall();

                return [
                    $vx + $share * $impulse[0], $vy + $share * $impulse[1], $wx + $share * $impulse[2], $wy + $share * $impulse[3],
                    $wz + $share * $impulse[4],
                ];
            }
            $normal -= $off;
        }
    }
}
