<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Format;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\OutcomeFile;
use ZigLane\Core\Format\ShotFile;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Name\Ball;
use ZigLane\Tests\Told;

/** Untrusted files: every fault is told with its path, and nothing gets through. */
final class ShotFileTest extends TestCase
{
    public function testLeftOutFieldsAreTheDefaultTable(): void
    {
        $file = ShotFile::parse(
            '{"format": "zig-lane/shot", "version": 1, "layoutDiamonds": {"cue": [2, 2]}, "shot": {"direction": 0, "speed": 2}}',
        );

        self::assertSame(2.54, $file->equipment->table->length);
        self::assertSame(0.97, $file->equipment->balls->restitution);
        self::assertEqualsWithDelta(0.635, $file->layout->spot(Ball::Cue)->x, 1e-12);
        self::assertSame(30.0, $file->strike->endMassRatio);
    }

    public function testGivenFieldsAreTaken(): void
    {
        $file = ShotFile::parse(
            '{"format": "zig-lane/shot", "version": 1, "table": {"length": 2.2352, "roll": 0.013}, "balls": {"friction": [0.02, 0.2, 1.0], "restitution": 0.95}, "layout": {"cue": [1, 0.5], "12": [1.5, 0.5]}, "shot": {"direction": -90, "speed": 2, "side": 0.3, "height": -0.3, "elevation": 5, "endMassRatio": 45}}',
        );

        self::assertSame([2.2352, 0.013], [$file->equipment->table->length, $file->equipment->table->roll]);
        self::assertSame(
            [0.02, 0.2, 1.0, 0.95],
            [
                $file->equipment->balls->frictionFloor,
                $file->equipment->balls->frictionFall,
                $file->equipment->balls->frictionRate,
                $file->equipment->balls->restitution,
            ],
        );
        self::assertEqualsWithDelta(-\M_PI_2, $file->strike->direction, 1e-12);
        self::assertSame(45.0, $file->strike->endMassRatio);
        self::assertTrue($file->layout->has(Ball::Twelve));
    }

    /** @param list<string> $lines */
    #[DataProvider('faults')]
    public function testEveryFaultIsToldWithItsPath(string $json, array $lines): void
    {
        try {
            ShotFile::parse($json);
            self::fail('the file was let through');
        } catch (InvalidFile $e) {
            self::assertSame($lines, explode("\n", Told::of($e)));
        }
    }

    /** @return iterable<string, array{string, list<string>}> */
    public static function faults(): iterable
    {
        $file = static fn (
            string $layout,
            string $shot = '{"direction": 0, "speed": 2}',
            string $more = '',
        ): string => '{"format": "zig-lane/shot", "version": 1, "layout": '.$layout.', "shot": '.$shot.$more.'}';
        $good = '{"cue": [0.635, 0.635]}';
        yield 'no JSON' => ['{"format"', ['the file is not JSON (syntax error); a zig-lane/shot file is allowed']];
        yield 'a list' => ['[1, 2]', ['the file holds a list of 2; an object of format zig-lane/shot is allowed']];
        yield 'another format' => [
            '{"format": "zig-lane/rack", "version": 1}',
            ['format: found "zig-lane/rack"; "zig-lane/shot" is allowed'],
        ];
        yield 'another version' => ['{"format": "zig-lane/shot", "version": 2}', ['version: found 2; 1 is allowed']];
        yield 'overlap' => [$file('{"cue": [0.635, 0.635], "1": [0.68805, 0.635]}'), ['layout.1: overlaps cue by 4.1 mm']];
        yield 'off the cloth' => [$file('{"cue": [0.635, 0.635], "1": [0.5, 0.0]}'), ['layout.1: is off the cloth by 28.6 mm']];
        yield 'no cue ball' => [$file('{"1": [0.635, 0.635]}'), ['layout.cue: is missing; a shot needs the cue ball']];
        yield 'not a ball' => [
            $file('{"cue": [0.635, 0.635], "16": [1, 0.5], "eight": [1, 0.7]}'),
            ['layout.16: is not a ball; allowed: cue, 1 to 15', 'layout.eight: is not a ball; allowed: cue, 1 to 15'],
        ];
        yield 'not a spot' => [
            $file('{"cue": [0.635, "0.6"], "1": 4}'),
            ['layout.cue.1: found "0.6"; a number from -100 to 100 is allowed', 'layout.1: found 4; a list of two numbers is allowed'],
        ];
        yield 'miscue' => [
            $file($good, '{"direction": 0, "speed": 2, "side": 0.4, "height": 0.4}'),
            ['shot.side: with height the tip is 0.566 of the radius from the centre and would miscue; at most 0.5 is allowed'],
        ];
        yield 'no speed' => [$file($good, '{"direction": 0}'), ['shot.speed: is missing; a number from 0.001 to 15 is allowed']];
        yield 'many at once' => [$file($good, '{"direction": true, "speed": 99, "spin": 1}', ', "table": {"slide": 2, "felt": 1}'), [
            'table.felt: is not a known field; allowed: length, cornerMouth, sideMouth, cornerShelf, sideShelf, cornerFacing, sideFacing, noseHeight, gravity, slide, roll, spinDecay, cushionRestitution, cushionFriction, facingLength, slope, slopeDirection',
            'table.slide: found 2; a number from 0.05 to 0.5 is allowed',
            'shot.spin: is not a known field; allowed: direction, speed, side, height, elevation, endMassRatio',
            'shot.direction: found true; a number from -720 to 720 is allowed',
            'shot.speed: found 99; a number from 0.001 to 15 is allowed',
        ]];
        yield 'both layouts' => [
            $file($good, '{"direction": 0, "speed": 2}', ', "layoutDiamonds": {"cue": [2, 2]}'),
            ['layout: layout and layoutDiamonds are both given; one of them is allowed'],
        ];
        yield 'an endless number' => [$file('{"cue": [1e999, 0.6]}'), ['layout.cue.0: found INF; a number from -100 to 100 is allowed']];
        yield 'line breaks in names' => [
            $file('{"cue": [0.635, 0.635], "1\nlayout.2: fine": [1, 1]}'),
            ['layout.1?layout.2: fine: is not a ball; allowed: cue, 1 to 15'],
        ];
    }

    public function testATooLongFileIsNotRead(): void
    {
        self::assertSame(
            'the file has 101 bytes; at most 100 are read',
            Told::refusal(static fn (): ShotFile => ShotFile::parse(str_repeat(' ', 101), maxBytes: 100), InvalidFile::class),
        );
    }

    public function testTheOutcomeCarriesWhatHappened(): void
    {
        $file = ShotFile::parse(
            '{"format": "zig-lane/shot", "version": 1, "layoutDiamonds": {"cue": [4, 2], "1": [6, 2], "9": [1, 1]}, "shot": {"direction": 0, "speed": 1.5}}',
        );
        $outcome = (new EventSimulator($file->equipment))->play($file->layout, $file->strike);
        $json = json_decode(OutcomeFile::write($outcome), true);
        self::assertIsArray($json);

        self::assertSame(['format', 'version', 'duration', 'events', 'final', 'pocketed'], array_keys($json));
        self::assertIsArray($json['events']);
        self::assertSame(['t' => 0.0, 'kind' => 'strike', 'ball' => 'cue', 'at' => [1.27, 0.635]], $json['events'][0]);
        $last = end($json['events']);
        self::assertIsArray($last);
        self::assertSame($json['duration'], $last['t']);
        self::assertIsArray($json['final']);
        self::assertSame(['cue', 1, 9], array_keys($json['final']));
        self::assertStringContainsString('"pocketed": {}', OutcomeFile::write($outcome));
    }
}
