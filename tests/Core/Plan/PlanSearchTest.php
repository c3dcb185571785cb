<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Plan;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Plan\Candidate;
use ZigLane\Core\Plan\EasiestPot;
use ZigLane\Core\Plan\Internal\PlannerTables;
use ZigLane\Core\Plan\Internal\Policy;
use ZigLane\Core\Plan\Internal\ValueTable;
use ZigLane\Core\Plan\Leg;
use ZigLane\Core\Plan\Option;
use ZigLane\Core\Plan\Order;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Plan\PlanConstraints;
use ZigLane\Core\Plan\Planning;
use ZigLane\Core\Plan\PlanRehearsal;
use ZigLane\Core\Plan\PlanSearch;
use ZigLane\Core\Plan\RackPlayer;
use ZigLane\Core\Plan\Reason;
use ZigLane\Core\Plan\ReplaySchedule;
use ZigLane\Core\Plan\StraightRun;
use ZigLane\Core\Plan\Tally;
use ZigLane\Core\Plan\Weights;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\RuleOptions;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\CueClearance;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Spot;
use ZigLane\Tests\Chance;
use ZigLane\Tests\Table;

/** The planner: what it plans is legal, repeatable, kept to a person's wishes, and its odds are those of rehearsals. */
final class PlanSearchTest extends TestCase
{
    private const STRONG = [0.035, 0.04, 0.8, 0.8];

    /** Four balls in the open for a strong player: in rotation, each potted, no scratch, good odds, reasons in words. */
    public function testAnOpenTableIsPlannedToTheEnd(): void
    {
        $plan = self::planned(self::open(), 12, isWhole: true);

        self::assertSame([2, 5, 7, 9], array_map(static fn (Leg $leg): int => $leg->choice->ball->value, $plan->legs));
        self::assertNull($plan->end);
        self::assertGreaterThan(0.5, $plan->replays->chance());
        foreach ($plan->legs as $i => $leg) {
            self::assertTrue((new ShotSolver())->solve($leg->before, $leg->choice)->goesOn());
            self::assertSame($i + 1, $leg->number);
            self::assertGreaterThanOrEqual($leg->position, $leg->make + 1e-9);
            self::assertGreaterThan(0, $leg->replays);
            self::assertGreaterThanOrEqual($leg->goOn, $leg->make + 0.02);
        }
        // The chance to finish grows from leg to leg, since those before it are behind.
        $runs = array_map(static fn (Leg $leg): float => $leg->runOut ?? 1.0, $plan->legs);
        self::assertSame($plan->replays->chance(), $runs[0]);
        self::assertLessThanOrEqual(1.0, max($runs));
        self::assertGreaterThanOrEqual($runs[0], $runs[3]);
        self::assertNotSame([], array_merge(...array_map(static fn (Leg $leg): array => $leg->reasons, $plan->legs)));
    }

    /** The same blocks in another order, as two workers would do them, choose the same plan with the same odds. */
    public function testItDoesNotMatterWhoDoesWhichBlockWhen(): void
    {
        $done = [];
        foreach ([false, true] as $backwards) {
            $search = new PlanSearch(self::open());
            $candidates = $search->candidates();
            $found = array_map(static fn (): array => [], $candidates);
            for ($round = 0; $round < 2; ++$round) {
                $due = ReplaySchedule::due($found);
                foreach ($backwards ? array_reverse($due) : $due as [$candidate, $block]) {
                    $found[$candidate][$block] ??= $search->block($candidates[$candidate], $block);
                }
            }
            $tallies = [];
            foreach ($found as $blocks) {
                ksort($blocks);
                $tallies[] = Tally::sum($blocks)->toArray();
            }
            $done[] = [
                ReplaySchedule::best($found),
                array_map(static fn (Candidate $way): array => [$way->option->choice, $way->option->value], $candidates),
                $tallies,
            ];
        }
        self::assertEquals($done[0], $done[1]);
    }

    public function testTheSeedDecidesAndNothingElse(): void
    {
        self::assertEquals(self::planned(self::open(), 2)->replays, self::planned(self::open(), 2)->replays);
        self::assertNotEquals(self::planned(self::open(), 2)->replays, self::planned(self::open(), 2, seed: 2)->replays);
    }

