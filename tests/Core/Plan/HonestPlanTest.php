<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Plan;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Plan\Internal\Plainness;
use ZigLane\Core\Plan\Internal\Typical;
use ZigLane\Core\Plan\Option;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Plan\Planning;
use ZigLane\Core\Plan\ReplaySchedule;
use ZigLane\Core\Plan\Tally;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Miscue;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Referee;
use ZigLane\Core\Rules\Turn;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Tests\Table;

/** What a plan states is what a player would get: no luck of the chosen, no leg from where only a perfect shot leads. */
final class HonestPlanTest extends TestCase
{
    private static ?Plan $plan = null;

    public function testBlocksThatChooseHaveNoPartInTheStatedOdds(): void
    {
        $replays = static function (int $finished): Tally {
            $tally = new Tally();
            $tally->tries = ReplaySchedule::BLOCK;
            $tally->finished = $finished;

            return $tally;
        };
        $blocks = [];
        for ($block = 0; $block < 20; ++$block) {
            $blocks[$block] = $replays(ReplaySchedule::chooses($block) ? 9 : 4);
        }
        // The lucky ones chose; what is stated are the others.
        self::assertEqualsWithDelta(0.4, ReplaySchedule::stated($blocks)->chance(), 1e-12);
        self::assertFalse(ReplaySchedule::chooses(0));
        // A block that chooses may be the first to be done: there is nothing to be told yet.
        // Its odds are told once a hundred replays that chose nothing have been played, and not sooner.
        $owed = ReplaySchedule::owed([[], [0 => $replays(4), 1 => $replays(9)]]);
        self::assertCount(9, $owed);
        self::assertSame([[1, 2], [1, 4], [1, 6], [1, 8], [1, 10], [1, 12], [1, 14], [1, 16], [1, 17]], $owed);
        self::assertSame([], ReplaySchedule::owed([array_fill(0, 22, $replays(5))]));
        self::assertFalse(ReplaySchedule::chooses(40));
    }

    public function testOfWaysThatReplaysCannotTellApartThePlainestComesFirst(): void
    {
        $blocks = static function (int $finished, int $last): array {
            $done = [];
            for ($block = 0; $block < 6; ++$block) {
                $done[$block] = new Tally();
                $done[$block]->tries = ReplaySchedule::BLOCK;
                $done[$block]->finished = 5 === $block ? $last : $finished;
            }

            return $done;
        };
        self::assertSame([0, 1], ReplaySchedule::best([$blocks(7, 7), $blocks(7, 6)], [0.03, 0.03]));
        self::assertSame([1, 0], ReplaySchedule::best([$blocks(7, 7), $blocks(7, 6)], [0.03, 0.01]));
        // A real difference is not given away.
        self::assertSame([0, 1], ReplaySchedule::best([$blocks(8, 8), $blocks(4, 4)], [0.03, 0.01]));
        // Nor one of ten points, however few replays there are to tell.
        self::assertSame([0, 1], ReplaySchedule::best([$blocks(7, 7), $blocks(6, 6)], [0.03, 0.01]));
        // And its are the replays of the last stage, which are stated.
        $done = [[], []];
        foreach ($done as $candidate => $none) {
            for ($block = 0; $block < 16; ++$block) {
                $done[$candidate][$block] = $blocks(7, 7)[0];
            }
        }
        self::assertSame(1, ReplaySchedule::due($done, [0.03, 0.01])[0][0]);
        self::assertSame(0, ReplaySchedule::due($done)[0][0]);
    }

    public function testFewerCushionsThenLessSpeedThenLessSideAtEqualWorth(): void
    {
        $soft = Plainness::of(new Stroke(Tip::fractions(0.0, 0.2), 1.5), 1);
        self::assertLessThan(Plainness::of(new Stroke(Tip::fractions(0.0, 0.2), 1.5), 3), $soft);
        self::assertLessThan(Plainness::of(new Stroke(Tip::fractions(0.0, 0.2), 4.5), 1), $soft);
        self::assertLessThan(Plainness::of(new Stroke(Tip::fractions(0.3, 0.2), 1.5), 1), $soft);
        self::assertLessThan(Plainness::of(new Stroke(Tip::fractions(0.0, -0.4), 1.5), 1), $soft);
        // It never outweighs odds: the whole range is a few points.
        self::assertLessThan(0.12, Plainness::of(new Stroke(Tip::fractions(0.3, -0.3), 5.0), 4));
    }

