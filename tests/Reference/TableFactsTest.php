<?php

declare(strict_types=1);

namespace ZigLane\Tests\Reference;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Format\ShotFile;
use ZigLane\Core\Motion\EventKind;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\Outcome;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Stroke\LengthScale;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\TableProfile;
use ZigLane\Tests\Table;

/**
 * The default table against what is known of real ones; each with its source. What is marked as regression data is no fact about
 * tables: figures of this same model from an independent implementation of it, which tell when the model has changed.
 */
final class TableFactsTest extends TestCase
{
    /** Regression data: an independent calculation of the same model, within a few millimetres. */
    public function testAWorkedExampleFromTheStrikeToRest(): void
    {
        $file = ShotFile::parse(
            '{"format": "zig-lane/shot", "version": 1, "layout": {"cue": [0.9, 0.5], "1": [1.905, 0.635], "9": [1.2, 1.0]}, "shot": {"direction": 5.2, "speed": 2.6, "side": 0.12, "height": 0.2, "elevation": 2}}',
        );
        $outcome = (new EventSimulator($file->equipment))->play($file->layout, $file->strike);
        $expected = [
            [0.0, 'strike', 0.9, 0.5], [0.189237, 'roll', 1.354701, 0.544725], [0.420531, 'ball', 1.865217, 0.593970],
            [0.648248, 'roll', 2.135895, 0.410363], [0.674997, 'roll', 2.156667, 0.889283], [0.929874, 'cushion', 2.511425, 0.229670],
            [1.123289, 'roll', 2.345795, 0.120742], [1.174902, 'pocket', 2.554721, 1.291365], [1.287963, 'cushion', 2.237036, 0.028575],
            [1.369324, 'roll', 2.188437, 0.057879], [8.109390, 'rest', 0.170423, 1.002756],
        ];

        self::assertCount(\count($expected), $outcome->events);
        foreach ($expected as $i => [$time, $kind, $x, $y]) {
            $event = $outcome->events[$i];
            self::assertSame($kind, $event->kind->value);
            self::assertEqualsWithDelta($time, $event->time, 0.005);
            self::assertEqualsWithDelta($x, $event->at->x, 0.001);
            self::assertEqualsWithDelta($y, $event->at->y, 0.001);
        }
        self::assertSame(Pocket::FootLeft, $outcome->pocketOf(Ball::One));
    }

    /** Regression data: an independent calculation of the same model, to be met within 2 %. */
    public function testALagThatReturnsToTheHeadRailLeavesAt147(): void
    {
        [$short, $reaches] = [1.47 * 0.98, 1.47 * 1.02];

        self::assertCount(1, self::lag($short)->eventsOf(Ball::Cue, EventKind::Cushion));
        self::assertCount(2, self::lag($reaches)->eventsOf(Ball::Cue, EventKind::Cushion));
    }

    /** Common practice: a lag leaves at 1.3 to 1.9 m/s. */
    public function testALagLeavesAtAWalkingPace(): void
    {
        self::assertCount(1, self::lag(1.3)->eventsOf(Ball::Cue, EventKind::Cushion));
        self::assertCount(2, self::lag(1.9)->eventsOf(Ball::Cue, EventKind::Cushion));
    }

    /** Regression data: an independent calculation of the same model, 2 %. Common practice: a cushion takes about half. */
    public function testARollingBallKeepsHalfOfItsSpeedAtACushion(): void
    {
        $outcome = (new EventSimulator())->play(Table::layout([0 => [2.0, 0.6]]), Strike::degrees(0.0, 1.5, 0.0, 0.4));
        $trajectory = $outcome->trajectory(Ball::Cue);
        $cushion = $outcome->eventsOf(Ball::Cue, EventKind::Cushion)[0];
        $roll = $outcome->eventsOf(Ball::Cue, EventKind::Roll)[0];

        self::assertEqualsWithDelta(0.50, $trajectory->speed($roll->time) / $trajectory->speed($cushion->time - 1e-9), 0.50 * 0.02);
    }

    /** Regression data: an independent calculation of the same model: 4.1 to 4.2 degrees at 1 m/s, 1.2 to 1.3 at 4 m/s, 2 %. */
    public function testThrowOfAStunAtHalfBall(): void
    {
        self::assertEqualsWithDelta(4.15, self::throw(30.0, 1.0), 4.15 * 0.02);
        self::assertEqualsWithDelta(1.25, self::throw(30.0, 4.0), 1.25 * 0.03);
    }