    /** Stages: each keeps fewer candidates and gives them more; a block that is done is never due again. */
    public function testEveryBlockIsDueOnce(): void
    {
        $done = [[], [], []];
        $seen = [];
        while ([] !== $due = ReplaySchedule::due(array_values($done))) {
            foreach ($due as [$candidate, $block]) {
                self::assertArrayNotHasKey("$candidate.$block", $seen);
                $seen["$candidate.$block"] = true;
                $replays = new Tally();
                $replays->tries = ReplaySchedule::BLOCK;
                $replays->finished = 5 + $candidate;
                $done[$candidate][$block] = $replays;
            }
        }
        self::assertCount(ReplaySchedule::blocks(3), $seen);
        self::assertSame([2, 1, 0], ReplaySchedule::best(array_values($done)));
        self::assertSame([2, 1], ReplaySchedule::shown(array_values($done), 2));
        // One that was not replayed yet has no odds to show.
        self::assertSame([2, 1], ReplaySchedule::shown([[], $done[1], $done[2]], 5));
        self::assertCount(1, ReplaySchedule::shown([[], []], 5));
        self::assertGreaterThan(\count($done[0]), \count($done[2]));
    }

    /** In the middle of a stage the one that did better in as many replays comes first; a few lucky replays do not outdo many. */
    public function testTheRankingTakesAllReplaysAndTrustsFewLess(): void
    {
        $blocks = static fn (int ...$finished): array => array_map(static function (int $count): Tally {
            $replays = new Tally();
            $replays->tries = ReplaySchedule::BLOCK;
            $replays->finished = $count;

            return $replays;
        }, array_values($finished));
        self::assertSame([1, 0, 2], ReplaySchedule::best([$blocks(7, 6, 4, 3, 3), $blocks(5, 6, 7, 6, 7), $blocks(3, 2)]));
        self::assertSame([0, 1], ReplaySchedule::best([$blocks(...array_fill(0, 40, 5)), $blocks(6, 6)]));
    }

    /** What a plan states is what a rehearsal with other errors finds: 400 replays against 200, three standard errors apart at the most. */
    public function testStatedOddsAreRehearsedOdds(): void
    {
        $plan = self::planned(self::open(), 22);
        $rehearsed = PlanRehearsal::of($plan, 200, 99, true);
        $p = $plan->replays->chance();

        self::assertEqualsWithDelta(
            $p,
            $rehearsed->chance(),
            3 * \sqrt($p * (1 - $p) * (1 / 200 + 1 / max(1, $plan->replays->tries))) + 0.005,
        );
        // Without planning again it is worse or as good, never better by more than chance.
        self::assertLessThanOrEqual($rehearsed->chance() + 0.12, PlanRehearsal::of($plan, 200, 99)->chance());
    }

    /** Three random layouts for an expert: many times as often as the easiest pot at natural roll. */
    public function testItBeatsTheEasiestPotNow(): void
    {
        $errors = new ExecutionErrors(...ExecutionErrors::PRESETS['expert']);
        $mine = new Tally();
        $easy = new Tally();
        foreach ([1, 3, 4] as $seed) {
            $random = new Randomness($seed);
            $layout = Table::layout([0 => [2.4, 0.6]]);
            foreach ([2, 4, 6, 7, 9] as $i => $number) {
                $layout = $layout->with(Ball::from($number), Spot::metres(0.3 + 0.45 * $i, 0.15 + 0.95 * $random->share()));
            }
            $rack = (new Rack(Game::NineBall, $layout, player: $errors))->inHand(BallInHand::Anywhere);
            $search = new PlanSearch($rack);
            $best = $search->candidates()[0];
            $beginner = new EasiestPot($rack);
            $place = $beginner->place();
            self::assertNotNull($place);
            $player = new RackPlayer(new ShotSolver(), $rack, Order::of(Game::NineBall));
            for ($i = 0; $i < 12; ++$i) {
                $player->play($mine, $search->chooser(null), $best->layout, $i, $best->option);
                $player->play($easy, $beginner, $rack->layout->with(Ball::Cue, $place), $i);
            }
        }
        self::assertLessThan(($easy->tries - $easy->finished) / 3, $mine->tries - $mine->finished);
        self::assertGreaterThan($easy->made, $mine->made);
    }

    public function testConstraintsAreKept(): void
    {
        $free = self::planned(self::open(), 0)->legs[0]->choice;
        $other = self::planned(self::open(), 0, new PlanConstraints(forbidden: [[$free->ball, $free->pocket]]))->legs[0]->choice;
        self::assertNotSame($free->pocket, $other->pocket);

        $mine = new ShotChoice($free->ball, $free->pocket, new Stroke(Tip::fractions(0.0, 0.33), 1.37, 2.0));
        $locked = self::planned(self::open(), 0, new PlanConstraints([$mine]));
        self::assertEquals($mine, $locked->legs[0]->choice);
        self::assertContainsEquals(Reason::locked(), $locked->legs[0]->reasons);
    }

