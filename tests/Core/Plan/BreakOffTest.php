<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Plan;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Plan\BreakOff;
use ZigLane\Core\Plan\Planning;
use ZigLane\Core\Plan\Reason;
use ZigLane\Core\Plan\Tally;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\TableProfile;
use ZigLane\Tests\Table;

/** The break shot of straight pool: into fourteen balls without an apex, with a ball beside the rack. */
final class BreakOffTest extends TestCase
{
    /** A break ball beside the rack and the cue ball above it: a cut of some forty degrees sends the cue ball into the rack. */
    private const SPOTS = [0 => [1.35, 0.3], 4 => [1.83, 0.36]];

    public function testFourteenAreRackedWithoutTheApex(): void
    {
        $racked = Racking::fourteen(Table::layout(self::SPOTS), new Equipment());
        self::assertNotNull($racked);
        self::assertSame(16, $racked->count());
        self::assertSame([], (new LayoutRules(new Equipment()))->faults($racked));
        $foot = Racking::footSpot(new TableProfile());
        foreach ($racked->balls() as $ball) {
            self::assertGreaterThan(0.04, $racked->spot($ball)->distanceTo($foot));
        }
    }

    public function testTheBreakShotMakesTheBallAndOpensTheRack(): void
    {
        $rack = new Rack(Game::StraightPool, Table::layout(self::SPOTS), player: new ExecutionErrors(0.03, 0.04, 0.8, 0.8));
        $racked = Racking::fourteen($rack->layout, $rack->equipment);
        self::assertNotNull($racked);
        $option = (new BreakOff($rack, new ShotSolver()))->choose($racked, Ball::Four, 1);
        self::assertNotNull($option);
        self::assertSame(Pocket::FootRight, $option->choice->pocket);
        self::assertGreaterThan(0.4, $option->value);
        $ending = (new EventSimulator())->rollouts($racked)->play($option->strike);
        self::assertSame(Pocket::FootRight, $ending->pocketOf(Ball::Four));
        self::assertTrue(BreakOff::isOpen($racked, $ending));
    }

    /** The plan ends with it, and what is drawn of the plan is the same shot into the same rack. */
    /** Fourteen racked and a ball beside them: planned as the break shot, and the run goes on into the opened rack. */
    public function testAFullRackIsPlannedAsABreakShotAndOn(): void
    {
        $layout = Racking::fourteen(Table::layout([0 => [1.5, 0.9], 4 => [1.86, 0.98]]), new Equipment());
        self::assertNotNull($layout);
        $rack = new Rack(Game::StraightPool, $layout, player: new ExecutionErrors(...ExecutionErrors::PRESETS['expert']));
        $planning = new Planning($rack);
        for ($block = 0; $block < 3; ++$block) {
            $planning->step();
        }
        $plans = $planning->plans(null, 1, 0);
        self::assertSame([Ball::Four], array_map(static fn ($leg): Ball => $leg->choice->ball, $plans[0]->legs));
        self::assertNull($plans[0]->end);
        self::assertGreaterThan(0.9, $plans[0]->legs[0]->make);
        // Balls of the next rack count: more on the average than the break ball alone, and one number with its interval.
        self::assertGreaterThan(2.0, $plans[0]->replays->balls());
        [$least, $most] = $plans[0]->replays->ballsInterval();
        self::assertLessThan($plans[0]->replays->balls(), $least);
        self::assertGreaterThan($plans[0]->replays->balls(), $most);
        self::assertNotNull($planning->search->first());
    }

    public function testAPlanEndsWithTheBreakShot(): void
    {
        $rack = new Rack(
            Game::StraightPool,
            Table::layout([0 => [0.9, 0.5], 4 => [1.83, 0.36], 7 => [1.3, 0.14]]),
            player: new ExecutionErrors(0.02, 0.03, 0.5, 0.5),
        );
        $planning = new Planning($rack);
        $planning->step();
        $plan = $planning->plans()[0];
        $legs = $plan->legs;
        // Then on: finished replays opened a rack, and what is left in it was looked at.
        self::assertGreaterThan(0, $plan->replays->finished);
        self::assertLessThanOrEqual($plan->replays->finished, $plan->replays->opened);
        self::assertGreaterThan(0, $plan->replays->opened);
        self::assertGreaterThan(0.05, $plan->replays->meanThenOn());
        self::assertLessThanOrEqual(1.0, $plan->replays->meanThenOn());
        self::assertEquals($plan->replays, Tally::fromArray($plan->replays->toArray()));
        self::assertSame(2 * $plan->replays->opened, $plan->replays->plus($plan->replays)->opened);

        self::assertSame([Ball::Seven, Ball::Four], array_map(static fn ($leg): Ball => $leg->choice->ball, $legs));
        self::assertSame(16, $legs[1]->before->count());
        $opened = (new ShotSolver())->solve($legs[1]->before, $legs[1]->choice)->outcome->final;
        self::assertContainsEquals(Reason::breakShot(BreakOff::opened($legs[1]->before, $opened), BreakOff::MOVED), $legs[1]->reasons);
        // Then on: the easiest pot of the opened rack, with the chance that it has there; or that nothing goes straight.
        $told = array_values(array_filter(
            $legs[1]->reasons,
            static fn (Fact $reason): bool => str_starts_with($reason->kind, 'reason.then'),
        ));
        self::assertCount(1, $told);
        if ('reason.thenOn' === $told[0]->kind) {
            [$ball, $pocket] = [$told[0]->values['ball'], $told[0]->values['pocket']];
            self::assertInstanceOf(Ball::class, $ball);
            self::assertInstanceOf(Pocket::class, $pocket);
            $line = PotModel::find(Layout::empty()->with($ball, $opened->spot($ball)), $ball, $pocket, new ShotSolver(), $rack->player);
            self::assertEqualsWithDelta($line?->chance($opened->spot(Ball::Cue)) ?? 0.0, $told[0]->values['chanceShare'], 1e-9);
        }
        // The next leg begins where the one before it typically stops, and the key ball says what it is.
        self::assertContainsEquals(Reason::keyBall(Ball::Seven, Ball::Four, null), $legs[0]->reasons);
        self::assertContainsEquals(Reason::breakBall(Ball::Four, null), $legs[1]->reasons);
    }
}
