<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Position;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Sight;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Spot;
use ZigLane\Tests\Table;

/** Straight lines by exact geometry: millimetres beside a way, and how much of a ball can be met. */
final class SightTest extends TestCase
{
    public function testTheGapBesideAWayIsExact(): void
    {
        $layout = Table::layout([3 => [1.0, 0.6 + 2 * Table::R + 0.004], 5 => [1.4, 0.6 - 2 * Table::R + 0.002]]);
        $gaps = (new Sight(new BallSet()))->clearance($layout, Spot::metres(0.5, 0.6), Spot::metres(1.6, 0.6), []);

        self::assertEqualsWithDelta(0.004, $gaps['left'][0] ?? 0.0, 1e-12);
        self::assertSame(Ball::Three, $gaps['left'][1] ?? null);
        self::assertEqualsWithDelta(-0.002, $gaps['right'][0] ?? 0.0, 1e-12);
        self::assertSame(Ball::Five, $gaps['right'][1] ?? null);
    }

    public function testABallBehindOrBeyondTheWayDoesNotCountUnlessItIsTouched(): void
    {
        $layout = Table::layout([3 => [0.3, 0.6], 5 => [1.9, 0.6]]);
        $gaps = (new Sight(new BallSet()))->clearance($layout, Spot::metres(0.5, 0.6), Spot::metres(1.6, 0.6), []);
        self::assertSame(['left' => null, 'right' => null], $gaps);

        $gaps = (new Sight(new BallSet()))->clearance(
            Table::layout([5 => [1.6 + 1.5 * Table::R, 0.6]]),
            Spot::metres(0.5, 0.6),
            Spot::metres(1.6, 0.6),
            [],
        );
        self::assertEqualsWithDelta(-0.5 * Table::R, $gaps['left'][0] ?? 0.0, 1e-12);
    }

    /** Derived: a ball right in front, on the line of centres and touching the path's edges, hides all; one off to the side a part. */
    public function testHowMuchOfABallIsSeen(): void
    {
        $sight = new Sight(new BallSet());
        $from = Spot::metres(0.5, 0.6);

        self::assertSame([1.0, []], $sight->seen(Table::layout([7 => [1.5, 0.6]]), $from, Ball::Seven));
        self::assertSame(0.0, $sight->seen(Table::layout([7 => [1.5, 0.6], 8 => [0.8, 0.6]]), $from, Ball::Seven)[0]);
        self::assertSame(1.0, $sight->seen(Table::layout([7 => [1.5, 0.6], 8 => [1.9, 0.6]]), $from, Ball::Seven)[0]);
        // As far as the target and half of its angle aside: it hides exactly the directions above its lower edge.
        $half = asin(2 * Table::R);
        $blocker = $from->towards($half, 0.999);
        [$seen, $by] = $sight->seen(Table::layout([7 => [1.5, 0.6], 8 => [$blocker->x, $blocker->y]]), $from, Ball::Seven);
        self::assertEqualsWithDelta((2 * $half - asin(2 * Table::R / 0.999)) / (2 * $half), $seen, 1e-9);
        self::assertSame([Ball::Eight], $by);
    }
}