    public function testAClusterIsBrokenSoftlyAndTheLegSaysSo(): void
    {
        $rack = new Rack(
            Game::EightBall,
            Table::layout(array_map(static fn (array $spot): array => [0.3175 * $spot[0], 0.3175 * $spot[1]], [
                0 => [6.4, 2.0], 1 => [7.2, 0.5], 2 => [6.5, 0.35], 9 => [6.32, 0.32], 10 => [6.68, 0.3], 3 => [4.4, 3.4], 8 => [2.2, 0.6],
            ])),
            player: new ExecutionErrors(...ExecutionErrors::PRESETS['strong player']),
            group: Group::Solids,
        );
        $planning = new Planning($rack);
        for ($block = 0; $block < 4; ++$block) {
            $planning->step();
        }
        $leg = $planning->plans(null, 1, 0)[0]->legs[0];
        self::assertSame(Ball::One, $leg->choice->ball);
        self::assertLessThan(2.8, $leg->choice->stroke->speed);
        self::assertGreaterThan(0.95, $leg->make);
        $told = array_filter(
            $leg->reasons,
            static fn (Fact $reason): bool => \in_array($reason->kind, ['reason.frees', 'reason.moves'], true),
        );
        self::assertSame(['2'], array_values(array_map(static fn (Fact $reason): mixed => $reason->toArray()['other'] ?? null, $told)));
    }

    /** A straight 7, 8 and 9 in the open: nobody plays four cushions or five metres a second for that. */
    public function testAnEasyTableIsPlayedPlainly(): void
    {
        foreach (self::plan()->legs as $leg) {
            self::assertLessThan(2.6, $leg->choice->stroke->speed, 'leg '.$leg->number);
            self::assertLessThan(3, \count($leg->cushions), 'leg '.$leg->number);
        }
    }

    public function testALaterLegBeginsWhereTheOneBeforeTypicallyStops(): void
    {
        $plan = self::plan();
        $solver = new ShotSolver();
        $leg = $plan->legs[0];
        $shot = $solver->solve($leg->before, $leg->choice);
        $landings = Trials::of($shot, $solver, $plan->rack->player, 200, 9)->landings;
        $here = $plan->legs[1]->before->spot(Ball::Cue);
        $far = static fn (\ZigLane\Core\Table\Spot $from): float => array_sum(
            array_map(static fn (\ZigLane\Core\Table\Spot $spot): float => $spot->distanceTo($from), $landings),
        ) / \count($landings);
        // No farther from other tries, on the average, than these mostly are from each other.
        $each = array_map($far, \array_slice($landings, 0, 60));
        sort($each);
        self::assertLessThan($each[20], $far($here));
        // The chance of its pot and of the run from there fit together.
        self::assertGreaterThan(0, $plan->legs[1]->replays);
        self::assertLessThanOrEqual(min(1.0, ($plan->legs[1]->make ?? 0.0) + 0.12), $plan->legs[1]->runOut);
    }

    public function testTheMedoidIsTakenOfThoseThatGoOn(): void
    {
        $layout = Table::layout([0 => [1.2, 0.6], 9 => [2.3, 1.1]]);
        $rack = new Rack(Game::NineBall, $layout);
        $solver = new ShotSolver();
        $shot = $solver->solve($layout, new ShotChoice(Ball::Nine, Pocket::FootLeft, new Stroke(Tip::fractions(0.0, 0.2), 1.5)));
        $typical = Typical::of($shot, $solver, $rack->player, Referee::of($rack), Turn::first($rack), 40, 1);
        self::assertNotNull($typical);
        self::assertTrue($typical->verdict->isWon);
        self::assertFalse($typical->layout->has(Ball::Nine));
    }

    /** The pot and the chance to go on are two numbers: a ten that drops early as an uncalled ball is no end of a turn that goes on. */
    public function testTheChanceToGoOnStandsBesideThePot(): void
    {
        foreach (self::plan()->legs as $leg) {
            self::assertNotNull($leg->goOn);
            self::assertLessThanOrEqual($leg->make + 0.03, $leg->goOn);
        }
    }

