<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Player;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Tests\Table;

/** Chance that is what it says: uniform, normal, seeded; and errors with the deviations of the profile. */
final class ExecutionErrorsTest extends TestCase
{
    public function testSharesAreUniformAndNormalsNormal(): void
    {
        $random = new Randomness(12);
        $shares = $normals = $squares = $tails = 0.0;
        $count = 20000;
        for ($i = 0; $i < $count; ++$i) {
            $share = $random->share();
            self::assertTrue($share >= 0.0 && $share < 1.0);
            $shares += $share;
            $normal = $random->normal();
            $normals += $normal;
            $squares += $normal ** 2;
            $tails += abs($normal) > 1.959964 ? 1 : 0;
        }

        self::assertEqualsWithDelta(0.5, $shares / $count, 0.01);
        self::assertEqualsWithDelta(0.0, $normals / $count, 0.03);
        self::assertEqualsWithDelta(1.0, $squares / $count, 0.04);
        self::assertEqualsWithDelta(0.05, $tails / $count, 0.006);
    }

    public function testErrorsHaveTheDeviationsOfTheProfile(): void
    {
        $errors = new ExecutionErrors(aim: 0.1, speed: 0.05, tipSide: 2.0, tipHeight: 1.0);
        $meant = Strike::degrees(30.0, 2.0, 0.1, -0.1);
        $random = new Randomness(3);
        $sums = [0.0, 0.0, 0.0, 0.0];
        for ($i = 0; $i < 4000; ++$i) {
            $real = $errors->ordinary()->disturb($meant, $random, Table::R);
            foreach ([
                rad2deg($real->direction) - 30.0,
                $real->speed / 2.0 - 1,
                1000 * Table::R * ($real->side - 0.1),
                1000 * Table::R * ($real->height + 0.1),
            ] as $k => $error) {
                $sums[$k] += $error ** 2;
            }
        }
        foreach ([0.1, 0.05, 2.0, 1.0] as $k => $deviation) {
            self::assertEqualsWithDelta($deviation, \sqrt($sums[$k] / 4000), 0.05 * $deviation);
        }
    }

    public function testTheSameSeedShufflesTheSame(): void
    {
        $cards = range(1, 15);
        self::assertSame((new Randomness(4))->shuffled($cards), (new Randomness(4))->shuffled($cards));
        self::assertNotSame((new Randomness(4))->shuffled($cards), (new Randomness(5))->shuffled($cards));
        $shuffled = (new Randomness(6))->shuffled($cards);
        sort($shuffled);
        self::assertSame($cards, $shuffled);
    }
}
