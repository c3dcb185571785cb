<?php

declare(strict_types=1);

namespace ZigLane\Tests\Reference;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\CushionLaw;
use ZigLane\Core\Position\Angle;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\TableProfile;
use ZigLane\Tests\Chance;
use ZigLane\Tests\Reference\Plain\PlainCushion;

/** The cushion law in use against the same law integrated in plain explicit steps with vectors (Plain/PlainCushion). */
final class CushionLawTest extends TestCase
{
    private const R = 0.028575;

    /** The bound that a route's end needs, 0.1 % in speed and 0.05 degrees in direction, against plain explicit steps. */
    public function testItStaysWithinTheBoundOverAnglesAndSpins(): void
    {
        $law = new CushionLaw(new TableProfile(), new BallSet());
        $chance = new Chance(4);
        for ($i = 0; $i < 240; ++$i) {
            [$v, $w] = self::randomImpact($chance, 0 === $i % 3);
            self::assertSameRebound(PlainCushion::rebound($v, $w, 4000), $law->rebound($v[0], $v[1], ...$w), $v, $w);
        }
    }

    /** The same bound against the law's own limit (steps fifty times as short, themselves held to the plain steps) on a grid. */
    public function testItStaysWithinTheBoundOnAGrid(): void
    {
        $law = new CushionLaw(new TableProfile(), new BallSet());
        $limit = new CushionLaw(new TableProfile(), new BallSet(), 0.05);
        $count = 0;
        foreach (range(-85, 85, 10) as $degrees) {
            $v = [2.0 * sin(deg2rad($degrees)), 2.0 * cos(deg2rad($degrees))];
            foreach ([-1.5, -0.5, 0.0, 0.5, 1.0, 1.5] as $roll) {
                foreach ([-1.25, -0.5, -0.1, 0.0, 0.1, 0.5, 1.25] as $side) {
                    $w = [-$roll * $v[1] / self::R, $roll * $v[0] / self::R, $side * 2.0 / self::R];
                    self::assertSameRebound($limit->rebound($v[0], $v[1], ...$w), $law->rebound($v[0], $v[1], ...$w), $v, $w);
                    ++$count;
                }
            }
        }
        self::assertSame(18 * 6 * 7, $count);
    }

    /** On ten thousand random impacts three may miss the bound, by less than twice: what a player can do is well inside these spins. */
    public function testItStaysWithinTheBoundOnTenThousandRandomImpacts(): void
    {
        $law = new CushionLaw(new TableProfile(), new BallSet());
        $limit = new CushionLaw(new TableProfile(), new BallSet(), 0.1);
        $chance = new Chance(8);
        $beyond = 0;
        for ($i = 0; $i < 10000; ++$i) {
            [$v, $w] = self::randomImpact($chance, 0 === $i % 2);
            [$a, $b] = [$limit->rebound($v[0], $v[1], ...$w), $law->rebound($v[0], $v[1], ...$w)];
            $off = max(
                abs(hypot($b[0], $b[1]) / hypot($a[0], $a[1]) - 1) / 0.001,
                abs(rad2deg(Angle::wrapped(atan2($b[1], $b[0]) - atan2($a[1], $a[0])))) / 0.05,
            );
            self::assertLessThan(2.0, $off, 'impact '.json_encode([$v, $w]));
            $beyond += $off > 1.0 ? 1 : 0;
        }
        self::assertLessThanOrEqual(3, $beyond);
    }

    public function testItAgreesWithItsOwnLimit(): void
    {
        $coarse = new CushionLaw(new TableProfile(), new BallSet());
        $fine = new CushionLaw(new TableProfile(), new BallSet(), 0.02);
        foreach ([-70.0, -30.0, 0.0, 15.0, 60.0] as $degrees) {
            $angle = deg2rad($degrees);
            $in = [1.5 * sin($angle), 1.5 * cos($angle), -1.5 * cos($angle) / self::R, 1.5 * sin($angle) / self::R, 20.0];
            $a = $coarse->rebound(...$in);
            $b = $fine->rebound(...$in);
            self::assertEqualsWithDelta($b[0], $a[0], 5e-4);
            self::assertEqualsWithDelta($b[1], $a[1], 5e-4);
        }
    }