    /** With 20 tries a miscue of one in a hundred is mostly not seen; the computed chance is told all the same. */
    public function testTheMiscueIsComputed(): void
    {
        $layout = Table::layout([0 => [1.2, 0.6], 9 => [2.3, 1.1]]);
        $player = new ExecutionErrors(0.05, 0.05, 1.5, 1.5);
        $solver = new ShotSolver();
        $shot = $solver->solve($layout, new ShotChoice(Ball::Nine, Pocket::FootLeft, new Stroke(Tip::fractions(0.0, 0.42), 1.5)));
        $trials = Trials::of($shot, $solver, $player, 20);
        self::assertEqualsWithDelta(Miscue::chance($shot->strike, $player->in($shot->strike), Table::R), $trials->miscue, 0.01);
        self::assertGreaterThan(0.0, $trials->miscue);
        self::assertLessThanOrEqual(1 - $trials->miscue + 1e-12, $trials->chance());
    }

    /** A plan that was not rehearsed says so: null, with the reason, never missing. */
    public function testTheChanceIsNeverMissingFromAFile(): void
    {
        $plan = (new Planning(self::rack()))->search->first();
        self::assertNotNull($plan);
        $file = json_decode((new PlanFile([$plan]))->write(), true);
        self::assertIsArray($file);
        self::assertArrayHasKey('runOut', $file);
        self::assertNull($file['runOut']);
        self::assertSame(['kind' => 'run.notReplayed'], $file['noRunOut']);
        self::assertIsArray($file['legs']);
        foreach ($file['legs'] as $leg) {
            self::assertIsArray($leg);
            self::assertArrayHasKey('runOut', $leg);
        }
    }

    /** A kick that is aimed by hand has no cut and no ghost ball. */
    public function testALegAimedByHandHasNoCut(): void
    {
        $layout = Layout::empty()->with(Ball::Cue, \ZigLane\Core\Table\Spot::metres(0.6, 0.635))
            ->with(Ball::Nine, \ZigLane\Core\Table\Spot::metres(2.47, 0.09))
            ->with(Ball::Seven, \ZigLane\Core\Table\Spot::metres(0.3, 1.0));
        $choice = new ShotChoice(Ball::Nine, Pocket::FootRight, new Stroke(Tip::fractions(0.0, 0.2), 1.8), 0.0, 0.4);
        $plan = PlanFile::parse(json_encode([
            'format' => 'zig-lane/plan', 'version' => 2,
            'rack' => json_decode((new \ZigLane\Core\Format\RackFile(new Rack(Game::NineBall, $layout)))->write(), true),
            'legs' => [[
                'ball' => '9', 'pocket' => 'FR', 'byHand' => true,
                'stroke' => ['direction' => rad2deg(0.4), 'speed' => 1.8, 'side' => 0.0, 'height' => 0.2, 'elevation' => 2.0],
            ]],
        ], \JSON_THROW_ON_ERROR))->best();
        self::assertNotNull($choice->direction);
        self::assertNull($plan->legs[0]->cut);
        self::assertNull($plan->legs[0]->ghost);
    }

    public function testOptionsOfEqualWorthAreRankedByHowPlainTheyAre(): void
    {
        $solver = new ShotSolver();
        $layout = Table::layout([0 => [1.2, 0.6], 9 => [2.3, 1.1]]);
        $shot = $solver->aimed($layout, new ShotChoice(Ball::Nine, Pocket::FootLeft, new Stroke(Tip::fractions(0.0, 0.2), 1.5)));
        [$plain, $fussy, $better] = [Option::of($shot, 0.8, 0.01), Option::of($shot, 0.8, 0.03), Option::of($shot, 0.9, 0.05)];
        self::assertSame([$better, $plain, $fussy], Option::ranked([$fussy, $plain, $better]));
    }

    private static function plan(): Plan
    {
        if (null === self::$plan) {
            $planning = new Planning(self::rack());
            for ($block = 0; $block < 16; ++$block) {
                $planning->step();
            }
            self::$plan = $planning->plans(null, 1, 10)[0] ?? null;
            self::assertNotNull(self::$plan);
        }

        return self::$plan;
    }

    private static function rack(): Rack
    {
        return new Rack(
            Game::NineBall,
            Table::layout([0 => [1.1, 0.5], 7 => [1.7, 0.85], 8 => [2.1, 0.4], 9 => [1.5, 1.0]]),
            player: new ExecutionErrors(...ExecutionErrors::PRESETS['strong player']),
        );
    }
}
