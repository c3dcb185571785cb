<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Player;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Player\Biases;
use ZigLane\Core\Player\Demands;
use ZigLane\Core\Player\ErrorGrowth;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Tests\Table;

/** Common practice (docs/physics.md, section 7): errors that grow with speed, elevation, bridge and thin cuts. */
final class ErrorGrowthTest extends TestCase
{
    public function testDirectionAndTipGrowWithSpeedTwiceAtFiveMetresASecond(): void
    {
        $player = new ExecutionErrors(0.05, 0.06, 1.0, 1.2);
        foreach ([[1.0, 1.0], [2.0, 1.0], [3.5, 1.25], [5.0, 2.0], [8.0, 5.0]] as [$speed, $factor]) {
            $errors = $player->at($speed, 0.0);
            self::assertEqualsWithDelta(0.05 * $factor, $errors->aim, 1e-12);
            self::assertEqualsWithDelta(1.0 * $factor, $errors->tipSide, 1e-12);
            self::assertEqualsWithDelta(1.2 * $factor, $errors->tipHeight, 1e-12);
            self::assertSame(0.06, $errors->speed);
        }
    }

    public function testARaisedCueGrowsAllOfThem(): void
    {
        $errors = (new ExecutionErrors(0.05, 0.06, 1.0, 1.0))->in(Strike::degrees(0.0, 1.5, 0.0, 0.0, 10.0));

        foreach ([
            [0.075, $errors->aim],
            [0.09, $errors->speed],
            [1.5, $errors->tipSide],
            [1.5, $errors->tipHeight],
        ] as [$expected, $error]) {
            self::assertEqualsWithDelta($expected, $error, 1e-12);
        }
    }

    public function testAnAwkwardBridgeAThinCutAndJudgementTellOnTheDirectionOnly(): void
    {
        $player = new ExecutionErrors(0.05, 0.06, 1.0, 1.0);
        self::assertEqualsWithDelta(0.065, $player->at(1.5, 0.0, new Demands(true))->aim, 1e-12);
        self::assertEqualsWithDelta(0.05, $player->at(1.5, 0.0, new Demands(cut: 60.0))->aim, 1e-12);
        self::assertEqualsWithDelta(0.075, $player->at(1.5, 0.0, new Demands(cut: 60.1))->aim, 1e-12);
        self::assertEqualsWithDelta(hypot(0.05, 0.2), $player->at(1.5, 0.0, new Demands(judgement: 0.2))->aim, 1e-12);
        self::assertSame(1.0, $player->at(1.5, 0.0, new Demands(true, 80.0, 1.0))->tipSide);
    }

    public function testWithoutGrowthEveryShotIsAnOrdinaryOne(): void
    {
        $player = new ExecutionErrors(0.05, 0.06, 1.0, 1.0, ErrorGrowth::none());

        self::assertEqualsWithDelta($player->ordinary()->aim, $player->at(6.0, 30.0, new Demands(true, 80.0, 0.0))->aim, 1e-4);
    }

    /** What a player does wrong in the mean is there in every stroke; the rest scatters about it. */
    public function testBiasesMoveTheMean(): void
    {
        $errors = new ExecutionErrors(0.1, 0.05, 1.0, 1.0, ErrorGrowth::none(), new Biases(0.3, 0.07, 2.0, -1.0));
        $meant = Strike::degrees(20.0, 2.0, 0.0, 0.0);
        $random = new Randomness(3);
        $sums = [0.0, 0.0, 0.0, 0.0];
        for ($i = 0; $i < 4000; ++$i) {
            $real = $errors->in($meant)->disturb($meant, $random, Table::R);
            foreach ([
                rad2deg($real->direction) - 20.0,
                $real->speed / 2 - 1,
                1000 * Table::R * $real->side,
                1000 * Table::R * $real->height,
            ] as $k => $off) {
                $sums[$k] += $off / 4000;
            }
        }
        foreach ([[0.3, 0.1], [0.07, 0.05], [2.0, 1.0], [-1.0, 1.0]] as $k => [$bias, $deviation]) {
            self::assertEqualsWithDelta($bias, $sums[$k], 4 * $deviation / \sqrt(4000));
        }
    }
}
