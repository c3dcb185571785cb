<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Shot;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\StrokeName;
use ZigLane\Core\Stroke\CutSide;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\StrokeKind;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Cue;
use ZigLane\Core\Table\Equipment;
use ZigLane\Tests\Table;

final class StrokeNameTest extends TestCase
{
    /**
     * Common practice: what the strokes are called, on a cut shot half a metre away.
     */
    #[DataProvider('strokes')]
    public function testStrokesAreCalledWhatTheyDo(
        StrokeKind $kind, float $side, float $height, float $speed, float $aside, float $distance = 0.5,
    ): void {
        $layout = Table::layout([0 => [1.9 - $distance, 0.69 + $aside], 1 => [1.9, 0.73]]);
        $shot = self::desk()->solve(
            $layout,
            new ShotChoice(Ball::One, Pocket::FootLeft, new Stroke(Tip::fractions($side, $height), $speed)),
        );

        self::assertSame($kind, StrokeName::of($shot, new Equipment())->kind);
    }

    /** @return iterable<string, array{0: StrokeKind, 1: float, 2: float, 3: float, 4: float, 5?: float}> */
    public static function strokes(): iterable
    {
        // The line from the 1 to the foot left pocket runs at 40 degrees: a cue ball on it is straight.
        yield 'draw' => [StrokeKind::Draw, 0.0, -0.4, 3.0, 0.0];
        yield 'stun' => [StrokeKind::Stun, 0.0, -0.12, 3.0, 0.0];
        yield 'follow' => [StrokeKind::Follow, 0.0, 0.4, 2.0, 0.0];
        yield 'force follow' => [StrokeKind::ForceFollow, 0.0, 0.49, 5.0, 0.0];
        yield 'stun run-through' => [StrokeKind::StunRunThrough, 0.0, 0.1, 3.0, 0.0];
        yield 'drag' => [StrokeKind::Drag, 0.0, -0.3, 1.0, 0.0, 1.2];
    }

    public function testInsideAndOutsideSideAreOppositeAndMirrored(): void
    {
        $name = static function (float $side, bool $mirrored): StrokeName {
            $y = static fn (float $y): float => $mirrored ? 1.27 - $y : $y;
            $layout = Table::layout([0 => [1.2, $y(0.6)], 1 => [1.9, $y(0.73)]]);
            $shot = self::desk()->solve(
                $layout,
                new ShotChoice(
                    Ball::One,
                    $mirrored ? Pocket::FootRight : Pocket::FootLeft,
                    new Stroke(Tip::fractions($mirrored ? -$side : $side, 0.1), 2.0),
                ),
            );

            return StrokeName::of($shot, new Equipment());
        };

        // Cut to the left: left side is inside.
        self::assertSame(CutSide::Inside, $name(-0.3, false)->cutSide);
        self::assertSame(CutSide::Outside, $name(0.3, false)->cutSide);
        self::assertSame(
            [$name(0.3, false)->cutSide, $name(0.3, false)->cushionSide],
            [$name(0.3, true)->cutSide, $name(0.3, true)->cushionSide],
        );
        self::assertSame($name(-0.3, false)->cushionSide, $name(-0.3, true)->cushionSide);
    }

    private static function desk(): ShotSolver
    {
        return new ShotSolver();
    }
}