    /** A style that pays for every m/s over 1.5 plays softer, and nothing changes when no style is set. */
    public function testWeightsChangeTheChoiceOnlyWhenTheyAreSet(): void
    {
        $plain = self::planned(self::open(), 0);
        $soft = self::planned(self::open(), 0, weights: new Weights(travel: 10.0));
        $speed = static fn (Plan $plan): float => array_sum(array_map(
            static fn (Leg $leg): float => $leg->choice->stroke->speed,
            $plan->legs,
        ));
        self::assertLessThan($speed($plain) - 0.1, $speed($soft));
        self::assertEquals($plain->legs[0]->choice, self::planned(self::open(), 0, weights: new Weights())->legs[0]->choice);
    }

    /** A cue ball frozen to a rail is played with the cue raised over it, as far as it must be and no farther, and the plan says so. */
    public function testTheCueIsRaisedOverARailAndNoFarther(): void
    {
        $rack = self::open()->withBall(Ball::Cue, Spot::metres(1.3, Table::R));
        $plan = self::planned($rack, 0);
        $leg = $plan->legs[0];
        $least = CueClearance::of($rack->layout, $leg->direction, $leg->choice->stroke->tip, $rack->equipment);
        self::assertGreaterThan(2.0, $least->least);
        self::assertSame(ceil($least->least), $leg->choice->stroke->elevation);
        self::assertContainsEquals(Reason::raised($leg->choice->stroke->elevation, Rail::Right), $leg->reasons);
    }

    /** A first plan of a table full of balls comes from a few of the sets, and is whole: every leg follows from the one before. */
    public function testAFirstPlanOfManyBallsIsWhole(): void
    {
        $chance = new Chance(6);
        $layout = (new Table())->randomLayout($chance, 15, 0.0);
        foreach ([[Game::StraightPool, null], [Game::EightBall, Group::Stripes]] as [$game, $group]) {
            $rack = new Rack($game, $layout, player: new ExecutionErrors(...self::STRONG), group: $group);
            $search = new PlanSearch($rack);
            $plan = $search->first();
            self::assertNotNull($plan);
            self::assertLessThan(100_000, $search->simulated());
            self::assertGreaterThan(0, \count($plan->legs));
            self::assertTrue(Game::StraightPool !== $game || null === $plan->end, (string) $plan->end);
            foreach ($plan->legs as $i => $leg) {
                $last = $plan->legs[max(0, $i - 1)];
                // The break shot of straight pool is played into the next rack.
                // A leg begins where the one before it typically stops: with the same balls, but for the one that was shot.
                self::assertTrue(0 === $i || !$leg->before->has($last->choice->ball) || 15 === $leg->before->count() - 1);
                self::assertTrue(0 < $i || $leg->before == $rack->layout);
                self::assertTrue($leg->before->has($leg->choice->ball));
                self::assertTrue(null === $group || Ball::Eight === $leg->choice->ball || $group->has($leg->choice->ball));
            }
        }
    }

    /** Where the ball on is hidden a first plan begins with a kick, and does not wait for replays. */
    public function testAFirstPlanBeginsWithAKickWhereNothingGoesStraight(): void
    {
        $layout = Layout::empty()->with(Ball::Cue, Spot::metres(0.6, 0.635))->with(Ball::One, Spot::metres(2.47, 0.09))
            ->with(Ball::Seven, Spot::metres(0.72, 0.6))->with(
                Ball::Eight,
                Spot::metres(0.3, 0.2),
            )->with(Ball::Nine, Spot::metres(0.3, 1.0));
        $search = new PlanSearch(new Rack(Game::NineBall, $layout, player: new ExecutionErrors(...self::STRONG)));
        self::assertSame([], self::policy($search->rack)->ranked($layout));
        $plan = $search->first();
        self::assertNotNull($plan);
        self::assertSame(Ball::One, $plan->legs[0]->choice->ball);
        self::assertNotNull($plan->legs[0]->choice->direction);
        self::assertSame(0, $plan->replays->tries);
    }

