<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Shot;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Position\IllegalLayout;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Shot\NoAim;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;
use ZigLane\Core\Stroke\LengthScale;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Cue;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\TableGeometry;
use ZigLane\Core\Table\TableProfile;
use ZigLane\Tests\Chance;
use ZigLane\Tests\Table;
use ZigLane\Tests\Told;

/** The aim is what a player takes to the table: it must pot the ball in the same model that draws it. */
final class AimFinderTest extends TestCase
{
    /** Over random easy shots with any stroke, the object ball passes within a millimetre of the middle of the mouth. */
    public function testTheObjectBallGoesToTheMiddleOfTheMouth(): void
    {
        $chance = new Chance(21);
        $geometry = new TableGeometry(new TableProfile());
        $solved = 0;
        for ($i = 0; $i < 150; ++$i) {
            $layout = (new Table())->randomLayout($chance, 2);
            $pocket = Pocket::cases()[$chance->int(0, 5)];
            $offset = $chance->float(0, 0.5);
            $hour = $chance->float(0, 12);
            $stroke = new Stroke(
                Tip::fractions($offset * sin($hour), $offset * cos($hour)),
                $chance->float(1.5, 5.0),
                $chance->float(0, 5),
            );
            try {
                $shot = self::solve($layout, Ball::One, $pocket, $stroke);
            } catch (NoAim) {
                continue;
            }
            if ($shot->aim->ghost->cutDegrees > 70 || $shot->touchesCushionFirst()) {
                continue;
            }
            ++$solved;
            self::assertLessThan(1e-3, self::missAtMouth($shot, $geometry), "shot $i");
        }
        self::assertGreaterThan(30, $solved);
    }

    public function testStraightInStunNeedsNoCorrection(): void
    {
        $mouth = (new TableGeometry(new TableProfile()))->at(Pocket::FootLeft)->mouth();
        $object = $mouth->towards(\M_PI + 0.6, 0.5);
        $cue = $object->towards(\M_PI + 0.6, 0.6);
        $shot = self::solve(
            Table::layout([0 => [$cue->x, $cue->y], 1 => [$object->x, $object->y]]),
            Ball::One,
            Pocket::FootLeft,
            new Stroke(Tip::centre(), 2.0),
        );

        self::assertEqualsWithDelta(0.0, $shot->aim->offset(), 1e-6);
        self::assertEqualsWithDelta(1.0, $shot->aim->ghost->ballHitFraction(), 1e-9);
        self::assertTrue($shot->isMade());
    }

    public function testThrowAsksForAThinnerHitOnASlowCut(): void
    {
        $shot = self::solve(
            Table::layout([0 => [1.0, 0.6], 1 => [1.7, 0.75]]),
            Ball::One,
            Pocket::FootLeft,
            new Stroke(Tip::fractions(0.0, -0.1), 1.2),
        );

        self::assertGreaterThan(0.3, abs($shot->aim->offset()) * 1000);
        self::assertFalse($shot->aim->isFuller());
    }

    public function testSideIsAimedAgainstItsSquirt(): void
    {
        $layout = Table::layout([0 => [1.0, 0.6], 1 => [2.0, 1.0]]);
        $plain = self::solve($layout, Ball::One, Pocket::FootLeft, new Stroke(Tip::centre(), 3.0));
        $right = self::solve($layout, Ball::One, Pocket::FootLeft, new Stroke(Tip::fractions(0.3, 0.0), 3.0));

        // Right side squirts to the left, so the cue points further to the right.
        self::assertLessThan($plain->aim->direction - deg2rad(0.5), $right->aim->direction);
        self::assertTrue($right->isMade());
    }

    public function testCutAngleAndFractionOfAKnownShot(): void
    {
        // Ghost ball at (1.5, 0.5), the cue ball straight behind it, the line to the pocket at 30 degrees to the aim.
        $geometry = new TableGeometry(new TableProfile());
        $mouth = $geometry->at(Pocket::FootLeft)->mouth();
        $object = $mouth->towards(\M_PI + 0.7, 0.8);
        $ghost = $object->towards(\M_PI + 0.7, 2 * Table::R);
        $cue = $ghost->towards(\M_PI + 0.7 - \M_PI / 6, 0.4);
        $shot = self::solve(
            Table::layout([0 => [$cue->x, $cue->y], 1 => [$object->x, $object->y]]),
            Ball::One,
            Pocket::FootLeft,
            new Stroke(Tip::centre(), 2.0),
        );

        self::assertEqualsWithDelta(30.0, $shot->aim->ghost->cutDegrees, 1e-9);
        self::assertTrue($shot->aim->ghost->cutsLeft);
        self::assertEqualsWithDelta(0.5, $shot->aim->ghost->ballHitFraction(), 1e-9);
    }

    public function testACutOfNinetyDegreesOrMoreIsRefused(): void
    {
        self::assertStringContainsString(
            'less than 90 is needed',
            Told::refusal(
                static fn (): SolvedShot => self::solve(
                    Table::layout([0 => [2.0, 0.6], 1 => [1.5, 0.6]]),
                    Ball::One,
                    Pocket::FootLeft,
                    new Stroke(Tip::centre(), 2.0),
                ),
                NoAim::class,
            ),
        );
    }

    public function testATooSoftStrokeIsToldByHowMuch(): void
    {
        self::assertMatchesRegularExpression(
            '/stops \d+ cm short of the 1/',
            Told::refusal(
                static fn (): SolvedShot => self::solve(
                    Table::layout([0 => [0.3, 0.6], 1 => [2.0, 0.7]]),
                    Ball::One,
                    Pocket::FootLeft,
                    new Stroke(Tip::centre(), 0.3),
                ),
                NoAim::class,
            ),
        );
    }

