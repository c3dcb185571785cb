<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Decide;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Decide\SafeEnd;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Plan\Planning;
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
        $plan = self::plan([
            0 => [0.8255, 0.4445], 3 => [1.6510, 0.2540], 5 => [2.0002, 0.9207], 6 => [2.4540, 0.5080],
            7 => [2.5114, 0.5080], 9 => [0.4445, 0.9207],
        ]);
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

    public function testAPlanOfEasyPotsStaysAsItIs(): void
    {
        $plan = self::plan([0 => [1.9, 0.9], 8 => [2.25, 1.1], 9 => [2.3, 0.3]]);

        self::assertSame($plan, SafeEnd::of($plan, $plan->rack->player));
    }

    /** @param array<int, array{float, float}> $spots metres */
    private static function plan(array $spots): Plan
    {
        $player = new ExecutionErrors(...ExecutionErrors::PRESETS['club player']);
        [$plans] = Planning::within(new Rack(Game::NineBall, Table::layout($spots), player: $player), 2.0, 1, 6);
        self::assertNotSame([], $plans);

        return $plans[0];
    }
}