    /** Where no ball of a sequence that should come next goes straight, another of it is shot where that is better than a bank or kick. */
    public function testAnotherBallOfTheSequenceIsShotWhereTheNextDoNotGo(): void
    {
        $layout = Layout::empty()->with(Ball::Cue, Spot::metres(0.6, 0.635))
            ->with(Ball::One, Spot::metres(2.3, 0.2))->with(Ball::Two, Spot::metres(2.3, 1.07))
            ->with(Ball::Three, Spot::metres(1.3, 0.45))->with(Ball::Four, Spot::metres(1.3, 0.82));
        $rack = new Rack(Game::StraightPool, $layout, player: new ExecutionErrors(...self::STRONG));
        $policy = new Policy(new ValueTable(
            PlannerTables::of($rack, Order::aboutInTurn([Ball::One, Ball::Two, Ball::Three, Ball::Four], null, [], 2)),
            new PlanConstraints(),
        ));
        self::assertSame([], $policy->options($layout, 8, 8, 1));
        $next = $policy->next($layout, 1);
        self::assertNotNull($next);
        self::assertContains($next->choice->ball, [Ball::Three, Ball::Four]);
    }

    /** The school of the exact spot judges a shot by the spot it is meant for: its value is no mean over where the ball may stop. */
    public function testTheExactSpotCountsAsMuchAsIsWished(): void
    {
        $plain = self::policy(self::open());
        $spot = self::policy(self::open(), new Weights(spot: 100.0));
        $half = self::policy(self::open(), new Weights(spot: 50.0));
        $differ = 0;
        foreach (\array_slice($plain->ranked(self::open()->layout), 0, 6) as [, $choice]) {
            $mean = $plain->tried(self::open()->layout, $choice, 20, 3)->value ?? 0.0;
            $exact = $spot->tried(self::open()->layout, $choice, 20, 3)->value ?? 0.0;
            self::assertEqualsWithDelta(0.5 * ($mean + $exact), $half->tried(self::open()->layout, $choice, 20, 3)->value ?? 0.0, 1e-9);
            $differ += abs($mean - $exact) > 1e-6 ? 1 : 0;
        }
        self::assertGreaterThan(2, $differ);
    }

    /** Where ball and pocket must be called, what drops by luck no longer counts. */
    public function testTheRulesOfTheRackAreThoseThatItIsJudgedBy(): void
    {
        $policy = self::policy(self::open());
        // The 2 goes where it goes, but another pocket is called.
        $made = $policy->tried(self::open()->layout, $policy->ranked(self::open()->layout)[0][1], 1, 1);
        self::assertNotNull($made);
        $other = Pocket::HeadRight === $made->choice->pocket ? Pocket::HeadLeft : Pocket::HeadRight;
        $called = new Option(
            new ShotChoice($made->choice->ball, $other, $made->choice->stroke, 0.0, $made->strike->direction),
            $made->aim,
            $made->strike,
            $made->value,
        );
        $goneOn = [];
        foreach ([new RuleOptions(), new RuleOptions(callsNine: true)] as $rules) {
            $replays = new Tally();
            for ($seed = 1; $seed <= 10; ++$seed) {
                (new RackPlayer($policy->values->tables->solver, self::open()->withRules($rules), $policy->values->order))->play(
                    $replays,
                    $policy,
                    self::open()->layout,
                    $seed,
                    $called,
                );
            }
            $goneOn[] = $replays->reached[2] ?? 0;
        }
        self::assertGreaterThan(4, $goneOn[0]);
        self::assertSame(0, $goneOn[1]);
    }

    public function testBallInHandIsPlacedWhereItMayLie(): void
    {
        foreach ([BallInHand::Anywhere, BallInHand::Kitchen] as $where) {
            $plan = self::planned(self::open()->inHand($where), 2);
            self::assertNotNull($plan->place);
            self::assertTrue($plan->legs[0]->before->has(Ball::Cue));
            self::assertGreaterThan(0.3, $plan->legs[0]->make);
            if (BallInHand::Kitchen === $where) {
                self::assertLessThanOrEqual(0.635 + 1e-9, $plan->place->x);
            }
        }
    }

    public function testEightBallChoosesAGroupAndLeavesTheEightToTheEnd(): void
    {
        // The stripes hang before pockets, the solids are frozen together in the middle of a rail.
        $layout = Table::layout([
            0 => [1.2, 0.6],
            9 => [2.4, 1.14],
            12 => [0.14, 0.13],
            8 => [2.3, 0.2],
            1 => [0.9, 1.24],
            2 => [0.958, 1.24],
            3 => [1.016, 1.24],
        ]);
        $plan = self::planned(new Rack(Game::EightBall, $layout, player: new ExecutionErrors(...self::STRONG), group: Group::Open), 8);

        self::assertSame(Group::Stripes, $plan->group);
        self::assertSame(Ball::Eight, $plan->legs[\count($plan->legs) - 1]->choice->ball);
        self::assertSame([9, 12], self::sorted(\array_slice($plan->legs, 0, 2)));
    }

