<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Shot;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Shot\AimParts;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;
use ZigLane\Core\Stroke\CueClearance;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Cue;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\TableProfile;
use ZigLane\Tests\Table;

/** The parts of an aim, the side of the pocket, and how far the cue must be raised. */
final class AimPartsTest extends TestCase
{
    public function testCheatingThePocketSendsTheBallBesideItsMiddleAndTurnsTheCueBall(): void
    {
        $middle = self::solved(0.0, 0.0);
        foreach ([0.02, -0.02] as $aside) {
            $shot = self::solved(0.0, $aside);
            self::assertTrue($shot->isMade());
            // The object ball's line turns by the side over the distance; to the left of the mouth is to the left of the line.
            self::assertEqualsWithDelta(
                atan2($aside, $middle->aim->ghost->objectDistance),
                $shot->aim->ghost->objectDirection - $middle->aim->ghost->objectDirection,
                1e-9,
            );
            self::assertGreaterThan(0.02, $shot->outcome->final->spot(Ball::Cue)->distanceTo($middle->outcome->final->spot(Ball::Cue)));
        }
        self::assertFalse(self::solved(0.0, 0.055)->isMade());

        $this->expectException(IllegalStroke::class);
        self::solved(0.0, 0.13);
    }

    /** Aimed off the foot rail: the direction turns by a right angle and more, which is the rail's doing and not the cloth's. */
    public function testSwerveIsNotToldAfterACushion(): void
    {
        $equipment = new Equipment();
        $layout = Table::layout([0 => [1.2, 0.4], 4 => [1.6, 0.95]]);
        $stroke = new Stroke(Tip::centre(), 3.0);
        $straight = (new ShotSolver($equipment))->solve($layout, new ShotChoice(Ball::Four, Pocket::FootLeft, $stroke));
        self::assertEqualsWithDelta(0.0, AimParts::of($straight, $equipment)?->swerve, 0.5);
        self::assertEqualsWithDelta($straight->aim->ghost->cutDegrees, abs(AimParts::of($straight, $equipment)->cut ?? 0.0), 6.0);

        $met = 0;
        for ($degrees = 20; $degrees < 80; ++$degrees) {
            $byHand = new ShotChoice(Ball::Four, Pocket::FootLeft, $stroke, direction: deg2rad(-$degrees));
            $parts = AimParts::of((new ShotSolver($equipment))->solve($layout, $byHand), $equipment);
            if (null !== $parts) {
                ++$met;
                self::assertNull($parts->swerve);
                self::assertLessThan(90.0, abs($parts->cut));
            }
        }
        self::assertGreaterThan(0, $met);
    }

    /** A cut to the left throws to the right; outside side takes it away at the gearing mark. */
    public function testTheGearingMarkCancelsThrow(): void
    {
        $plain = AimParts::of(self::solved(0.0, 0.0), new Equipment());
        self::assertNotNull($plain);
        self::assertLessThan(-0.5, $plain->cutThrow);
        self::assertEqualsWithDelta(0.0, $plain->spinThrow, 0.05);
        self::assertGreaterThan(0.02, $plain->gearing);

        $geared = AimParts::of(self::solved($plain->gearing, 0.0), new Equipment());
        self::assertNotNull($geared);
        self::assertLessThan(0.25 * abs($plain->cutThrow), abs($geared->cutThrow + $geared->spinThrow));
    }

    public function testARaisedCueSwervesTowardsItsSide(): void
    {
        $shot = (new ShotSolver())->solve(
            self::layout(),
            new ShotChoice(Ball::One, Pocket::FootLeft, new Stroke(Tip::fractions(0.3, 0.1), 2.0, 20.0)),
        );
        $parts = AimParts::of($shot, new Equipment());

        self::assertNotNull($parts);
        self::assertLessThan(-0.5, $parts->swerve);
    }

    /**
     * Derived: frozen to the rail and hit in the middle, the shaft's axis rises by the nose and the shaft less the radius over the radius.
     */
    public function testTheCueIsRaisedOverARailOrABall(): void
    {
        $table = new TableProfile();
        $set = new BallSet();
        $frozen = CueClearance::of(Table::layout([0 => [Table::R, 0.6], 1 => [1.0, 0.6]]), 0.0, Tip::centre(), new Equipment($table, $set));
        self::assertSame(Rail::Head, $frozen->over);
        self::assertEqualsWithDelta(rad2deg(atan2(1.27 * Table::R + 0.0065 - Table::R, Table::R)), $frozen->least, 1e-9);
        self::assertLessThan(
            0.5 * $frozen->least,
            CueClearance::of(
                Table::layout([0 => [Table::R, 0.6], 1 => [1.0, 0.6]]),
                0.0,
                Tip::fractions(0.0, 0.35),
                new Equipment($table, $set),
            )->least,
        );

        $bridged = CueClearance::of(
            Table::layout([0 => [1.0, 0.6], 1 => [1.5, 0.6], 7 => [1.0 - 3 * Table::R, 0.6]]),
            0.0,
            Tip::centre(),
            new Equipment($table, $set),
        );
        self::assertSame(Ball::Seven, $bridged->over);
        self::assertGreaterThan(15.0, $bridged->least);
        $free = CueClearance::of(
            Table::layout([0 => [1.0, 0.6], 1 => [1.5, 0.6], 7 => [0.9, 0.75]]),
            0.0,
            Tip::centre(),
            new Equipment($table, $set),
        );
        self::assertSame([0.0, null], [$free->least, $free->over]);
    }

    private static function layout(): Layout
    {
        return Table::layout([0 => [1.2, 0.6], 1 => [1.9, 0.73]]);
    }

    private static function solved(float $side, float $aside): SolvedShot
    {
        return (new ShotSolver())->solve(
            self::layout(),
            new ShotChoice(Ball::One, Pocket::FootLeft, new Stroke(Tip::fractions($side, 0.0), 1.6), $aside),
        );
    }
}
