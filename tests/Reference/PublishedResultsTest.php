<?php

declare(strict_types=1);

namespace ZigLane\Tests\Reference;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\BallContact;
use ZigLane\Core\Motion\CushionLaw;
use ZigLane\Core\Motion\EventKind;
use ZigLane\Core\Motion\Phase;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Cue;
use ZigLane\Core\Table\TableProfile;
use ZigLane\Tests\Chance;
use ZigLane\Tests\Table;

/** Results that were published, each with its source. What was quoted without the source at hand says "from memory". */
final class PublishedResultsTest extends TestCase
{
    private const INCH = 0.0254;

    /** Source: WPA, Tournament Table and Equipment Specifications: playing surfaces, ball size and mass, pocket mouths and angles. */
    public function testTheDefaultsAreThoseOfTheEquipmentSpecification(): void
    {
        $table = new TableProfile();
        $balls = new BallSet();

        self::assertEqualsWithDelta(100 * self::INCH, $table->length, 1e-9);
        self::assertEqualsWithDelta(50 * self::INCH, $table->width(), 1e-9);
        self::assertEqualsWithDelta(2.25 * self::INCH, 2 * $balls->radius, 0.005 * self::INCH);
        self::assertGreaterThanOrEqual(5.5 * 0.0283495, $balls->mass);
        self::assertLessThanOrEqual(6.0 * 0.0283495 + 1e-4, $balls->mass);
        self::assertGreaterThanOrEqual(4.5 * self::INCH - 1e-9, $table->cornerMouth);
        self::assertLessThanOrEqual(4.625 * self::INCH, $table->cornerMouth);
        self::assertGreaterThanOrEqual(5.0 * self::INCH - 1e-9, $table->sideMouth);
        self::assertLessThanOrEqual(5.125 * self::INCH, $table->sideMouth);
        self::assertEqualsWithDelta(142.0, $table->cornerFacing, 1.0);
        self::assertEqualsWithDelta(104.0, $table->sideFacing, 1.0);
        // Nose height 63.5 % of the ball's diameter, one percent more or less.
        self::assertEqualsWithDelta(0.635, $table->noseHeight / 2, 0.01);
        self::assertGreaterThanOrEqual(1.0 * self::INCH, $table->cornerShelf);
        self::assertLessThanOrEqual(2.25 * self::INCH, $table->cornerShelf);
        self::assertLessThanOrEqual(0.375 * self::INCH, $table->sideShelf);
    }

    /**
     * Source: Coriolis, Théorie mathématique des effets du jeu de billard (1835): while a ball slides its path is a parabola, and
     * it ends rolling at 5/7 of its velocity and 2/7 of that with which its spin would roll.
     */
    public function testASlideEndsWithFiveSeventhsAndTwoSevenths(): void
    {
        $chance = new Chance(21);
        for ($i = 0; $i < 40; ++$i) {
            $motion = [
                $chance->float(-0.3, 0.3),
                $chance->float(-0.3, 0.3),
                $chance->float(-20, 20),
                $chance->float(-20, 20),
                $chance->float(-50, 50),
            ];
            $path = (new Table())->simulator()->release(Table::layout([3 => [1.27, 0.635]]), [3 => $motion])->trajectory(Ball::Three);
            $slide = $path->segments[0];
            self::assertSame(Phase::Sliding, $slide->phase);
            [$vx, $vy] = $slide->velocity($slide->end());
            self::assertEqualsWithDelta(5 / 7 * $motion[0] + 2 / 7 * Table::R * $motion[3], $vx, 1e-9);
            self::assertEqualsWithDelta(5 / 7 * $motion[1] - 2 / 7 * Table::R * $motion[2], $vy, 1e-9);
        }
    }

