<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Motion;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\Internal\Approach;
use ZigLane\Core\Motion\Phase;
use ZigLane\Core\Motion\Segment;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Motion\Trajectory;
use ZigLane\Core\Name\Ball;
use ZigLane\Tests\Chance;
use ZigLane\Tests\Polynomial;
use ZigLane\Tests\Table;

/** Paths, and the roots that contacts come from. */
final class TrajectoryTest extends TestCase
{
    public function testLengthOfAParabolaIsThatOfItsFinePolygon(): void
    {
        $segment = new Segment(0.0, 0.7, Phase::Sliding, 0.2, 0.3, 1.5, -0.4, -1.2, 1.7);
        $sum = 0.0;
        for ($i = 0; $i < 20000; ++$i) {
            $sum += $segment->at(0.7 * $i / 20000)->distanceTo($segment->at(0.7 * ($i + 1) / 20000));
        }

        self::assertEqualsWithDelta($sum, $segment->length(), 1e-7);
    }

    public function testTheBezierThroughTheControlPointIsThePath(): void
    {
        $segment = new Segment(0.0, 0.7, Phase::Sliding, 0.2, 0.3, 1.5, -0.4, -1.2, 1.7);
        $from = $segment->at(0.0);
        $to = $segment->at(0.7);
        $control = $segment->control();
        foreach ([0.2, 0.5, 0.9] as $s) {
            $spot = $segment->at(0.7 * $s);
            self::assertEqualsWithDelta($spot->x, (1 - $s) ** 2 * $from->x + 2 * $s * (1 - $s) * $control->x + $s ** 2 * $to->x, 1e-12);
            self::assertEqualsWithDelta($spot->y, (1 - $s) ** 2 * $from->y + 2 * $s * (1 - $s) * $control->y + $s ** 2 * $to->y, 1e-12);
        }
    }

    public function testPositionSpeedAndPhaseAtAnyTime(): void
    {
        $trajectory = (new Table())->simulator()->play(Table::layout([0 => [0.5, 0.6]]), Strike::degrees(0.0, 1.0))->trajectory(Ball::Cue);
        $roll = $trajectory->segments[1];

        self::assertSame(0.5, $trajectory->at(-1.0)->x);
        self::assertSame(Phase::Sliding, $trajectory->phase(0.01));
        self::assertSame(Phase::Rolling, $trajectory->phase($roll->start + 0.1));
        self::assertEqualsWithDelta($trajectory->at($roll->start - 1e-12)->x, $trajectory->at($roll->start + 1e-12)->x, 1e-9);
        self::assertEquals($trajectory->last(), $trajectory->at(1000.0));
        self::assertSame(0.0, $trajectory->speed($trajectory->end()));
    }

    public function testFewPointsDrawThePathWithinHalfAMillimetre(): void
    {
        $trajectory = (new Table())->simulator()->play(
            Table::layout([0 => [0.5, 0.6]]),
            Strike::degrees(35.0, 2.5, 0.4, 0.2, 25.0),
        )->trajectory(Ball::Cue);
        $points = $trajectory->points();

        self::assertLessThan(10 * \count($trajectory->segments), \count($points));
        self::assertEquals($trajectory->last(), $points[\count($points) - 1]);
        for ($time = 0.0; $time < $trajectory->end(); $time += 0.003) {
            $spot = $trajectory->at($time);
            $off = \INF;
            for ($i = 1; $i < \count($points); ++$i) {
                [$a, $b] = [$points[$i - 1], $points[$i]];
                $length = max($a->distanceTo($b), 1e-12);
                $share = max(0.0, min(1.0, (($spot->x - $a->x) * ($b->x - $a->x) + ($spot->y - $a->y) * ($b->y - $a->y)) / $length ** 2));
                $off = min($off, hypot($spot->x - $a->x - $share * ($b->x - $a->x), $spot->y - $a->y - $share * ($b->y - $a->y)));
            }
            self::assertLessThan(0.0005, $off);
        }
    }

    public function testATrajectoryNeedsATrack(): void
    {
        $this->expectException(\LogicException::class);
        Trajectory::fromTrack([]);
    }

    public function testTheFastSearchFindsTheRootOfTheQuartic(): void
    {
        $chance = new Chance(11);
        $met = 0;
        for ($i = 0; $i < 4000; ++$i) {
            [$dx, $dy] = [$chance->float(-1, 1), $chance->float(-1, 1)];
            [$vx, $vy] = [$chance->float(-3, 3), $chance->float(-3, 3)];
            [$ax, $ay] = [$chance->float(-4, 4), $chance->float(-4, 4)];
            $reach = $chance->float(0.05, 0.3);
            if (hypot($dx, $dy) < $reach + 1e-3) {
                continue;
            }
            $root = Polynomial::quadraticDistance($dx, $dy, $vx, $vy, $ax, $ay, $reach)->firstRoot(2.0);
            $found = Approach::within($dx, $dy, $vx, $vy, $ax, $ay, $reach, 1e-12, 2.0);
            if (null === $root) {
                self::assertSame(\INF, $found);
            } else {
                self::assertEqualsWithDelta($root, $found, 1e-6);
                ++$met;
            }
        }
        self::assertGreaterThan(300, $met);
    }

    public function testRootsOfAPolynomialWithKnownRoots(): void
    {
        // (t - 0.5)(t - 1)(t - 1.5)(t + 2) = t^4 - t^3 - 3.25 t^2 + 4.75 t - 1.5
        $roots = (new Polynomial([-1.5, 4.75, -3.25, -1.0, 1.0]))->roots(3.0);

        self::assertCount(3, $roots);
        foreach ([0.5, 1.0, 1.5] as $i => $root) {
            self::assertEqualsWithDelta($root, $roots[$i], 1e-12);
        }
    }

    public function testCrossingOfALine(): void
    {
        [$ball] = Table::bodies([1.0, 0.6]);

        self::assertEqualsWithDelta(1.0, $ball->crossing(1.0, -1.0, 0.0), 1e-12);
        self::assertEqualsWithDelta(2.0, $ball->crossing(0.0, 1.0, -1.0), 1e-12);
        self::assertSame(\INF, $ball->crossing(1.0, 1.0, 0.0));
        self::assertSame(\INF, $ball->crossing(1.0, -1.0, 1.0));
        self::assertSame(0.0, $ball->crossing(0.0, -1.0, 0.0));
    }
}