    /** Common practice: throw is greatest near a half-ball hit, 3 to 6 degrees slow, less with speed, less with follow or draw. */
    public function testThrowByCutSpeedAndHeight(): void
    {
        $slow = array_map(static fn (float $cut): float => self::throw($cut, 0.7), [10.0, 20.0, 30.0, 45.0, 60.0, 75.0]);

        self::assertContains(array_search(max($slow), $slow, true), [1, 2, 3]);
        self::assertGreaterThan(3.0, max($slow));
        self::assertLessThan(6.0, max($slow));
        self::assertLessThan(self::throw(30.0, 1.0), self::throw(30.0, 2.0));
        self::assertLessThan(self::throw(30.0, 1.0), self::throw(30.0, 1.0, roll: 1.0));
        self::assertLessThan(self::throw(30.0, 1.0), self::throw(30.0, 1.0, roll: -1.0));
    }

    /** Regression data: this program's own figures of the default table, 2 %. */
    #[DataProvider('runs')]
    public function testHowFarANaturalRollRuns(float $speed, float $lengths): void
    {
        self::assertEqualsWithDelta($lengths, (new LengthScale(new Equipment(new TableProfile())))->lengths($speed), $lengths * 0.02);
    }

    /** @return iterable<array{float, float}> */
    public static function runs(): iterable
    {
        yield [5.0, 3.59];
        yield [7.0, 4.42];
    }

    /**
     * Derived: rolling distances go with the squares of the rolling speeds. Without friction between the balls and a perfect
     * rebound (5/2)^2; at 2 m/s the default gives 6.0 and a restitution of 1 gives 6.7. Common practice: about seven.
     */
    public function testHowMuchFartherARollingFullHitGoes(): void
    {
        self::assertEqualsWithDelta(6.25, self::ratioOfRuns(Table::ideal()->balls), 0.001);
        self::assertEqualsWithDelta(6.0, self::ratioOfRuns(new BallSet()), 6.0 * 0.02);
        self::assertEqualsWithDelta(6.7, self::ratioOfRuns(new BallSet(restitution: 1.0)), 6.7 * 0.02);
    }

    /** Common practice ("the 30-degree rule"), within 27 to 34 degrees from a quarter-ball to a three-quarter-ball hit. */
    public function testTheThirtyDegreeRule(): void
    {
        foreach ([48.6, 40.0, 30.0, 20.0, 14.5] as $cut) {
            [$outcome] = Table::ideal()->hit($cut, 1.0, roll: 1.0);
            $trajectory = $outcome->trajectory(Ball::Cue);
            $roll = $outcome->eventsOf(Ball::Cue, EventKind::Roll)[0];
            $segment = $trajectory->segmentAt($roll->time);
            self::assertEqualsWithDelta(30.5, abs(rad2deg(atan2($segment->vy, $segment->vx))), 3.5);
        }
    }

    /** Common practice: a soft shot accepts a ball that brushes the rail before a corner pocket; the same line hard does not go. */
    public function testRailFirstGoesSoftAndNotHard(): void
    {
        $play = static fn (float $speed): Outcome => (new EventSimulator())->release(
            Table::layout([5 => [1.6, 0.060]]),
            [5 => [$speed, -0.052 * $speed, 0.052 * $speed / Table::R, $speed / Table::R, 0.0]],
        );

        self::assertSame(Pocket::FootRight, $play(0.9)->pocketOf(Ball::Five));
        self::assertNotSame(Pocket::FootRight, $play(6.0)->pocketOf(Ball::Five));
        self::assertSame(EventKind::Cushion, $play(0.9)->events[0]->kind);
    }

    /** Common practice: a harder follow runs along the tangent line for longer before it bends. */
    public function testHarderFollowBendsLater(): void
    {
        $bend = static function (float $speed): float {
            [$outcome] = (new Table())->hit(30.0, $speed, roll: 1.0);
            $roll = $outcome->eventsOf(Ball::Cue, EventKind::Roll);

            return $roll[0]->at->distanceTo($outcome->firstContact()->at ?? $roll[0]->at);
        };

        self::assertGreaterThan(3 * $bend(1.0), $bend(2.0));
    }

