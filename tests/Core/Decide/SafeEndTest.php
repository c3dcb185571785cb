<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Decide;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Decide\SafeEnd;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Plan\Planning;
use ZigLane\Core\Plan\PlanRehearsal;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Tests\Table;

/** A plan that ends with a safety. */
final class SafeEndTest extends TestCase
{
    /** The 7 lies behind the 6: the balls before them are made, then play safe. */
    public function testAPlanEndsWithASafetyWhereTheNextPotIsWorthLess(): void
    {
        // Written by the planner in six blocks of replays with seed 1: a search by the clock finds other plans on a slower machine.
        $plan = PlanFile::parse((string) file_get_contents(__DIR__.'/seven-behind-the-six.plan.json'))->plans[0];
        $safe = SafeEnd::of($plan, $plan->rack->player);
        $last = $safe->legs[\count($safe->legs) - 1];

        self::assertGreaterThan(1, \count($safe->legs));
        self::assertTrue($last->choice->isSafety);
        self::assertSame('decide.thenSafe', $safe->end?->kind);
        self::assertNull($last->make);
        self::assertSame($plan->replays, $safe->replays);
        self::assertEquals($safe->legs[0], $plan->legs[0]);
        $written = (new PlanFile([$safe]))->write();
        self::assertSame($written, (new PlanFile(PlanFile::parse($written)->plans))->write());
    }

    /** Rehearsed as it stands, the run ends where it plays safe, and that is counted by itself. */
    public function testARehearsalEndsWhereThePlanPlaysSafe(): void
    {
        $plan = PlanFile::parse((string) file_get_contents(__DIR__.'/seven-behind-the-six.plan.json'))->plans[0];
        $safe = SafeEnd::of($plan, $plan->rack->player);
        $tally = PlanRehearsal::of($safe, 100);

        self::assertSame(100, $tally->tries);
        self::assertGreaterThan(25, $tally->ended['safety']);
        self::assertSame(100 - $tally->finished, array_sum($tally->ended));
        self::assertGreaterThanOrEqual(0, $tally->ended['noShot']);
    }

    public function testAPlanOfEasyPotsStaysAsItIs(): void
    {
        $rack = new Rack(
            Game::NineBall,
            Table::layout([0 => [1.9, 0.9], 8 => [2.25, 1.1], 9 => [2.3, 0.3]]),
            player: new ExecutionErrors(...ExecutionErrors::PRESETS['club player']),
        );
        $planning = new Planning($rack);
        for ($block = 0; $block < 6; ++$block) {
            $planning->step();
        }
        $plan = $planning->plans(most: 1)[0];

        self::assertSame($plan, SafeEnd::of($plan, $rack->player));
    }
}
