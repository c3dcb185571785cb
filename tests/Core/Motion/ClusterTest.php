<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Motion;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\BallContact;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\Internal\Body;
use ZigLane\Core\Motion\Internal\Cluster;
use ZigLane\Core\Motion\Internal\Surfaces;
use ZigLane\Core\Motion\Tolerances;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\TableProfile;
use ZigLane\Tests\Table;

/** The compliant stage: it is the contact of two balls when only two meet, and shares a blow where three do. */
final class ClusterTest extends TestCase
{
    private const R = Table::R;

    /**
     * Velocities within 1 % of the blow's, surface speeds of the spins within 2 % (here the slip turns while it falls, in the
     * contact of two its direction is fixed); on a cloth that hardly acts in the meantime.
     */
    #[DataProvider('hits')]
    public function testTwoBallsPartAsInTheContactOfTwo(float $speed, float $cutDegrees, float $side): void
    {
        $balls = new BallSet();
        $cut = deg2rad($cutDegrees);
        [$a, $b] = Table::bodies([1.0 - 2 * self::R * cos($cut), 0.6 - 2 * self::R * sin($cut)], [1.0, 0.6]);
        [$a->vx, $a->wy, $a->wz] = [$speed, 0.5 * $speed / self::R, $side * $speed / self::R];
        [$jx, $jy, $wx, $wy, $wz] = (new BallContact($balls))->impulse(cos($cut), sin($cut), $a->vx, 0.0, 0.0, $a->wy, $a->wz);
        $moved = self::cluster($balls)->part([$a, $b], [$a, $b], 0.0);

        self::assertCount(2, $moved);
        foreach ([[$speed + $jx, $a->vx], [$jy, $a->vy], [-$jx, $b->vx], [-$jy, $b->vy]] as [$expected, $actual]) {
            self::assertEqualsWithDelta($expected, $actual, 0.01 * $speed);
        }
        foreach ([[$wx, $b->wx], [$wy, $b->wy], [$wz, $b->wz]] as [$expected, $actual]) {
            self::assertEqualsWithDelta($expected * self::R, $actual * self::R, 0.02 * $speed);
        }
    }

    /** @return iterable<array{float, float, float}> */
    public static function hits(): iterable
    {
        foreach ([0.3, 1.0, 4.0, 10.0] as $speed) {
            foreach ([0.0, 30.0, 60.0, 80.0] as $cut) {
                foreach ([-0.5, 0.0, 0.8] as $side) {
                    yield [$speed, $cut, $side];
                }
            }
        }
    }

    /** Two balls at 1 m/s touch for a quarter of a millisecond (from memory), at v for v^(-1/5) times that (Hertz). */
    public function testHowLongAContactLasts(): void
    {
        $cluster = self::cluster(new BallSet());

        self::assertEqualsWithDelta(250e-6, $cluster->contactTime(1.0), 10e-6);
        self::assertEqualsWithDelta($cluster->contactTime(1.0) / 2, $cluster->contactTime(32.0), 1e-9);
    }

    /** A ball between two that touch it symmetrically sends both away alike and keeps the balance. */
    public function testABlowIntoTheMiddleOfTwoIsShared(): void
    {
        $d = 2 * self::R;
        $layout = Table::layout([0 => [1.0 - $d * \sqrt(3) / 2 - 0.2, 0.6], 1 => [1.0, 0.6 + self::R], 2 => [1.0, 0.6 - self::R]]);
        $outcome = (new Table())->simulator()->release($layout, [0 => [2.0, 0.0, 0.0, 2.0 / self::R, 0.0]]);
        $time = ($outcome->firstContact()->time ?? 0.0) + 0.003;
        [$one, $two] = [$outcome->trajectory(Ball::One), $outcome->trajectory(Ball::Two)];

        self::assertGreaterThan(0.8, $one->speed($time));
        self::assertEqualsWithDelta($one->speed($time), $two->speed($time), 1e-3);
        self::assertEqualsWithDelta($one->at($time)->y - 0.6, 0.6 - $two->at($time)->y, 1e-5);
        self::assertLessThan(0.0, $outcome->trajectory(Ball::Cue)->segmentAt($time)->vx);
    }

