<?php

declare(strict_types=1);

namespace ZigLane\Tests\Reference;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\BallContact;
use ZigLane\Core\Motion\EventKind;
use ZigLane\Core\Motion\Phase;
use ZigLane\Core\Motion\Segment;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\TableProfile;
use ZigLane\Tests\Table;

/** Results that follow from the equations by hand: any error in them makes every route on the page wrong. */
final class ClosedFormsTest extends TestCase
{
    /** Left of exactness: the balls start a tenth of a micrometre apart and the cloth slows them by then. */
    private const ANGLE = 1e-5;

    #[DataProvider('cuts')]
    public function testStunnedBallsPartAtARightAngle(float $cut): void
    {
        [, $cue, $object] = Table::ideal()->hit($cut, 2.0);

        self::assertEqualsWithDelta(90.0, rad2deg(abs($object - $cue)), self::ANGLE);
    }

    #[DataProvider('cuts')]
    public function testAStunnedCueBallKeepsTheSineOfTheCut(float $cut): void
    {
        [$outcome] = Table::ideal()->hit($cut, 2.0);
        $contact = $outcome->firstContact();
        self::assertNotNull($contact);

        self::assertEqualsWithDelta(2.0 * sin(deg2rad($cut)), $outcome->trajectory(Ball::Cue)->speed($contact->time), 1e-6);
    }

    /** @return iterable<array{float}> */
    public static function cuts(): iterable
    {
        foreach ([5.0, 20.0, 30.0, 45.0, 60.0, 80.0] as $cut) {
            yield [$cut];
        }
    }

    public function testEqualSpeedsAfterAStunAt45Degrees(): void
    {
        [$outcome] = Table::ideal()->hit(45.0, 2.0);
        $time = $outcome->firstContact()->time ?? 0.0;

        self::assertEqualsWithDelta($outcome->trajectory(Ball::One)->speed($time), $outcome->trajectory(Ball::Cue)->speed($time), 1e-6);
    }

    #[DataProvider('cuts')]
    public function testARollingCueBallTurnsByTheNaturalAngle(float $cut): void
    {
        [$outcome] = Table::ideal()->hit($cut, 1.5, roll: 1.0);
        $c = deg2rad($cut);
        $turn = atan(sin($c) * cos($c) / (sin($c) ** 2 + 2 / 5));

        self::assertEqualsWithDelta(rad2deg($turn), abs(rad2deg(self::rollingHeading($outcome->trajectory(Ball::Cue)->segments))), 1e-4);
    }

    /** Derived: the turn is greatest where cos 2c = 1/(1 + 2 * 2/5) = 5/9, c = 28.1 degrees, and is 33.7 degrees there. */
    public function testTheNaturalAngleIsGreatestNearAHalfBallHit(): void
    {
        $turns = [];
        foreach ([14.5, 27.0, 28.126, 29.0, 48.6] as $cut) {
            [$outcome] = Table::ideal()->hit($cut, 1.5, roll: 1.0);
            $turns[] = abs(rad2deg(self::rollingHeading($outcome->trajectory(Ball::Cue)->segments)));
        }

        self::assertEqualsWithDelta(33.749, $turns[2], 0.01);
        self::assertSame($turns[2], max($turns));
        self::assertGreaterThan(27.0, $turns[0]);
        self::assertGreaterThan(27.0, $turns[4]);
    }

    /**
     * Derived for the contact alone, exact: at a stun without friction and with e = 1 the balls part at a right angle, and the cue
     * ball keeps the sine of the cut.
     */
    #[DataProvider('cuts')]
    public function testTheContactItselfIsExact(float $cut): void
    {
        $c = deg2rad($cut);
        [$jx, $jy] = (new BallContact(Table::ideal()->balls))->impulse(cos($c), sin($c), 2.0, 0.0, 0.0, 0.0, 0.0);
        [$x, $y] = [2.0 + $jx, $jy];

        self::assertEqualsWithDelta(0.0, $x * -$jx + $y * -$jy, 1e-12);
        self::assertEqualsWithDelta(2.0 * sin($c), hypot($x, $y), 1e-12);
        self::assertEqualsWithDelta(2.0 * cos($c), hypot($jx, $jy), 1e-12);
    }

    /**
     * Derived: after a rolling hit the cue ball rolls at sqrt(45 s^2 + 4) / 7 of its speed, s the sine of the cut, the object ball
     * at 5/7 cos c: equal at s^2 = 3/10, c = 33.2 degrees ("a little over 30").
     */
    public function testEqualFinalSpeedsAfterARollingHitAtALittleOverThirtyDegrees(): void
    {
        [$outcome] = Table::ideal()->hit(rad2deg(asin(\sqrt(0.3))), 1.0, roll: 1.0);
        $final = static function (Ball $ball) use ($outcome): float {
            $roll = $outcome->eventsOf($ball, EventKind::Roll)[0];

            return $outcome->trajectory($ball)->speed($roll->time);
        };

        self::assertEqualsWithDelta(5 / 7 * \sqrt(0.7), $final(Ball::One), 1e-6);
        self::assertEqualsWithDelta($final(Ball::One), $final(Ball::Cue), 1e-6);
    }

