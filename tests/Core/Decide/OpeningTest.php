<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Decide;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Decide\Judged;
use ZigLane\Core\Decide\Opening;
use ZigLane\Core\Decide\OptionSearch;
use ZigLane\Core\Decide\PositionValue;
use ZigLane\Core\Decide\Situation;
use ZigLane\Core\Decide\Way;
use ZigLane\Core\Decide\WayKind;
use ZigLane\Core\Decide\WayTally;
use ZigLane\Core\Decide\WayTrials;
use ZigLane\Core\Decide\Why;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Foul;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Rules\Standing;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Table\Equipment;
use ZigLane\Tests\Table;

/** Straight pool's own safeties: the opening break, and the foul on purpose. */
final class OpeningTest extends TestCase
{
    /** Thin on a rear corner ball, so that two balls and the cue ball reach a cushion and little is opened (common practice). */
    public function testTheOpeningBreakIsASafety(): void
    {
        $player = new ExecutionErrors(...ExecutionErrors::PRESETS['expert']);
        $equipment = new Equipment();
        $rack = new Rack(Game::StraightPool, Racking::whole($equipment), $equipment, $player, BallInHand::Kitchen);
        $best = (new OptionSearch($rack, $player))->first()->list[0];

        self::assertSame(WayKind::Safety, $best->way->kind);
        self::assertGreaterThan(0.9, $best->tally->share($best->tally->legal));
        self::assertLessThan(0.4, $best->opponentPot());
        self::assertContains('decide.opening', array_map(static fn (Fact $fact): string => $fact->kind, $best->reasons));
        self::assertNotNull($best->meant);
        self::assertTrue($best->meant->final->has(Ball::Cue));
    }

    public function testOnlyAWholeRackWithTheCueBallInHandIsOpened(): void
    {
        $equipment = new Equipment();
        $whole = Racking::whole($equipment);
        $is = static fn (Layout $layout, BallInHand $hand, Game $game = Game::StraightPool): bool => Opening::is(
            Situation::of(new Rack($game, $layout, $equipment, ballInHand: $hand)),
            $equipment,
        );

        self::assertTrue($is($whole, BallInHand::Kitchen));
        self::assertFalse($is($whole, BallInHand::Anywhere));
        self::assertFalse($is($whole->with(Ball::Cue, Table::layout([0 => [0.5, 0.5]])->spot(Ball::Cue)), BallInHand::None));
        self::assertFalse($is($whole->without(Ball::One), BallInHand::Kitchen), 'without the apex');
        self::assertFalse($is($whole->without(Ball::Seven), BallInHand::Kitchen));
        self::assertFalse($is($whole, BallInHand::Kitchen, Game::EightBall));
    }

    /** Fewer than two balls to a cushion cost two, and what is left is never a gain: the other may have it broken again. */
    public function testABreakThatOpensNothingCostsTwo(): void
    {
        $equipment = new Equipment();
        $rack = new Rack(Game::StraightPool, Racking::whole($equipment), $equipment, ballInHand: BallInHand::Kitchen);
        $solver = new ShotSolver();
        $situation = Situation::of($rack);
        $trials = new WayTrials($situation, $rack, new PositionValue($rack, [$rack->player, $rack->player], $solver), $solver);
        $way = new Way(WayKind::Safety, null, Strike::degrees(0.0, 0.9, 0.0, 0.0, 2.0), null, Opening::places($equipment)[0]);
        $soft = $trials->meant($way);
        self::assertNotNull($soft);

        self::assertSame([Foul::NoCushion], $soft[1]->fouls);
        self::assertSame(-2, $soft[1]->points);
        self::assertSame(-2.0, Opening::worth($soft[1], 1.5));
        self::assertSame(-3.5, Opening::worth($soft[1], -1.5));
    }

    /** The cue ball tapped against a ball: a foul that costs one, said with its place in the row. */
    public function testAFoulOnPurposeIsNamedWithItsCount(): void
    {
        $rack = (new Rack(Game::StraightPool, Table::layout([0 => [1.2, 0.6], 1 => [1.27, 0.6], 2 => [1.9, 0.4], 3 => [0.4, 0.9]])))
            ->withStanding(new Standing(1));
        $solver = new ShotSolver();
        $situation = Situation::of($rack);
        $value = new PositionValue($rack, [$rack->player, $rack->player], $solver);
        $trials = new WayTrials($situation, $rack, $value, $solver);
        $way = new Way(WayKind::Safety, null, Strike::degrees(0.0, 0.15, 0.0, 0.0, 2.0));
        $tap = $trials->meant($way);
        self::assertNotNull($tap);
        self::assertSame(-1, $tap[1]->points);
        $reasons = (new Why($rack, $situation, $value))->of(new Judged($way, new WayTally(), $tap[0]));

        self::assertSame(
            [['decide.onPurposeInARow', 2]],
            array_values(array_map(
                static fn (Fact $fact): array => [$fact->kind, $fact->values['count'] ?? null],
                array_filter($reasons, static fn (Fact $fact): bool => str_starts_with($fact->kind, 'decide.onPurpose')),
            )),
        );
    }
}