    /** Common practice: draw is shorter over a longer distance, and a low soft hit far away arrives rolling (drag). */
    public function testDrawFadesWithDistance(): void
    {
        $back = static function (float $distance, float $speed): float {
            $outcome = (new EventSimulator())->play(
                Table::layout([0 => [1.9 - $distance, 0.6], 1 => [1.9 + 2 * Table::R, 0.6]]),
                Strike::degrees(0.0, $speed, 0.0, -0.4),
            );

            return ($outcome->firstContact()->at->x ?? 0.0) - $outcome->trajectory(Ball::Cue)->at(
                ($outcome->firstContact()->time ?? 0.0) + 1.0,
            )->x;
        };

        self::assertGreaterThan($back(1.0, 2.5), $back(0.3, 2.5));
        self::assertLessThan(0.0, $back(1.5, 1.2));
    }

    /**
     * Common practice, bands from an independent calculation: a rolling kick without side from one long rail over the next
     * follows the two-to-one rule over frame diamonds, which lie 94 mm behind the nose (from memory).
     */
    public function testTheTwoToOneKick(): void
    {
        $frame = 0.094;
        $d = 2.54 / 8;
        foreach ([[1.0, 2.0, 2.95], [2.0, 4.0, 4.90], [3.0, 6.0, null]] as [$aim, $arrives, $model]) {
            // Along the line from frame diamond 1 of the right rail to frame diamond 1 + aim of the left rail.
            $angle = atan2(1.27 + 2 * $frame, $aim * $d);
            $x = $d + ($frame + 0.1) / tan($angle);
            $outcome = (new EventSimulator())->play(Table::layout([0 => [$x, 0.1]]), Strike::degrees(rad2deg($angle), 2.0, 0.0, 0.4));
            $cushions = $outcome->eventsOf(Ball::Cue, EventKind::Cushion);
            self::assertGreaterThanOrEqual(2, \count($cushions));
            [$first, $second] = $cushions;
            // Continue the line of arrival to the frame.
            $path = $outcome->trajectory(Ball::Cue)->segmentAt($second->time - 1e-6);
            [$vx, $vy] = $path->velocity($second->time - 1e-6);
            $reached = ($second->at->x + $vx / $vy * -(Table::R + $frame)) / $d - 1;
            self::assertEqualsWithDelta($arrives, $reached, 0.45, "aimed at $aim");
            // Regression data: where the ball's centre is at the contact.
            self::assertEqualsWithDelta($model ?? $second->at->x / $d, $second->at->x / $d, 0.02, "aimed at $aim");
            self::assertSame('left', $first->rail?->value);
        }
    }

    /**
     * Common practice: the corner-five rule, running side of a tip and from the corner: first diamonds 1, 2, 3 give third-rail
     * points near 4, 3, 2. Regression data in the narrower bands: an independent calculation of the same model gives 3.4, 2.8, 2.1. Over
     * frame diamonds, 94 mm behind the nose (from memory), at 3.5 m/s; the third point at the nose, counted from the foot.
     */
    public function testTheCornerFiveRule(): void
    {
        $frame = 0.094;
        $d = 2.54 / 8;
        foreach ([[1, 4.0, 3.4], [2, 3.0, 2.8], [3, 2.0, 2.1]] as [$first, $rule, $model]) {
            $angle = atan2(1.27 + 2 * $frame, 2.54 - $first * $d + $frame);
            $strike = Strike::degrees(0.0, 3.5, 0.34, 0.2);
            $start = [-$frame + (0.2 + $frame) / tan($angle), 0.2];
            $outcome = (new EventSimulator())->play(Table::layout([0 => $start]), $strike->withDirection($angle - $strike->squirt()));
            $cushions = $outcome->eventsOf(Ball::Cue, EventKind::Cushion);
            self::assertSame(
                ['left', 'foot', 'right'],
                array_map(static fn ($event): ?string => $event->rail?->value, \array_slice($cushions, 0, 3)),
            );
            $third = (2.54 - $cushions[2]->at->x) / $d;
            self::assertEqualsWithDelta($rule, $third, 0.7);
            self::assertEqualsWithDelta($model, $third, 0.15);
        }
    }

