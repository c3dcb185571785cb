<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Plan;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Plan\Internal\PlannerTables;
use ZigLane\Core\Plan\Internal\Policy;
use ZigLane\Core\Plan\Internal\ValueTable;
use ZigLane\Core\Plan\Leave;
use ZigLane\Core\Plan\MissLeave;
use ZigLane\Core\Plan\Order;
use ZigLane\Core\Plan\PlanConstraints;
use ZigLane\Core\Plan\Weights;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Referee;
use ZigLane\Core\Rules\Turn;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Spot;
use ZigLane\Tests\Chance;
use ZigLane\Tests\Table;

/** What a miss leaves the other player. */
final class LeaveTest extends TestCase
{
    public function testTheEasiestPotIsTheBestOfAllPockets(): void
    {
        $layout = Table::layout([0 => [1.0, 0.4], 5 => [1.9, 0.8]]);
        $rack = new Rack(Game::NineBall, $layout);
        $simulator = new EventSimulator();
        $lines = PotModel::findAll($layout, Ball::Five, Pocket::cases(), new ShotSolver(), $rack->player);
        $best = max(0.0, ...array_map(static fn (PotModel $line): float => $line->chance($layout->spot(Ball::Cue)), $lines));
        self::assertGreaterThan(0.3, $best);
        self::assertEqualsWithDelta($best, (new Leave($rack, new ShotSolver()))->toOther($layout, null), 1e-9);
    }

    public function testABallInTheWayOfTheCueBallLeavesNothing(): void
    {
        $layout = Table::layout([0 => [0.6, 0.635], 5 => [1.9, 0.635], 9 => [0.9, 0.635]]);
        self::assertSame(0.0, (new Leave(new Rack(Game::NineBall, $layout), new ShotSolver()))->toOther($layout, null));
        // The 9 is not his ball to shoot; without the 5 it would be.
        self::assertGreaterThan(
            0.2,
            (new Leave(new Rack(Game::NineBall, $layout->without(Ball::Five)), new ShotSolver()))->toOther(
                $layout->without(Ball::Five),
                null,
            ),
        );
    }

    public function testInEightBallTheOtherPlayerHasTheOtherGroup(): void
    {
        // The 3 hangs in a pocket, the 12 lies behind it, hidden; the 8 is open to nobody who has balls left.
        $layout = Table::layout([0 => [0.5, 0.3], 3 => [0.06, 0.06], 8 => [2.0, 1.2], 12 => [1.27, 0.03]]);
        $leave = new Leave(new Rack(Game::EightBall, $layout), new ShotSolver());
        self::assertGreaterThan(0.9, $leave->toOther($layout, Group::Stripes));
        self::assertLessThan(0.9, $leave->toOther($layout, Group::Solids));
        self::assertSame($leave->easiest($layout, [Ball::Twelve]), $leave->toOther($layout, Group::Solids));
        self::assertGreaterThan(0.9, $leave->toOther($layout, Group::Open));
        $last = $layout->without(Ball::Three);
        self::assertSame($leave->easiest($last, [Ball::Eight]), $leave->toOther($last, Group::Stripes));
    }

    /** On a grid of five centimetres: half within three points of the exact spot, nine of ten within twelve. */
    public function testTheGridOfSpotsComesNear(): void
    {
        $random = new Chance(9);
        $rack = new Rack(Game::NineBall, Table::layout([0 => [1.0, 0.4], 5 => [1.9, 0.8]]));
        $exact = new Leave($rack, new ShotSolver());
        $grid = new Leave($rack, new ShotSolver(), grid: 0.05);
        $off = [];
        while (\count($off) < 60) {
            $layout = (new Table())->randomLayout($random, 2);
            $off[] = abs($exact->toOther($layout, null) - $grid->toOther($layout, null));
        }
        sort($off);
        self::assertLessThan(0.03, $off[30]);
        self::assertLessThan(0.12, $off[54]);
    }

    public function testFoulsAreCountedApart(): void
    {
        // A long thin cut, softly: many misses do not reach a cushion, or miss the ball.
        $layout = Table::layout([0 => [0.5, 0.3], 5 => [2.2, 0.7]]);
        $rack = new Rack(Game::NineBall, $layout, player: new ExecutionErrors(0.6, 0.1, 2.0, 2.0));
        $simulator = new EventSimulator();
        $choice = new ShotChoice(Ball::Five, Pocket::FootRight, new Stroke(Tip::fractions(0.0, 0.2), 2.0, 2.0));
        $shot = (new ShotSolver($rack->equipment))->solve($layout, $choice);
        $trials = Trials::of($shot, new ShotSolver(), $rack->player, 100);
        self::assertCount(100 - $trials->made - $trials->miscues, $trials->misses);
        $misses = MissLeave::of(
            $trials->misses, $layout, new Turn(), $choice, new Referee(Game::NineBall),
            new Leave($rack, new ShotSolver()),
        );
        // Nine-ball goes on after a ball in any pocket.
        self::assertLessThanOrEqual(\count($trials->misses), $misses->count);
        self::assertGreaterThan(40, $misses->count);
        self::assertGreaterThan(0, $misses->fouls);
        self::assertNotNull($misses->chance);
        self::assertGreaterThan(0.0, $misses->chance);
        self::assertLessThan(1.0, $misses->chance);
        $none = MissLeave::of([], $layout, new Turn(), $choice, new Referee(Game::NineBall), new Leave($rack, new ShotSolver()));
        self::assertSame([0, 0, null], [$none->count, $none->fouls, $none->chance]);
    }

    /** With the weight set a shot is worth as much less as its misses and fouls hand over. */
    public function testTheWeightOfTheTwoWayShotPricesWhatIsHandedOver(): void
    {
        $rack = new Rack(
            Game::NineBall,
            Table::layout([0 => [1.2, 0.5], 7 => [1.9, 0.8], 8 => [0.5, 0.3], 9 => [1.5, 1.0]]),
            player: new ExecutionErrors(0.12, 0.1, 2.0, 2.0),
        );
        $values = new ValueTable(PlannerTables::of($rack, Order::of(Game::NineBall)), new PlanConstraints());
        $plain = new Policy($values);
        $wary = new Policy($values, null, new Weights(miss: 10.0));
        $apart = [];
        foreach (\array_slice($plain->ranked($rack->layout), 0, 10) as [, $choice]) {
            $option = $plain->tried($rack->layout, $choice, 60, 3);
            self::assertNotNull($option);
            $priced = ($option->value - ($wary->tried($rack->layout, $choice, 60, 3)->value ?? 0.0)) / 0.1;
            $trials = Trials::of(
                (new ShotSolver($rack->equipment))->solve($rack->layout, $option->choice),
                new ShotSolver(),
                $rack->player,
                200,
                77,
            );
            $misses = MissLeave::of(
                $trials->misses, $rack->layout, new Turn(), $option->choice, new Referee(Game::NineBall),
                new Leave($rack, new ShotSolver()),
            );
            $scratches = array_sum($trials->scratches);
            $handed = ($misses->fouls + $trials->miscues + $scratches + ($misses->count - $misses->fouls) * ($misses->chance ?? 0.0)) / 200;
            self::assertGreaterThan(0.0, $priced);
            self::assertEqualsWithDelta($handed, $priced, 0.2);
            $apart[] = $handed - $priced;
        }
        self::assertGreaterThan(5, \count($apart));
        self::assertEqualsWithDelta(0.0, array_sum($apart) / \count($apart), 0.06);
    }
}
