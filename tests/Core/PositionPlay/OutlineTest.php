<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\PositionPlay;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\PositionPlay\Outline;
use ZigLane\Core\Table\Spot;

final class OutlineTest extends TestCase
{
    public function testAThinnedCircleKeepsWithinItsHair(): void
    {
        $ring = [];
        for ($i = 0; $i < 720; ++$i) {
            $ring[] = Spot::metres(1.0 + 0.3 * cos($i * \M_PI / 360), 0.6 + 0.3 * sin($i * \M_PI / 360));
        }
        $thin = Outline::thinned($ring, 0.002);
        self::assertLessThan(60, \count($thin));
        self::assertGreaterThan(15, \count($thin));
        foreach ($ring as $spot) {
            $nearest = \INF;
            foreach ($thin as $i => $from) {
                $to = $thin[($i + 1) % \count($thin)];
                for ($part = 0.0; $part <= 1.0; $part += 0.02) {
                    $x = $from->x + $part * ($to->x - $from->x);
                    $y = $from->y + $part * ($to->y - $from->y);
                    $nearest = min($nearest, hypot($spot->x - $x, $spot->y - $y));
                }
            }
            self::assertLessThan(0.0025, $nearest);
        }
    }

    public function testStraightSidesLoseTheirPointsAndCornersStay(): void
    {
        $ring = [];
        foreach ([[0.0, 0.0], [1.0, 0.0], [1.0, 0.5], [0.0, 0.5]] as $i => [$x, $y]) {
            [$toX, $toY] = [[1.0, 0.0], [1.0, 0.5], [0.0, 0.5], [0.0, 0.0]][$i];
            for ($part = 0.0; $part < 0.999; $part += 0.125) {
                $ring[] = Spot::metres($x + $part * ($toX - $x), $y + $part * ($toY - $y));
            }
        }
        self::assertSame(
            [[0.0, 0.0], [1.0, 0.0], [1.0, 0.5], [0.0, 0.5]],
            array_map(static fn (Spot $spot): array => [$spot->x, $spot->y], Outline::thinned($ring, 0.002)),
        );
    }

    public function testWhatHasFewPointsKeepsThem(): void
    {
        $flat = [Spot::metres(0.0, 0.0), Spot::metres(0.5, 0.0), Spot::metres(1.0, 0.0), Spot::metres(0.7, 0.0), Spot::metres(0.2, 0.0)];
        self::assertSame($flat, Outline::thinned($flat, 0.002));
        self::assertCount(3, Outline::thinned(\array_slice($flat, 0, 3), 0.002));
    }
}