    /** Momentum of a struck group: what the cue ball loses the others gain, but for the cloth in two milliseconds. */
    public function testAGroupKeepsTheMomentum(): void
    {
        $d = 2 * self::R;
        $cluster = self::cluster(new BallSet());
        $bodies = Table::bodies(
            [1.0 - \sqrt($d ** 2 - 1e-4), 0.61],
            [1.0, 0.6],
            [1.0 + $d * 0.9, 0.6 + $d * \sqrt(1 - 0.81)],
            [1.0 + $d, 0.6 - 0.002],
        );
        $bodies[0]->vx = 5.0;
        $cluster->part($bodies, $bodies, 0.0);

        self::assertEqualsWithDelta(5.0, array_sum(array_map(static fn (Body $body): float => $body->vx, $bodies)), 0.01);
        self::assertEqualsWithDelta(0.0, array_sum(array_map(static fn (Body $body): float => $body->vy, $bodies)), 0.01);
        $energy = array_sum(array_map(
            static fn (Body $body): float => $body->vx ** 2
                + $body->vy ** 2
                + 0.4 * self::R ** 2 * ($body->wx ** 2 + $body->wy ** 2 + $body->wz ** 2),
            $bodies,
        ));
        self::assertLessThan(25.0, $energy);
        self::assertGreaterThan(20.0, $energy);
    }

    /** Half the step changes a break's first moments by little; later contacts are chaotic and are left out. */
    public function testHalfTheStepGivesTheSameGroup(): void
    {
        $speeds = [];
        foreach ([80, 160] as $steps) {
            $d = 2 * self::R;
            $simulator = new EventSimulator(tolerances: new Tolerances(clusterSteps: $steps));
            $outcome = $simulator->release(
                Table::layout([
                    0 => [0.7, 0.601],
                    1 => [1.0, 0.6],
                    2 => [1.0 + $d * \sqrt(3) / 2, 0.6 + self::R],
                    3 => [1.0 + $d * \sqrt(3) / 2, 0.6 - self::R],
                ]),
                [0 => [6.0, 0.0, 0.0, 0.0, 0.0]],
            );
            $time = ($outcome->firstContact()->time ?? 0.0) + 0.003;
            $speeds[] = array_map(static fn ($trajectory): float => $trajectory->speed($time), $outcome->trajectories);
        }
        foreach ($speeds[0] as $i => $speed) {
            self::assertEqualsWithDelta($speed, $speeds[1][$i], 0.03);
        }
    }

    /**
     * A ball frozen to the rail with another frozen to it: the stage leaves it pressed to the rail with no speed towards it and friction
     * that turns it there. It must not be met for ever at one instant.
     */
    public function testABallThatIsLeftPressedToTheRailComesAway(): void
    {
        $layout = Table::layout([
            0 => [0.8255, 0.4445],
            1 => [1.651, 0.254],
            2 => [2.00025, 0.92075],
            3 => [2.4539575, 0.508],
            4 => [2.54 - self::R, 0.508],
            5 => [0.4445, 0.92075],
        ]);
        $outcome = (new EventSimulator(new Equipment(new TableProfile(cushionFriction: 0.20))))->release(
            $layout,
            [0 => [4.369480349303943, -1.290446432575796, 47.28421353914959, 159.3980270036226, 5.7374088049416585]],
        );

        self::assertGreaterThan(2.0, $outcome->duration());
        self::assertLessThan(200, \count($outcome->events));
        self::assertNotEqualsWithDelta(0.508, $outcome->trajectory(Ball::Four)->last()->y, 0.001);
    }

    private static function cluster(BallSet $balls): Cluster
    {
        $table = new TableProfile(slide: 0.05);

        return new Cluster($table, $balls, new Surfaces($table, $balls), new Tolerances());
    }
}