    public function testARollingFullHitLeavesTwoAndFiveSevenths(): void
    {
        [$outcome] = Table::ideal()->hit(0.0, 1.4, roll: 1.0);

        self::assertEqualsWithDelta(1.4 * 2 / 7, self::rollingSpeed($outcome->trajectory(Ball::Cue)->segments), 1e-5);
        self::assertEqualsWithDelta(1.4 * 5 / 7, self::rollingSpeed($outcome->trajectory(Ball::One)->segments), 1e-5);
    }

    public function testAStunnedBallRollsAtFiveSeventhsAfterItsSlide(): void
    {
        $table = new Table();
        $outcome = $table->simulator()->release(Table::layout([0 => [0.3, 0.6]]), [0 => [2.0, 0.0, 0.0, 0.0, 0.0]]);
        $roll = $outcome->eventsOf(Ball::Cue, EventKind::Roll)[0];

        self::assertEqualsWithDelta(12 * 4.0 / (49 * 0.2 * 9.81), $roll->at->x - 0.3, 1e-9);
        self::assertEqualsWithDelta(2.0 * 5 / 7, $outcome->trajectory(Ball::Cue)->speed($roll->time), 1e-9);
    }

    public function testCueBallStopsDeadOnAFullStunHit(): void
    {
        [$outcome] = Table::ideal()->hit(0.0, 0.6);
        $contact = $outcome->firstContact();
        self::assertNotNull($contact);

        self::assertLessThan(1e-6, $outcome->trajectory(Ball::Cue)->last()->distanceTo($contact->at));
    }

    #[DataProvider('cuts')]
    public function testGearingSideThrowsNothing(float $cut): void
    {
        // A sliding ball with a = (2/5) sin c of outside side: its surface at the contact moves with the object ball's.
        [, , $object] = (new Table())->hit($cut, 2.0, side: 0.4 * sin(deg2rad($cut)));

        self::assertEqualsWithDelta($cut, rad2deg($object), 1e-4);
    }

    public function testACutThrowsTheObjectBallForwards(): void
    {
        [, , $object] = (new Table())->hit(30.0, 1.0);

        self::assertLessThan(30.0 - 3.0, rad2deg($object));
    }

    public function testFrictionTurnsBothBallsTheSameWay(): void
    {
        [, , $wx, $wy, $wz] = (new BallContact(new BallSet()))->impulse(1.0, 0.0, 1.0, 0.5, 0.0, 0.0, 0.0);

        self::assertSame(0.0, abs($wx) + abs($wy));
        // A slides to the left on B: friction pushes A's front to the right, a turn to the right.
        self::assertLessThan(0.0, $wz);
    }

    public function testASlowBallTurnsItsSpinWithoutMoving(): void
    {
        $table = new Table();
        $outcome = $table->simulator()->release(Table::layout([0 => [1.0, 0.6]]), [0 => [0.0, 0.0, 0.0, 0.0, 30.0]]);

        self::assertEqualsWithDelta(3.0, $outcome->duration(), 1e-9);
        self::assertSame(Phase::Spinning, $outcome->trajectory(Ball::Cue)->phase(1.5));
        self::assertSame(1.0, $outcome->final->spot(Ball::Cue)->x);
    }

    public function testStrikeGivesNaturalRollAtTwoFifths(): void
    {
        $strike = Strike::degrees(30.0, 2.0, 0.0, 0.4);
        [$vx, $vy, $wx, $wy] = $strike->velocities(Table::R);

        self::assertEqualsWithDelta(0.0, hypot($vx - Table::R * $wy, $vy + Table::R * $wx), 1e-12);
    }

    public function testSquirtTurnsAwayFromTheSideThatIsHit(): void
    {
        // tan s = 2.5 a sqrt(1 - a^2) / (1 + M + 2.5 (1 - a^2)) at a = 0.3, M = 30: 1.2318 degrees, by hand.
        $right = Strike::degrees(0.0, 2.0, 0.3);

        self::assertEqualsWithDelta(1.2318, rad2deg($right->squirt()), 1e-4);
        self::assertGreaterThan(0.0, $right->velocities(Table::R)[4]);
    }

    public function testARaisedCueBendsTheBallTowardsItsSide(): void
    {
        $table = new Table(new TableProfile(length: 4.0));
        $outcome = $table->simulator()->play(Table::layout([0 => [1.0, 1.0]]), Strike::degrees(0.0, 1.0, 0.3, 0.0, 30.0));
        $segments = $outcome->trajectory(Ball::Cue)->segments;
        $last = $segments[1];

        self::assertLessThan(atan2($segments[0]->vy, $segments[0]->vx) - 0.05, atan2($last->vy, $last->vx));
    }

    /** @param list<Segment> $segments */
    private static function rollingHeading(array $segments): float
    {
        foreach ($segments as $segment) {
            if (Phase::Rolling === $segment->phase && $segment->start > 1e-5) {
                return atan2($segment->vy, $segment->vx);
            }
        }
        self::fail('the ball never rolls');
    }

    /** @param list<Segment> $segments */
    private static function rollingSpeed(array $segments): float
    {
        foreach ($segments as $segment) {
            if (Phase::Rolling === $segment->phase && $segment->start > 1e-5) {
                return hypot($segment->vx, $segment->vy);
            }
        }
        self::fail('the ball never rolls');
    }
}