    /**
     * Regression data: an independent calculation of the same model, half a degree: a rolling ball that comes in at 0 to 60 degrees from
     * the normal, with side as a fraction of the radius, leaves at these angles once it rolls again. Positive side is running.
     *
     * @param list<float> $leaves degrees
     */
    #[TestWith([0.0, [0.0, 19.5, 37.2, 52.1, 64.7]])]
    #[TestWith([0.2, [13.9, 31.5, 46.5, 59.1, 69.8]])]
    #[TestWith([-0.2, [-13.9, 5.6, 24.9, 42.4, 62.4]])]
    #[TestWith([-0.4, [-26.0, -8.6, 10.4, 31.2, 62.9]])]
    public function testSideAtACushion(float $side, array $leaves): void
    {
        foreach ($leaves as $i => $degrees) {
            self::assertEqualsWithDelta($degrees, self::leaves(15.0 * $i, $side), 0.5, "in at {$i} times 15 degrees");
        }
    }

    /** Common practice: up to about 45 degrees a tip of reverse side shortens the angle at least as much as running side lengthens it. */
    public function testReverseSideShortensAsMuchAsRunningSideLengthens(): void
    {
        foreach ([15.0, 30.0, 45.0] as $degrees) {
            $none = self::leaves($degrees, 0.0);
            self::assertGreaterThanOrEqual(self::leaves($degrees, 0.2) - $none - 0.5, $none - self::leaves($degrees, -0.2));
        }
    }

    /** The angle from the normal at which a rolling ball with side leaves the foot rail once it rolls again, degrees. */
    private static function leaves(float $degrees, float $side): float
    {
        $v = 1.5;
        $angle = deg2rad($degrees);
        [$vx, $vy] = [$v * cos($angle), $v * sin($angle)];
        // As a strike gives it, w_z = 5 V a / 2 R; it comes towards the foot rail and the left one, where turning clockwise runs on.
        $wz = -2.5 * $v * $side / Table::R;
        $outcome = (new EventSimulator())->release(
            Table::layout([0 => [2.5, 0.5]]),
            [0 => [$vx, $vy, -$vy / Table::R, $vx / Table::R, $wz]],
        );
        $trajectory = $outcome->trajectory(Ball::Cue);
        $cushion = $outcome->eventsOf(Ball::Cue, EventKind::Cushion)[0];
        foreach ($outcome->eventsOf(Ball::Cue, EventKind::Roll) as $roll) {
            if ($roll->time > $cushion->time) {
                [$vx, $vy] = $trajectory->segmentAt($roll->time + 1e-6)->velocity($roll->time + 1e-6);

                return rad2deg(atan2($vy, -$vx));
            }
        }
        self::fail('It does not roll again.');
    }

    /** Common practice: outside side that gears with the cut takes throw away; a little less than gearing leaves a little. */
    public function testOutsideSideTakesThrowAway(): void
    {
        $throw = static function (float $side): float {
            [, , $object] = (new Table())->hit(30.0, 1.0, side: $side);

            return 30.0 - rad2deg($object);
        };
        // Towards gearing, a = 2/5 sin c; of the two signs the outside one lessens the throw.
        $outside = $throw(0.1) < $throw(-0.1) ? 1 : -1;

        self::assertLessThan($throw(0.0), $throw($outside * 0.1));
        self::assertLessThan($throw($outside * 0.1), $throw($outside * 0.15));
        self::assertEqualsWithDelta(0.0, $throw($outside * 0.2), 0.05);
    }

    private static function ratioOfRuns(BallSet $balls): float
    {
        [$outcome] = (new Table(new TableProfile(length: 4.0), $balls))->hit(0.0, 2.0, roll: 1.0);
        $rolling = static function (Ball $ball) use ($outcome): float {
            $roll = $outcome->eventsOf($ball, EventKind::Roll)[0];

            return $outcome->trajectory($ball)->speed($roll->time);
        };

        return ($rolling(Ball::One) / $rolling(Ball::Cue)) ** 2;
    }

    private static function lag(float $speed): Outcome
    {
        return (new EventSimulator())->play(Table::layout([0 => [0.635, 0.635]]), Strike::degrees(0.0, $speed, 0.0, 0.4));
    }

    private static function throw(float $cut, float $speed, float $roll = 0.0): float
    {
        [, , $object] = (new Table())->hit($cut, $speed, $roll);

        return $cut - rad2deg($object);
    }
}