    /**
     * Source: Leckie and Greenspan, Pool Physics Simulation by Event Prediction 1: Motion Transitions, ICGA Journal 29 (2006):
     * a slide lasts 2 u / (7 mu_s g), a roll v / (mu_r g) over v^2 / (2 mu_r g), spin in place 2 R w / (5 mu_sp g); here the last
     * is a decay of so many rad/s^2.
     */
    #[DataProvider('speeds')]
    public function testHowLongAndFarABallSlidesAndRolls(float $speed): void
    {
        $table = new TableProfile();
        $path = (new Table())->simulator()->release(
            Table::layout([3 => [0.2, 0.635]]),
            [3 => [$speed, 0.0, 0.0, 0.0, 0.0]],
        )->trajectory(Ball::Three);
        [$slide, $roll] = $path->segments;
        $rolling = 5 / 7 * $speed;

        self::assertEqualsWithDelta(2 * $speed / (7 * $table->slide * $table->gravity), $slide->duration, 1e-9);
        self::assertEqualsWithDelta($rolling / ($table->roll * $table->gravity), $roll->duration, 1e-9);
        self::assertEqualsWithDelta($rolling ** 2 / (2 * $table->roll * $table->gravity), $roll->length(), 1e-9);
    }

    /** @return iterable<array{float}> */
    public static function speeds(): iterable
    {
        yield [0.2];
        yield [0.5];
        yield [0.8];
    }

    /**
     * Source: Witters and Duymelinck, Rolling and sliding resistive forces on balls moving on a flat surface, Am. J. Phys. 54 (1986),
     * and Mathavan, Jackson and Parkin, Application of high-speed imaging to determine the dynamics of billiards, Am. J. Phys. 77
     * (2009): sliding friction on cloth about 0.18 to 0.25, rolling resistance about 0.010 to 0.013. From memory.
     */
    public function testFrictionOnClothLiesWhereItWasMeasured(): void
    {
        $table = new TableProfile();

        self::assertGreaterThanOrEqual(0.17, $table->slide);
        self::assertLessThanOrEqual(0.25, $table->slide);
        self::assertGreaterThanOrEqual(0.008, $table->roll);
        self::assertLessThanOrEqual(0.013, $table->roll);
    }

    /**
     * Source: Marlow, The Physics of Pocket Billiards (1995), as fitted in the ball set: friction between clean balls falls from
     * about 0.1 at a slow slip to about 0.01 to 0.05 beyond 1 m/s. From memory. Wallace and Schroeder, Analysis of billiard ball
     * collisions in two dimensions, Am. J. Phys. 56 (1988), found about 0.06 in between and a restitution above 0.9: from memory.
     */
    public function testFrictionBetweenBallsFallsAsMeasured(): void
    {
        $balls = new BallSet();

        self::assertEqualsWithDelta(0.11, $balls->friction(0.05), 0.02);
        self::assertEqualsWithDelta(0.06, $balls->friction(0.7), 0.015);
        self::assertLessThan(0.05, $balls->friction(1.5));
        self::assertGreaterThan($balls->friction(3.0), $balls->friction(1.0));
        self::assertGreaterThan(0.9, $balls->restitution);
    }

    /**
     * Source: Wallace and Schroeder (1988): where friction acts, the balls part at less than a right angle after a stun, and the
     * momentum across the line of centres is shared by impulse and spin as for a solid sphere (2/5). The second is exact.
     */
    public function testTangentialImpulseAndSpinKeepToASolidSphere(): void
    {
        $contact = new BallContact(new BallSet());
        foreach ([0.3, 1.0, 3.0] as $speed) {
            [$jx, $jy, , , $wz] = $contact->impulse(1.0, 0.0, $speed * cos(0.6), $speed * sin(0.6), 0.0, 0.0, 0.0);
            self::assertEqualsWithDelta(-2.5 * abs($jy) / Table::R, $wz, 1e-9);
            self::assertLessThan(0.0, $jx);
            $cue = [$speed * cos(0.6) + $jx, $speed * sin(0.6) + $jy];
            $object = [-$jx, -$jy];
            $between = rad2deg(acos(($cue[0] * $object[0] + $cue[1] * $object[1]) / (hypot(...$cue) * hypot(...$object))));
            self::assertLessThan(90.0, $between);
            self::assertGreaterThan(80.0, $between);
        }
    }

