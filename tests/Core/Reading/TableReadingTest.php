<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Reading;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Reading\BallReading;
use ZigLane\Core\Reading\TableReading;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Tests\Table;

final class TableReadingTest extends TestCase
{
    public function testTheTableIsRead(): void
    {
        $layout = Table::layout([
            0 => [1.2, 0.6],
            1 => [2.3, 1.1],
            2 => [0.8, Table::R],
            3 => [2.0, 0.3],
            4 => [2.0 + 2 * Table::R + 0.002, 0.3],
            5 => [1.27, 1.262],
        ]);
        $reading = TableReading::of($layout, new ShotSolver(), new ExecutionErrors());
        $of = static function (Ball $ball) use ($reading): BallReading {
            foreach ($reading->balls as $one) {
                if ($one->ball === $ball) {
                    return $one;
                }
            }
            self::fail($ball->label().' is not read.');
        };
        $one = $of(Ball::One);

        self::assertSame(['FL', false, false, []], [$one->best()->pocket->value, $one->isFrozen, $one->isHanging, $one->cluster]);
        self::assertTrue($of(Ball::Two)->isFrozen);
        self::assertSame([Ball::Four], $of(Ball::Three)->cluster);
        self::assertSame([Ball::Three], $of(Ball::Four)->cluster);
        self::assertTrue($of(Ball::Five)->isHanging);
        self::assertSame('SL', $of(Ball::Five)->best()->pocket->value);
        // The 3 is kept from the foot right pocket by the 4 beside it, and says by whom.
        $blocked = array_values(array_filter(
            $of(Ball::Three)->pockets,
            static fn ($pocket): bool => Pocket::FootRight === $pocket->pocket,
        ))[0];
        self::assertContains(Ball::Four, $blocked->blockers);
        // Most trouble first.
        $open = array_map(static fn (BallReading $ball): int => $ball->openPockets(), $reading->balls);
        $rising = $open;
        sort($rising);
        self::assertSame($rising, $open);
    }

    /** A ball frozen to the foot rail cannot be sent back up the table: the cue ball would have to lie in the cushion. */
    public function testAPocketThatOnlyACueBallOffTheTableCouldReachIsClosed(): void
    {
        $layout = Table::layout([0 => [1.2, 0.6], 5 => [2.54 - Table::R, 0.5]]);
        $reading = TableReading::of($layout, new ShotSolver(), new ExecutionErrors());
        foreach ($reading->balls[0]->pockets as $pocket) {
            $isUp = \in_array($pocket->pocket, [Pocket::HeadLeft, Pocket::HeadRight, Pocket::SideLeft, Pocket::SideRight], true);
            self::assertSame(!$isUp, $pocket->openShare > 0.0, $pocket->pocket->value);
            self::assertTrue(!$isUp || 0.0 === $pocket->odds);
        }
    }
}
