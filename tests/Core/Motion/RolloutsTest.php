<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Motion;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Tests\Chance;
use ZigLane\Tests\Table;

/** Odds come from endings alone: they must be those of the whole shots that the page draws, to the last bit. */
final class RolloutsTest extends TestCase
{
    public function testAnEndingIsThatOfTheWholeShot(): void
    {
        $simulator = new EventSimulator();
        $chance = new Chance(77);
        for ($i = 0; $i < 150; ++$i) {
            $layout = (new Table())->randomLayout($chance, $chance->int(2, 12), 0.15);
            $strike = Strike::degrees(
                $chance->float(0, 360),
                $chance->float(0.5, 6.0),
                $chance->float(-0.3, 0.3),
                $chance->float(-0.3, 0.3),
                3.0,
            );
            $outcome = $simulator->play($layout, $strike);
            $ending = $simulator->rollouts($layout)->play($strike);

            self::assertSame($outcome->pocketed, $ending->pocketed);
            self::assertEquals($outcome->final, $ending->final);
            self::assertSame($outcome->firstContact()?->other, $ending->first);
        }
    }

    /** A table that is played on many times lies as it lay before every stroke, also after one that moved many balls. */
    public function testOneStrokeLeavesNothingForTheNext(): void
    {
        $simulator = new EventSimulator();
        $layout = Table::layout([0 => [0.6, 0.6], 1 => [1.3, 0.61], 2 => [1.36, 0.63], 3 => [1.9, 0.3], 4 => [2.2, 1.0]]);
        $rollouts = $simulator->rollouts($layout);
        $soft = Strike::degrees(0.4, 1.2, 0.1, 0.2);
        $before = $rollouts->play($soft);
        for ($i = 0; $i < 20; ++$i) {
            $rollouts->play(Strike::degrees(-2.0 + 0.2 * $i, 5.0));
        }
        self::assertEquals($before, $rollouts->play($soft));
        self::assertEquals($before, $simulator->rollouts($layout)->play($soft));
        self::assertContains(Ball::One, $before->struck);
    }

    /** Also where balls touch: one that a group was looked at with, and that nothing touched, lies as it lay. */
    public function testStrokesIntoGroupsLeaveNothingForTheNext(): void
    {
        $simulator = new EventSimulator();
        $chance = new Chance(11);
        for ($i = 0; $i < 30; ++$i) {
            $layout = (new Table())->randomLayout($chance, 12, 0.6);
            $rollouts = $simulator->rollouts($layout);
            for ($k = 0; $k < 20; ++$k) {
                $strike = Strike::degrees(
                    $chance->float(0, 360),
                    $chance->float(1.0, 7.0),
                    $chance->float(-0.3, 0.3),
                    $chance->float(-0.3, 0.3),
                    2.0,
                );

                self::assertEquals($simulator->rollouts($layout)->play($strike), $rollouts->play($strike), "layout $i, stroke $k");
            }
        }
    }

    /** Also a ball that lies between the noses of a pocket: when it came there in another stroke says nothing of this one. */
    public function testABallInTheJawsLiesAsItLay(): void
    {
        $simulator = new EventSimulator();
        $chance = new Chance(5);
        $layout = Table::layout([0 => [1.9, 0.7], 1 => [2.523, 0.05], 2 => [1.27, 0.01], 3 => [0.05, 0.017], 4 => [2.2, 0.35]]);
        $rollouts = $simulator->rollouts($layout);
        for ($i = 0; $i < 300; ++$i) {
            $ball = Ball::from(1 + $i % 4);
            $strike = Strike::degrees(
                rad2deg($layout->spot(Ball::Cue)->directionTo($layout->spot($ball))) + $chance->float(-2, 2),
                $chance->float(0.5, 5.0),
                $chance->float(-0.3, 0.3),
                0.0,
            );

            self::assertEquals($simulator->rollouts($layout)->play($strike), $rollouts->play($strike), "stroke $i");
        }
    }
}
