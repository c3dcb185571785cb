<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Format;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Plan\Leg;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Plan\Planning;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\LegChain;
use ZigLane\Core\Table\Spot;
use ZigLane\Tests\Table;

final class PlanFileTest extends TestCase
{
    /**
     * Everything that is written is read: legs with odds, lane, risks, zone, reasons and misses, the tally, and the plans beside the best.
     */
    public function testAPlanComesBackAsItWasWritten(): void
    {
        $rack = (new Rack(
            Game::NineBall,
            Table::layout([2 => [1.6, 0.9], 9 => [0.5, 0.4]]),
            player: new ExecutionErrors(0.035, 0.04, 0.8, 0.8),
        ))->inHand(BallInHand::Anywhere);
        $planning = new Planning($rack);
        for ($block = 0; $block < 4; ++$block) {
            $planning->step();
        }
        $plans = $planning->plans();
        self::assertGreaterThan(1, \count($plans));
        \assert([] !== $plans);
        $json = (new PlanFile($plans, 1.5, 1234))->write();
        $file = PlanFile::parse($json);

        self::assertSame([1.5, 1234], [$file->seconds, $file->simulated]);
        self::assertCount(\count($plans), $file->plans);
        foreach ($plans as $i => $plan) {
            self::assertPlans($plan, $file->plans[$i]);
        }
        // Read and written again it is the same file, to the last digit.
        self::assertSame($json, $file->write());
    }

    private static function assertPlans(Plan $plan, Plan $read): void
    {
        self::assertEquals(
            [$plan->rack, $plan->group, $plan->replays, $plan->end],
            [$read->rack, $read->group, $read->replays, $read->end],
        );
        self::assertEquals($plan->differs?->kind, $read->differs?->kind);
        self::assertNear($plan->place, $read->place);
        self::assertCount(\count($plan->legs), $read->legs);
        foreach ($plan->legs as $i => $leg) {
            self::assertLegs($leg, $read->legs[$i]);
        }
    }

    private static function assertLegs(Leg $leg, Leg $read): void
    {
        self::assertEquals([$leg->number, $leg->choice], [$read->number, $read->choice]);
        foreach ($leg->before->balls() as $ball) {
            self::assertNear($leg->before->spot($ball), $read->before->spot($ball));
        }
        self::assertNear($leg->landing, $read->landing);
        self::assertNear($leg->ghost, $read->ghost);
        self::assertEqualsWithDelta(
            [$leg->direction, $leg->cut, $leg->make, $leg->position, $leg->runOut],
            [$read->direction, $read->cut, $read->make, $read->position, $read->runOut],
            0.006,
        );
        self::assertEqualsWithDelta($leg->risks->toArray(), $read->risks->toArray(), 1e-4);
        self::assertSame([$leg->misses?->count, $leg->misses?->fouls], [$read->misses?->count, $read->misses?->fouls]);
        self::assertSame(
            array_map(static fn ($point): string => $point->rail->value, $leg->cushions),
            array_map(static fn ($point): string => $point->rail->value, $read->cushions),
        );
        self::assertSame(
            array_map(static fn ($level): array => [$level->least, \count($level->rings)], $leg->zone),
            array_map(static fn ($level): array => [$level->least, \count($level->rings)], $read->zone),
        );
        self::assertSame(null === $leg->lane, null === $read->lane);
        if (null !== $leg->lane && null !== $read->lane) {
            self::assertEqualsWithDelta(
                [$leg->lane->slower, $leg->lane->harder, $leg->lane->length()],
                [$read->lane->slower, $read->lane->harder, $read->lane->length()],
                0.002,
            );
            self::assertSame([$leg->lane->short?->kind, $leg->lane->long?->kind], [$read->lane->short?->kind, $read->lane->long?->kind]);
        }
        self::assertSame(
            array_map(static fn (Fact $reason): string => $reason->kind, $leg->reasons),
            array_map(static fn (Fact $reason): string => $reason->kind, $read->reasons),
        );
    }

    private static function assertNear(?Spot $one, ?Spot $other): void
    {
        self::assertSame(null === $one, null === $other);
        self::assertLessThan(2e-6, null === $one || null === $other ? 0.0 : $one->distanceTo($other));
    }