    public function testABlockerIsNamed(): void
    {
        $layout = Table::layout([0 => [1.0, 0.6], 1 => [2.0, 1.0], 7 => [1.5, 0.8]]);
        $shot = self::solve($layout, Ball::One, Pocket::FootLeft, new Stroke(Tip::centre(), 3.0));

        self::assertSame(Ball::Seven, $shot->blocker());
        self::assertFalse($shot->isMade());
    }

    public function testTheCueBallMustBeOnTheTable(): void
    {
        $this->expectException(IllegalLayout::class);
        self::solve(Table::layout([1 => [1.0, 0.6]]), Ball::One, Pocket::FootLeft, new Stroke(Tip::centre(), 3.0));
    }

    public function testAScratchIsSeen(): void
    {
        // Straight in with follow at speed: the cue ball goes after the object ball.
        $mouth = (new TableGeometry(new TableProfile()))->at(Pocket::FootLeft)->mouth();
        $object = $mouth->towards(\M_PI + \M_PI_4, 0.3);
        $cue = $object->towards(\M_PI + \M_PI_4, 0.4);
        $shot = self::solve(
            Table::layout([0 => [$cue->x, $cue->y], 1 => [$object->x, $object->y]]),
            Ball::One,
            Pocket::FootLeft,
            new Stroke(Tip::fractions(0.0, 0.45), 3.0),
        );

        self::assertTrue($shot->isMade());
        self::assertSame(Pocket::FootLeft, $shot->scratch());
    }

    public function testTipByClockAndTips(): void
    {
        $tip = Tip::atClock(1.5, (new Equipment())->offsetPerTip());
        // One tip moves the contact by 12.75 mm * R / (R + 9 mm): 0.3393 of the radius.
        self::assertEqualsWithDelta(0.3393, hypot($tip->side, $tip->height), 1e-4);
        self::assertEqualsWithDelta($tip->side, $tip->height, 1e-12);
        self::assertSame('1:30', $tip->clock());
        self::assertEqualsWithDelta((new Equipment())->offsetPerTip(), $tip->offset(), 1e-12);
        self::assertSame('12:00', Tip::centre()->clock());
        self::assertLessThan(0.0, Tip::atClock(9.0, 0.17)->side);
        self::assertLessThan(0.0, Tip::atClock(6.0, 0.17)->height);
    }

    public function testPastTheMiscueLimitIsRefusedByName(): void
    {
        self::assertStringContainsString(
            'would miscue: it strikes 54 % of the radius from the centre, and at most 50 % holds',
            Told::refusal(static fn (): Tip => Tip::atClock(3.0, 1.6 * (new Equipment())->offsetPerTip()), IllegalStroke::class),
        );
    }

    public function testLengthsAndSpeedAreEachOthersInverse(): void
    {
        foreach ([7.0, 8.0, 9.0] as $feet) {
            $scale = new LengthScale(new Equipment(new TableProfile(length: 0.28 * $feet)));
            $before = 0.0;
            foreach ([0.1, 0.5, 1.0, 1.9, 3.3, 5.0] as $lengths) {
                $speed = $scale->speed($lengths);
                self::assertGreaterThan($before, $speed);
                self::assertEqualsWithDelta($lengths, $scale->lengths($speed), 1e-3);
                $before = $speed;
            }
        }
    }

    public function testALengthWithoutACushionIsTheRollingDistance(): void
    {
        $scale = new LengthScale(new Equipment(new TableProfile()));

        self::assertEqualsWithDelta(\sqrt(2 * 0.01 * 9.81 * 0.5 * 2.54), $scale->speed(0.5), 1e-4);
    }

    private static function solve(Layout $layout, Ball $ball, Pocket $pocket, Stroke $stroke): SolvedShot
    {
        return (new ShotSolver())->solve($layout, new ShotChoice($ball, $pocket, $stroke));
    }

    /** How far from the middle of the mouth the 1 passes when it is played without cushions in its way, metres. */
    private static function missAtMouth(SolvedShot $shot, TableGeometry $geometry): float
    {
        $mouth = $geometry->at($shot->choice->pocket)->mouth();
        $direction = $shot->aim->ghost->objectDirection;
        // The engine's own path of the object ball, extended straight along where it first touches anything.
        $outcome = (new EventSimulator())->play($shot->layout, $shot->strike);
        $miss = \INF;
        $from = $outcome->firstContact()->time ?? 0.0;
        foreach ($outcome->trajectory($shot->choice->ball)->segments as $segment) {
            if ($segment->start < $from - 1e-12 || 0.0 === $segment->duration) {
                continue;
            }
            for ($i = 0; $i <= 6000; ++$i) {
                $miss = min($miss, $segment->at($segment->start + $segment->duration * $i / 6000)->distanceTo($mouth));
            }
            [$vx, $vy] = $segment->velocity($segment->end());
            $end = $segment->at($segment->end());
            $ahead = ($mouth->x - $end->x) * cos($direction) + ($mouth->y - $end->y) * sin($direction);
            if ($ahead > 0 && 0.0 !== hypot($vx, $vy)) {
                $miss = min($miss, abs(($mouth->x - $end->x) * $vy - ($mouth->y - $end->y) * $vx) / hypot($vx, $vy));
            }
        }

        return $miss;
    }
}
