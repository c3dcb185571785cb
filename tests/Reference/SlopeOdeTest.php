<?php

declare(strict_types=1);

namespace ZigLane\Tests\Reference;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\OpenCloth;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\IllegalTable;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableProfile;

/**
 * A ball on a cloth that is not level against its equations of motion in small steps: gravity along the cloth acts on the centre, friction
 * at the contact point against the slip, and a rolling sphere takes five sevenths of the pull (Newton and Euler for a sphere of 2/5 m
 * R^2 on an inclined plane: any textbook of mechanics).
 */
final class SlopeOdeTest extends TestCase
{
    private const R = 0.028575;

    /** @param array{float, float, float, float, float} $stroke */
    #[DataProvider('shots')]
    public function testThePathOnASlope(float $slope, float $direction, array $stroke, float $withinMm): void
    {
        $table = TableProfile::fromArray(['slope' => $slope, 'slopeDirection' => $direction]);
        $strike = Strike::degrees(...$stroke);
        $path = (new OpenCloth(new Equipment($table)))->path(Spot::metres(0.0, 0.0), $strike);
        [$x, $y, $seconds] = self::steps($strike, 9.81 * sin(deg2rad($slope)), deg2rad($direction));
        self::assertLessThan(0.001 * $withinMm, hypot($path->last()->x - $x, $path->last()->y - $y));
        self::assertEqualsWithDelta($seconds, $path->end(), 0.02);
        // Where pieces of one motion meet the velocity hardly jumps.
        foreach ($path->segments as $i => $segment) {
            $next = $path->segments[$i + 1] ?? null;
            [$vx, $vy] = $segment->velocity($segment->end());
            self::assertLessThan(0.01, null === $next ? 0.0 : hypot($next->vx - $vx, $next->vy - $vy));
        }
    }

    /** @return iterable<string, array{float, float, array{float, float, float, float, float}, float}> slope, its direction, stroke, mm */
    public static function shots(): iterable
    {
        yield 'a slow roll across the slope' => [0.2, 90.0, [0.0, 0.5, 0.0, 0.4, 0.0], 0.3];
        yield 'a stun across it' => [0.2, 90.0, [0.0, 1.0, 0.0, 0.0, 0.0], 0.3];
        yield 'up a slight slope' => [0.1, 200.0, [20.0, 1.0, 0.0, 0.0, 0.0], 0.3];
        yield 'down the steepest' => [0.5, 40.0, [0.0, 0.5, 0.0, 0.4, 0.0], 2.0];
        yield 'draw with a raised cue' => [0.2, 90.0, [100.0, 2.0, 0.2, -0.4, 6.0], 0.5];
    }

    /** Common practice: a slow roll drifts more on its way than a firm drag shot over the same distance. */
    public function testASlowRollDriftsMoreThanADragShot(): void
    {
        $drift = static function (float $speed, float $height): float {
            $table = TableProfile::fromArray(['slope' => 0.15, 'slopeDirection' => 90.0]);
            $path = (new OpenCloth(new Equipment($table)))->path(Spot::metres(0.0, 0.0), Strike::degrees(0.0, $speed, 0.0, $height, 0.0));
            $reached = array_filter($path->points(), static fn (Spot $spot): bool => $spot->x >= 1.2);

            return [] === $reached ? self::fail('It does not go so far.') : reset($reached)->y;
        };
        $roll = $drift(0.52, 0.4);
        $drag = $drift(1.5, -0.35);
        self::assertGreaterThan(0.06, $roll);
        self::assertLessThan(0.55 * $roll, $drag);
    }

    public function testALevelTableKnowsNoDirection(): void
    {
        $ends = static fn (TableProfile $table): Spot => (new EventSimulator(new Equipment($table)))
            ->play(self::layout(), Strike::degrees(24.0, 3.0, 0.2, -0.2, 2.0))->final->spot(Ball::Cue);
        self::assertEquals($ends(new TableProfile()), $ends(TableProfile::fromArray(['slopeDirection' => 77.0])));
    }

    /** Balls at rest lie still; where they would not the table is refused. */
    public function testATableOnWhichNoBallWouldLieStillIsRefused(): void
    {
        $table = TableProfile::fromArray(['slope' => 0.6, 'slopeDirection' => -90.0]);
        $outcome = (new EventSimulator(new Equipment($table)))->play(
            self::layout(),
            Strike::degrees(90.0, 0.3, 0.0, 0.0, 0.0),
        );
        self::assertEqualsWithDelta(1.7, $outcome->final->spot(Ball::One)->x, 1e-12);
        $this->expectException(IllegalTable::class);
        TableProfile::fromArray(['slope' => 0.4, 'roll' => 0.005]);
    }

    private static function layout(): Layout
    {
        return Layout::empty()->with(Ball::Cue, Spot::metres(0.6, 0.4))->with(Ball::One, Spot::metres(1.7, 0.9));
    }

    /** @return array{float, float, float} where it stops, metres, and when */
    private static function steps(Strike $strike, float $pull, float $towards): array
    {
        [$px, $py] = [$pull * cos($towards), $pull * sin($towards)];
        [$vx, $vy, $wx, $wy] = $strike->velocities(self::R);
        $x = $y = $time = 0.0;
        $dt = 2e-5;
        for (; $time < 60.0; $time += $dt) {
            $ux = $vx - self::R * $wy;
            $uy = $vy + self::R * $wx;
            $slip = hypot($ux, $uy);
            $speed = hypot($vx, $vy);
            [$beforeX, $beforeY] = [$vx, $vy];
            if ($slip > 2e-4) {
                $fx = -0.20 * 9.81 * $ux / $slip;
                $fy = -0.20 * 9.81 * $uy / $slip;
                $vx += $dt * ($fx + $px);
                $vy += $dt * ($fy + $py);
                $wx += $dt * 2.5 / self::R * $fy;
                $wy -= $dt * 2.5 / self::R * $fx;
            } elseif ($speed > 4e-6) {
                $vx += $dt * (5 / 7 * $px - 0.010 * 9.81 * $vx / $speed);
                $vy += $dt * (5 / 7 * $py - 0.010 * 9.81 * $vy / $speed);
                $wx = -$vy / self::R;
                $wy = $vx / self::R;
            } else {
                break;
            }
            $x += 0.5 * $dt * ($beforeX + $vx);
            $y += 0.5 * $dt * ($beforeY + $vy);
        }

        return [$x, $y, $time];
    }
}