    public function testTheLawIsHomogeneousInSpeed(): void
    {
        $law = new CushionLaw(new TableProfile(), new BallSet());
        $slow = $law->rebound(0.3, 1.0, -20.0, 15.0, 8.0);
        $quick = $law->rebound(0.9, 3.0, -60.0, 45.0, 24.0);
        foreach ($slow as $i => $value) {
            self::assertEqualsWithDelta(3 * $value, $quick[$i], 1e-9 * max(1.0, abs($quick[$i])));
        }
    }

    /** Derived: without friction only the approach turns round, with the share e_c. */
    public function testWithoutFrictionTheBallComesBackLikeLight(): void
    {
        $law = new CushionLaw(new TableProfile(cushionFriction: 0.0, cushionRestitution: 0.8, noseHeight: 1.1, slide: 0.05), new BallSet());
        [$vx, $vy, , , $wz] = $law->rebound(1.0, 2.0, 0.0, 2.0 / self::R * 0.5, 30.0);

        self::assertEqualsWithDelta(1.0, $vx, 0.02);
        self::assertEqualsWithDelta(-1.6, $vy, 0.02);
        self::assertSame(30.0, $wz);
    }

    public function testEnergyIsNeverGained(): void
    {
        $law = new CushionLaw(new TableProfile(cushionRestitution: 1.0), new BallSet());
        $chance = new Chance(9);
        for ($i = 0; $i < 3000; ++$i) {
            $in = [
                $chance->float(-4, 4),
                $chance->float(0.001, 4),
                $chance->float(-150, 150),
                $chance->float(-150, 150),
                $chance->float(-150, 150),
            ];
            self::assertLessThanOrEqual(self::energy($in) * (1 + 1e-9), self::energy($law->rebound(...$in)));
        }
    }

    /** @return array{array{float, float}, array{float, float, float}} velocity along and towards the cushion, spin */
    private static function randomImpact(Chance $chance, bool $rolling): array
    {
        $angle = deg2rad($chance->float(-80, 80));
        $v = [2.0 * sin($angle), 2.0 * cos($angle)];
        $wz = $chance->float(-90, 90);

        return [$v, $rolling ? [-$v[1] / self::R, $v[0] / self::R, $wz] : [$chance->float(-90, 90), $chance->float(-90, 90), $wz]];
    }

    /**
     * @param array{float, float, float, float, float} $expected
     * @param array{float, float, float, float, float} $actual
     * @param array{float, float}                      $v        before the impact
     * @param array{float, float, float}               $w
     */
    private static function assertSameRebound(array $expected, array $actual, array $v, array $w): void
    {
        $impact = 'impact '.json_encode([$v, $w]);
        self::assertEqualsWithDelta(1.0, hypot($actual[0], $actual[1]) / hypot($expected[0], $expected[1]), 0.001, $impact);
        self::assertEqualsWithDelta(0.0, rad2deg(atan2($actual[1], $actual[0]) - atan2($expected[1], $expected[0])), 0.05, $impact);
        for ($k = 2; $k < 5; ++$k) {
            self::assertEqualsWithDelta(
                self::R * $expected[$k],
                self::R * $actual[$k],
                0.004 * (2.0 + self::R * \sqrt($w[0] ** 2 + $w[1] ** 2 + $w[2] ** 2)),
                $impact,
            );
        }
    }

    /** @param array{float, float, float, float, float} $s velocity along and across, spin */
    private static function energy(array $s): float
    {
        return 0.5 * ($s[0] ** 2 + $s[1] ** 2) + 0.2 * self::R ** 2 * ($s[2] ** 2 + $s[3] ** 2 + $s[4] ** 2);
    }
}
