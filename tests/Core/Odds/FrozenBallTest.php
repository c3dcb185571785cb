<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Odds;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Plan\Internal\PlannerTables;
use ZigLane\Core\Plan\Order;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Tests\Table;

/** A ball on a rail, to the pocket at the rail's end: the cue ball cannot lie past the nose line when it meets it. */
final class FrozenBallTest extends TestCase
{
    /** @return iterable<string, array{array{float, float}, array{float, float}, Pocket}> */
    public static function balls(): iterable
    {
        $r = Table::R;
        yield 'right rail' => [[1.2, 0.5], [1.9, $r], Pocket::FootRight];
        yield 'left rail' => [[1.2, 0.8], [1.9, 1.27 - $r], Pocket::FootLeft];
        yield 'near the corner' => [[1.2, 0.5], [2.3, $r], Pocket::FootRight];
        yield 'foot rail' => [[2.1, 0.4], [2.54 - $r, 0.9], Pocket::FootLeft];
        yield 'half a millimetre off' => [[0.8, 0.3], [0.4, $r + 0.0005], Pocket::HeadRight];
    }

    /**
     * @param array{float, float} $cue
     * @param array{float, float} $object
     */
    #[DataProvider('balls')]
    public function testItsPotIsAimedFromTheBedAndItsChanceIsAsSimulated(array $cue, array $object, Pocket $pocket): void
    {
        $rack = new Rack(
            Game::NineBall,
            Table::layout([0 => $cue, 9 => $object]),
            player: new ExecutionErrors(...ExecutionErrors::PRESETS['strong player']),
        );
        $line = PotModel::find($rack->layout, Ball::Nine, $pocket, new ShotSolver(), $rack->player);
        self::assertNotNull($line);
        self::assertGreaterThanOrEqual(
            Table::R,
            min(
                $line->ghost->x,
                $line->ghost->y,
                $rack->equipment->table->length - $line->ghost->x,
                $rack->equipment->table->width() - $line->ghost->y,
            ),
        );

        $spot = $rack->layout->spot(Ball::Cue);
        $shot = (new ShotSolver($rack->equipment))->solve(
            $rack->layout,
            new ShotChoice(Ball::Nine, $pocket, $line->stroke($spot), $line->asideMetres()),
        );
        $made = Trials::of($shot, new ShotSolver(), $rack->player, 400)->chance();
        self::assertGreaterThan(0.5, $made);
        self::assertEqualsWithDelta($made, $line->chance($spot), 0.15);
        // So the planner knows it as a way into a pocket.
        self::assertContains(
            $pocket,
            array_map(static fn ($way): Pocket => $way->pocket, PlannerTables::of($rack, Order::of(Game::NineBall))->pots(Ball::Nine)),
        );
    }
}