    /**
     * Source: Shepard, Everything You Always Wanted to Know About Cue Ball Squirt (1997): a standard shaft squirts about two
     * degrees at the miscue limit, from memory; Cross, Cue and ball deflection (or "squirt") in billiards, Am. J. Phys. 76 (2008):
     * in proportion to the offset while that is small.
     */
    public function testSquirtOfAStandardShaft(): void
    {
        $squirt = static fn (float $side, float $ratio = 30.0): float => -rad2deg(
            Strike::degrees(0.0, 2.0, $side, 0.0, 0.0, $ratio)->squirt(),
        );

        self::assertEqualsWithDelta(1.9, abs($squirt(Cue::MISCUE_LIMIT)), 0.3);
        self::assertEqualsWithDelta(2.0, $squirt(0.2) / $squirt(0.1), 0.04);
        self::assertLessThan(abs($squirt(0.3)), abs($squirt(0.3, 45.0)));
    }

    /**
     * Source: Mathavan, Jackson and Parkin, A theoretical analysis of billiard ball dynamics under cushion impacts, Proc. IMechE C
     * 224 (2010), and the same authors' Numerical simulations of the frictional collisions of solid balls on a rough surface
     * (2014); Han, Dynamics in carom and three cushion billiards, J. Mech. Sci. Tech. 19 (2005): a ball that rolls into a cushion
     * comes back slower than one that slides without spin or with draw; side turns the rebound towards the side; topspin is turned
     * into spin that sends the rolling ball back at once. Signs and order only: the figures of the papers are for snooker and carom.
     */
    public function testSpinAtTheCushionActsAsThePapersSay(): void
    {
        $law = new CushionLaw(new TableProfile(), new BallSet());
        $back = static function (float $roll, float $side = 0.0, float $vx = 0.0) use ($law): array {
            return $law->rebound($vx, 1.0, -$roll / Table::R, $roll * $vx / Table::R, $side / Table::R);
        };

        self::assertGreaterThan(0.0, $back(0.0, 0.5)[0]);
        self::assertLessThan(0.0, $back(0.0, -0.5)[0]);
        self::assertEqualsWithDelta($back(1.0, 0.5)[1], $back(1.0, -0.5)[1], 1e-12);
        // Running side widens the rebound, reverse side shortens it.
        self::assertGreaterThan($back(1.0, 0.0, 1.0)[0], $back(1.0, 0.8, 1.0)[0]);
        self::assertLessThan($back(1.0, 0.0, 1.0)[0], $back(1.0, -0.8, 1.0)[0]);
        // Energy is lost in every case, and more of the speed than the restitution alone would take.
        foreach ([-1.0, 0.0, 1.0] as $roll) {
            self::assertLessThan(0.0, $back($roll)[1]);
            self::assertLessThan(0.95, -$back($roll)[1]);
        }
    }

    /**
     * Source: Mathavan, Jackson and Parkin (2010), from memory: a fast straight ball loses the share of its speed at a cushion that a
     * slow one loses; the law knows no speed. Through the whole simulation, over a tenfold range.
     */
    public function testTheShareLostAtACushionDoesNotDependOnTheSpeed(): void
    {
        $shares = [];
        foreach ([0.5, 1.5, 5.0] as $speed) {
            $outcome = (new Table())->simulator()->release(
                Table::layout([3 => [2.4, 0.6]]),
                [3 => [$speed, 0.0, 0.0, $speed / Table::R, 0.0]],
            );
            $time = $outcome->eventsOf(Ball::Three, EventKind::Cushion)[0]->time;
            $shares[] = $outcome->trajectory(Ball::Three)->speed($time + 1e-9) / $outcome->trajectory(Ball::Three)->speed($time - 1e-9);
        }

        self::assertEqualsWithDelta($shares[0], $shares[1], 1e-6);
        self::assertEqualsWithDelta($shares[0], $shares[2], 1e-6);
    }
}
