<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Format;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Plan\Leg;
use ZigLane\Core\Plan\Planning;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Tests\Table;

final class PlanFileTest extends TestCase
{
    public function testAPlanComesBackAsItWasWritten(): void
    {
        $rack = (new Rack(Game::NineBall, Table::layout([2 => [1.6, 0.9], 9 => [0.5, 0.4]]), player: new ExecutionErrors(0.035, 0.04, 0.8, 0.8)))->inHand(BallInHand::Anywhere);
        $planning = new Planning($rack);
        $planning->step();
        $plans = $planning->plans();
        self::assertNotSame([], $plans);
        $json = PlanFile::write($plans, 1.5, 1234);
        $file = PlanFile::parse($json);

        self::assertEquals($rack, $file->rack);
        self::assertNotNull($file->place);
        self::assertEqualsWithDelta($plans[0]->place->x ?? 0.0, $file->place->x, 1e-6);
        self::assertEquals(array_map(static fn (Leg $leg): ShotChoice => $leg->shot->choice, $plans[0]->legs), $file->legs);
        $document = json_decode($json, true);
        self::assertIsArray($document);
        self::assertSame([1.5, 1234], [$document['seconds'], $document['simulated']]);
        self::assertIsArray($document['legs']);
        self::assertIsArray($document['legs'][0]);
        foreach (['ball', 'pocket', 'from', 'cut', 'ghost', 'stroke', 'lengths', 'tip', 'cushions', 'landing', 'zone', 'make', 'position', 'runOut', 'risks', 'misses', 'reasons'] as $field) {
            self::assertArrayHasKey($field, $document['legs'][0]);
        }
        self::assertNotSame([], $document['legs'][0]['zone']);
        // Where the replays end that are not finished.
        self::assertSame($plans[0]->replays->chance() < 1.0, isset($document['endsOn']));
        $shares = array_column(\is_array($document['endsOn'] ?? null) ? $document['endsOn'] : [], 'share');
        self::assertLessThanOrEqual(1.0 - $plans[0]->replays->chance() + 0.002, array_sum($shares));
    }

    #[DataProvider('faults')]
    public function testEveryFaultIsTold(string $change, string $line): void
    {
        $document = ['format' => 'zig-lane/plan', 'version' => 1, 'rack' => ['format' => 'zig-lane/rack', 'version' => 1, 'game' => 'nine-ball', 'layout' => ['cue' => [1.0, 0.5], '2' => [1.6, 0.9]]], 'legs' => [['ball' => '2', 'pocket' => 'FL', 'stroke' => ['speed' => 1.5]]]];
        self::assertCount(1, PlanFile::parse(json_encode($document, \JSON_THROW_ON_ERROR))->legs);
        $changed = array_replace_recursive($document, (array) json_decode($change, true));
        if (str_contains($change, '"legs":[]')) {
            $changed['legs'] = [];
        }
        try {
            PlanFile::parse(json_encode($changed, \JSON_THROW_ON_ERROR));
            self::fail('nothing was told');
        } catch (InvalidFile $e) {
            self::assertStringContainsString($line, $e->getMessage());
        }
    }

    /** @return iterable<string, array{string, string}> */
    public static function faults(): iterable
    {
        yield 'another format' => ['{"format": "zig-lane/rack"}', 'format'];
        yield 'a rack with a fault' => ['{"rack": {"game": "snooker"}}', 'rack.game: found'];
        yield 'no legs' => ['{"legs":[]}', 'legs: found'];
        yield 'a ball that is none' => ['{"legs": [{"ball": "cue"}]}', 'legs.0.ball: found'];
        yield 'a pocket that is none' => ['{"legs": [{"pocket": "XX"}]}', 'legs.0.pocket: found'];
        yield 'a speed that is none' => ['{"legs": [{"stroke": {"speed": 99}}]}', 'legs.0.stroke.speed: found 99'];
        yield 'a miscue' => ['{"legs": [{"stroke": {"side": 0.6}}]}', 'legs.0.stroke: the tip would miscue'];
    }
}