    public function testStraightPoolLeavesTheBreakBallToTheEnd(): void
    {
        $layout = Table::layout([0 => [1.5, 0.5], 4 => [1.75, 0.85], 6 => [1.2, 0.9], 11 => [2.46, 0.3], 13 => [0.7, 0.6]]);
        $rack = new Rack(Game::StraightPool, $layout, player: new ExecutionErrors(...self::STRONG));
        self::assertSame(Ball::Four, StraightRun::breakBall($rack));
        $plan = self::planned($rack, 4);
        self::assertSame(Ball::Four, $plan->legs[\count($plan->legs) - 1]->choice->ball);
    }

    /**
     * The 2 is frozen to the 9 by the foot rail, and no pocket takes it until it has been moved: the run is planned through it all the
     * same.
     */
    public function testATroubleBallIsDealtWith(): void
    {
        $layout = Table::layout([0 => [1.0, 0.5], 1 => [1.5, 0.9], 2 => [2.511, 0.62], 9 => [2.4538, 0.62]]);
        $rack = new Rack(Game::NineBall, $layout, player: new ExecutionErrors(...self::STRONG));
        self::assertSame(Order::bit(Ball::Two), self::policy($rack)->values->tables->trouble());
        $plan = self::planned($rack, 6);

        self::assertSame(Ball::One, $plan->legs[0]->choice->ball);
        self::assertGreaterThan(0.0, $plan->replays->chance());
    }

    /** When the time is over the best plan is still written, and no other. */
    public function testPlansBesideTheBestAreWrittenWhileThereIsTime(): void
    {
        $planning = new Planning(self::open());
        $planning->step();
        $all = $planning->plans();
        $asked = 0;
        $one = $planning->plans(static function () use (&$asked): bool {
            ++$asked;

            return false;
        });
        self::assertCount(1, $one);
        self::assertEquals($all[0]->choices()[0], $one[0]->choices()[0]);
        self::assertEquals($all[0]->replays, $one[0]->replays);
        // The chances of the later legs take time, and wait: not known is not nought.
        self::assertSame([null, 0], [$one[0]->legs[1]->runOut, $one[0]->legs[1]->replays]);
        self::assertSame([], $one[0]->legs[0]->reasons);
        self::assertLessThanOrEqual(20, $asked);
    }

    public function testNothingToPlayGivesNoPlan(): void
    {
        self::assertSame([], (new Planning(new Rack(Game::NineBall, Table::layout([5 => [1.0, 0.5]]))))->plans());
    }

    public function testThatALongRunIsPoorForABeginnerIsTold(): void
    {
        $plan = self::planned(self::open()->withPlayer(new ExecutionErrors(...ExecutionErrors::PRESETS['beginner'])), 4);
        self::assertTrue($plan->isPoor());
        self::assertNotSame([], $plan->replays->endsOn());
        self::assertEqualsWithDelta(1.0, array_sum(array_column($plan->replays->endsOn(), 1)) + $plan->replays->chance(), 1e-9);
    }

    private static function policy(Rack $rack, Weights $weights = new Weights()): Policy
    {
        return new Policy(new ValueTable(PlannerTables::of($rack, Order::of($rack->game)), new PlanConstraints()), null, $weights);
    }

    private static function open(): Rack
    {
        return new Rack(
            Game::NineBall,
            Table::layout([0 => [0.9, 0.5], 2 => [1.6, 0.9], 5 => [2.1, 0.35], 7 => [1.2, 1.0], 9 => [0.5, 0.4]]),
            player: new ExecutionErrors(...self::STRONG),
        );
    }

    private static function planned(
        Rack $rack,
        int $blocks,
        PlanConstraints $constraints = new PlanConstraints(),
        Weights $weights = new Weights(),
        int $seed = 1,
        bool $isWhole = false,
    ): Plan {
        $planning = new Planning($rack, $constraints, $weights, $seed);
        for ($block = 0; $block < $blocks && $planning->step(); ++$block) {
        }
        $plan = $planning->plans(null, 1, $isWhole ? null : 0)[0] ?? null;
        self::assertNotNull($plan);

        return $plan;
    }

    /**
     * @param list<Leg> $legs
     *
     * @return list<int>
     */
    private static function sorted(array $legs): array
    {
        $numbers = array_map(static fn (Leg $leg): int => $leg->choice->ball->value, $legs);
        sort($numbers);

        return $numbers;
    }
}
