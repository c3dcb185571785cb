<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Format;

use Opis\JsonSchema\Validator;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Format\Fault;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\LogFile;
use ZigLane\Core\Log\RackResult;
use ZigLane\Core\Log\ShotKind;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Position\Side;

final class LogFileTest extends TestCase
{
    public function testALogIsRead(): void
    {
        $log = LogFile::parse(self::json());
        self::assertSame(0.06, $log->player->aim);
        self::assertSame('back room', $log->outings[0]->place);
        self::assertSame(RackResult::Miss, $log->outings[0]->racks[0]->end);
        [$first, $second] = $log->shots();
        self::assertSame(ShotKind::Pot, $first->kind);
        self::assertSame([Ball::Three, Pocket::FootLeft], [$first->ball, $first->pocket]);
        self::assertSame('2026-11-20T19:31:05', $first->at?->format('Y-m-d\TH:i:s'));
        self::assertEqualsWithDelta(11.2, rad2deg($first->meant->direction ?? 0.0), 1e-9);
        self::assertSame([0.87, 0.7, null], [$first->make, $first->position, $first->guess]);
        self::assertTrue($first->result->isMade);
        // Spots are diamonds of the outing's table.
        self::assertEqualsWithDelta(2.0 * 2.54 / 8, $first->before->spot(Ball::Cue)->x, 1e-9);
        self::assertEqualsWithDelta(5.2 * 2.54 / 8, $first->result->after->spot(Ball::Cue)->x, 1e-9);
        self::assertSame([false, Side::Left, true, Pocket::SideLeft], [
            $second->result->isMade, $second->result->missed, $second->result->scratch, $second->result->in,
        ]);
        self::assertNull($second->meant);
        self::assertSame(0.08, $second->result->measured);
    }

    public function testWhatIsWrittenIsReadBack(): void
    {
        $log = LogFile::parse(self::json());
        $again = LogFile::parse(LogFile::write($log));
        self::assertEquals($log->player, $again->player);
        self::assertCount(\count($log->shots()), $again->shots());
        foreach ($log->shots() as $i => $shot) {
            self::assertEqualsWithDelta(LogFile::shotArray($shot), LogFile::shotArray($again->shots()[$i]), 2e-6);
        }
        $rack = $log->outings[0]->racks[0];
        self::assertSame([$rack->id, $rack->game, $rack->kind, $rack->end], [
            $again->outings[0]->racks[0]->id, $again->outings[0]->racks[0]->game, $again->outings[0]->racks[0]->kind,
            $again->outings[0]->racks[0]->end,
        ]);
        // And once more to the same bytes.
        self::assertSame(LogFile::write($again), LogFile::write(LogFile::parse(LogFile::write($again))));
    }

    /** docs/schema/log.schema.json says what we read and what we write; checked by a validator of JSON Schema (opis/json-schema). */
    public function testTheSchemaIsThatOfTheFiles(): void
    {
        $schema = (string) file_get_contents(\dirname(__DIR__, 3).'/docs/schema/log.schema.json');
        $validator = new Validator();
        $demo = (string) file_get_contents(\dirname(__DIR__, 3).'/demo/player.log.json');
        foreach ([self::json(), LogFile::write(LogFile::parse(self::json())), $demo] as $json) {
            $result = $validator->validate(json_decode($json), $schema);
            self::assertTrue($result->isValid(), (string) $result->error());
        }
        // And what we refuse it refuses.
        foreach (self::faults() as $name => [$from, $to]) {
            if ('a ball that is none' !== $name) {
                self::assertFalse($validator->validate(json_decode(str_replace($from, $to, self::json())), $schema)->isValid(), $name);
            }
        }
    }

    #[DataProvider('faults')]
    public function testEveryFaultIsToldByItsPlace(string $from, string $to, string $path, string $kind): void
    {
        try {
            LogFile::parse(str_replace($from, $to, self::json()));
            self::fail('The log was read.');
        } catch (InvalidFile $e) {
            self::assertSame(
                [$path.' file.'.$kind],
                array_map(static fn (Fault $fault): string => $fault->path.' '.$fault->fact->kind, $e->faults),
            );
        }
    }

    /** @return iterable<string, array{string, string, string, string}> */
    public static function faults(): iterable
    {
        $shot = 'outings.0.racks.0.shots.0';
        yield 'a kind that is none' => ['05Z", "kind": "pot"', '05Z", "kind": "jump"', "$shot.kind", 'choice'];
        yield 'a ball that is none' => ['"ball": "3"', '"ball": "16"', "$shot.called.ball", 'notABall'];
        yield 'a chance of more than one' => ['"make": 0.87', '"make": 87', "$shot.meant.make", 'number'];
        yield 'a clock that is wrong' => ['2026-11-20T19:31:05Z', 'half past seven', "$shot.at", 'time'];
        yield 'made or not' => ['"made": true', '"made": "yes"', "$shot.result.made", 'boolean'];
        yield 'outings that are no list' => ['"outings": [', '"outings": 7, "was": [', 'outings', 'list'];
    }

    private static function json(): string
    {
        return <<<'JSON'
            {
              "format": "zig-lane/log", "version": 1,
              "player": {"aim": 0.06, "speed": 0.06, "tipSide": 1.5, "tipHeight": 1.5},
              "outings": [{
                "id": "o1", "date": "2026-11-20", "place": "back room", "notes": "", "table": {}, "balls": {}, "cue": {"endMassRatio": 30},
                "racks": [{
                  "id": "r1", "game": "nine-ball", "kind": "practice", "start": {"cue": [2.0, 1.5], "3": [5.1, 0.9], "9": [4.4, 2.7]},
                  "ballInHand": "none", "end": "miss",
                  "shots": [{
                    "id": "s1", "at": "2026-11-20T19:31:05Z", "kind": "pot",
                    "before": {"cue": [2.0, 1.5], "3": [5.1, 0.9], "9": [4.4, 2.7]},
                    "called": {"ball": "3", "pocket": "FL"},
                    "meant": {"stroke": {"direction": 11.2, "speed": 1.9, "side": 0.17, "height": 0.2, "elevation": 2.0},
                              "landing": [5.1, 2.6], "make": 0.87, "position": 0.7, "runOut": 0.4, "guess": null},
                    "result": {"made": true, "missed": null, "scratch": null, "foul": false, "miscue": false, "position": true,
                               "after": {"cue": [5.2, 2.4], "9": [4.4, 2.7]}, "measured": 0.08}
                  }, {
                    "id": "s2", "at": null, "kind": "pot", "before": {"cue": [5.2, 2.4], "9": [4.4, 2.7]},
                    "called": {"ball": "9", "pocket": "SL"}, "meant": null,
                    "result": {"made": false, "missed": "left", "scratch": "SL", "foul": true, "after": {"9": [4.1, 3.9]}}
                  }]
                }]
              }]
            }
            JSON;
    }
}
