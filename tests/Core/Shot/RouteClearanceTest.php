<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Shot;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Shot\RouteClearance;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Cue;
use ZigLane\Tests\Table;

final class RouteClearanceTest extends TestCase
{
    public function testBallsBesideTheRouteAreToldWithTheirGap(): void
    {
        // Straight along the middle: the 5 stands 80 mm from the line's middle, the 6 far away, the 4 is the called ball.
        $layout = Table::layout([0 => [0.5, 0.635], 4 => [1.9, 0.635], 5 => [1.0, 0.715], 6 => [1.2, 0.2]]);
        $shot = self::desk()->solve($layout, new ShotChoice(Ball::Four, Pocket::FootLeft, new Stroke(Tip::centre(), 1.5)));
        $passed = RouteClearance::of($shot, new BallSet())->passed;

        self::assertSame([Ball::Five], array_column($passed, 0));
        // The cue ball runs to the ghost ball, a little to one side of the straight line.
        $ghost = $shot->aim->ghost->at;
        $line = $layout->spot(Ball::Cue)->directionTo($ghost);
        $across = abs(cos($line) * (0.715 - 0.635) - sin($line) * (1.0 - 0.5));
        self::assertEqualsWithDelta($across - 2 * Table::R, $passed[0][1], 0.002);
    }

    /** The cue ball runs away from the 6, which stands behind it and closer than any ball that it passes. */
    public function testABallBehindTheCueBallIsNotPassed(): void
    {
        $layout = Table::layout([0 => [0.5, 0.635], 4 => [1.9, 0.635], 6 => [0.42, 0.655]]);
        $shot = self::desk()->solve($layout, new ShotChoice(Ball::Four, Pocket::FootLeft, new Stroke(Tip::centre(), 1.5)));

        self::assertSame([], RouteClearance::of($shot, new BallSet())->passed);
    }

    private static function desk(): ShotSolver
    {
        return new ShotSolver();
    }
}