    /**
     * A file of version 1, as it was written until November 2026: its legs begin where the ones before them end, and its reasons are
     * sentences.
     */
    public function testVersionOneIsStillRead(): void
    {
        $json = (string) file_get_contents(__DIR__.'/two-legs.v1.plan.json');
        $plan = PlanFile::parse($json)->best();

        self::assertSame(['5', '9'], array_map(static fn (Leg $leg): string => $leg->choice->ball->label(), $plan->legs));
        self::assertEquals(LegChain::play($plan->placed(), $plan->choices())->before(2)->layout, $plan->legs[1]->before);
        self::assertSame([40, 0.85], [$plan->replays->tries, $plan->replays->chance()]);
        self::assertSame([0.97, 0.91, 0.85], [$plan->legs[0]->make, $plan->legs[0]->position, $plan->legs[0]->runOut]);
        self::assertEquals(
            [new Fact('reason.told', ['text' => 'comes into the line of the 9, room for 24 % softer and 31 % harder'])],
            $plan->legs[0]->reasons,
        );
        self::assertSame(2, $plan->legs[0]->misses?->fouls);
    }

    /** Only what is needed to play it: ball, pocket and stroke; the aim is found, and no odds are made up. */
    public function testAFileMayHoldStrokesOnly(): void
    {
        $plan = PlanFile::parse(json_encode(self::small(), \JSON_THROW_ON_ERROR))->best();
        self::assertEquals(
            [Ball::Two, Pocket::FootLeft, null, null],
            [$plan->legs[0]->choice->ball, $plan->legs[0]->choice->pocket, $plan->legs[0]->make, $plan->legs[0]->runOut],
        );
        self::assertGreaterThan(1.0, $plan->legs[0]->cut);
        self::assertSame(0, $plan->replays->tries);
    }

    #[DataProvider('faults')]
    public function testEveryFaultIsTold(string $change, string $place, string $kind): void
    {
        $changed = array_replace_recursive(self::small(), (array) json_decode($change, true));
        if (str_contains($change, '"legs":[]')) {
            $changed['legs'] = [];
        }
        try {
            PlanFile::parse(json_encode($changed, \JSON_THROW_ON_ERROR));
            self::fail('nothing was told');
        } catch (InvalidFile $e) {
            self::assertSame([$place, $kind], [$e->faults[0]->path, $e->faults[0]->fact->kind]);
        }
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function faults(): iterable
    {
        yield 'another format' => ['{"format": "zig-lane/rack"}', 'format', 'file.format'];
        yield 'a version to come' => ['{"version": 3}', 'version', 'file.version'];
        yield 'a rack with a fault' => ['{"rack": {"game": "snooker"}}', 'rack.game', 'file.choice'];
        yield 'no legs' => ['{"legs":[]}', 'legs', 'file.legs'];
        yield 'a ball that is none' => ['{"legs": [{"ball": "cue"}]}', 'legs.0.ball', 'file.objectBall'];
        yield 'a pocket that is none' => ['{"legs": [{"pocket": "XX"}]}', 'legs.0.pocket', 'file.choice'];
        yield 'a speed that is none' => ['{"legs": [{"stroke": {"speed": 99}}]}', 'legs.0.stroke.speed', 'file.number'];
        yield 'a miscue' => ['{"legs": [{"stroke": {"side": 0.6}}]}', 'legs.0.stroke', 'stroke.miscue'];
        yield 'balls that overlap before a leg' => [
            '{"legs": [{"before": {"cue": [1.0, 0.5], "2": [1.01, 0.5]}}]}',
            'legs.0.before.2',
            'layout.overlap',
        ];
        yield 'a layout before a leg that is none' => ['{"legs": [{"before": {"cue": "here"}}]}', 'legs.0.before.cue', 'file.twoNumbers'];
        yield 'a leg that cannot be played' => ['{"legs": [{"ball": "7"}]}', 'legs', 'layout.notOnTheTable'];
    }

    /** @return array<string, mixed> */
    private static function small(): array
    {
        return [
            'format' => 'zig-lane/plan',
            'version' => 1,
            'rack' => [
                'format' => 'zig-lane/rack',
                'version' => 1,
                'game' => 'nine-ball',
                'layout' => ['cue' => [1.0, 0.5], '2' => [1.6, 0.9]],
            ],
            'legs' => [['ball' => '2', 'pocket' => 'FL', 'stroke' => ['speed' => 1.5]]],
        ];
    }
}
