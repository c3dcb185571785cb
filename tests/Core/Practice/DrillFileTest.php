<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Practice;

use Opis\JsonSchema\Validator;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Format\DrillFile;
use ZigLane\Core\Format\Fault;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\IllegalLayout;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Practice\SetUp;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\TableProfile;

final class DrillFileTest extends TestCase
{
    private const STRAIGHT = [
        'format' => 'zig-lane/drill', 'version' => 1, 'name' => 'Straight', 'skill' => 'pot', 'task' => 'pot', 'ball' => '1', 'pocket' => 'FL',
        'places' => ['cue' => [4, 2], '1' => [6, 3]], 'tries' => 10, 'pass' => 7,
    ];

    public function testADrillIsReadAndWrittenAsItWas(): void
    {
        $file = self::file(['levels' => [['name' => 'nearer', 'edits' => ['places' => ['cue' => [5, 2.5]], 'pass' => 9]]]]);

        self::assertSame([[4.0, 2.0]], $file->drill->places[0]->spots);
        self::assertSame(10.0, $file->drill->most());
        self::assertSame([[5.0, 2.5]], $file->at(1)->places[0]->spots);
        self::assertSame([[6.0, 3.0]], $file->at(1)->places[1]->spots);
        self::assertSame(9.0, $file->at(1)->pass);
        self::assertSame(7.0, $file->at(9)->pass, 'a level that is not there');
        self::assertSame($file->hash(), DrillFile::parse($file->write())->hash());
        self::assertNotSame($file->hash(), self::file(['pass' => 8])->hash());
    }

    /** A null in the edits of a level takes a part of the drill away (RFC 7386). */
    public function testALevelTakesBallsAway(): void
    {
        $file = self::file([
            'places' => ['cue' => [4, 2], '1' => [6, 3], '2' => [2, 2]],
            'levels' => [['name' => 'alone', 'edits' => ['places' => ['2' => null]]]],
        ]);

        self::assertSame([0, 1, 2], array_keys($file->drill->places));
        self::assertSame([0, 1], array_keys($file->at(1)->places));
    }

    /** @return iterable<string, array{array<string, mixed>, string, string}> changes, path and kind of the fault */
    public static function faults(): iterable
    {
        yield 'overlapping balls' => [['places' => ['cue' => [4, 2], '1' => [4.1, 2]]], 'places.1', 'layout.overlap'];
        yield 'a ball that has no place' => [['ball' => '3'], 'ball', 'file.notPlaced'];
        yield 'a target off the table' => [
            ['targets' => [['kind' => 'area', 'area' => ['box' => [8.2, 0, 8.9, 4]]]]], 'targets.0.area', 'file.areaOffTable',
        ];
        yield 'a target of no shape' => [['targets' => [['kind' => 'area', 'area' => ['moon' => 1]]]], 'targets.0.area', 'file.area'];
        yield 'a mark that cannot be reached' => [['pass' => 11], 'pass', 'file.passTooHigh'];
        yield 'an unknown field' => [['colour' => 'red'], 'colour', 'file.unknownField'];
        yield 'a task that there is not' => [['task' => 'juggle'], 'task', 'file.choice'];
        yield 'too many tries' => [['tries' => 1000], 'tries', 'file.number'];
        yield 'a level at fault' => [
            ['levels' => [['name' => 'off', 'edits' => ['places' => ['cue' => [6, 3]]]]]], 'levels.0.edits.places.1', 'layout.overlap',
        ];
        yield 'a cue ball that leaves the table' => [['moves' => ['by' => [1, 0], 'steps' => 9]], 'moves.steps', 'file.movesOff'];
        yield 'no ball to shoot at' => [['places' => ['cue' => [4, 2]], 'ball' => null], 'places', 'file.noObjectBall'];
        yield 'a tip past the ball' => [['stroke' => ['side' => 0.45, 'height' => 0.45]], 'stroke.side', 'stroke.miscue'];
    }

    /** @param array<string, mixed> $changes */
    #[DataProvider('faults')]
    public function testAFaultIsToldAtItsPlace(array $changes, string $path, string $kind): void
    {
        try {
            self::file($changes);
            self::fail('This drill was read.');
        } catch (InvalidFile $e) {
            $told = array_map(static fn (Fault $fault): string => $fault->path.' '.$fault->fact->kind, $e->faults);
            self::assertContains($path.' '.$kind, $told);
        }
    }

    public function testAFileOfAMegabyteIsRefused(): void
    {
        $this->expectException(InvalidFile::class);
        DrillFile::parse(json_encode(self::STRAIGHT + ['text' => str_repeat('x', 1 << 20)], \JSON_THROW_ON_ERROR));
    }

    public function testWhatIsDrawnHangsOnTheSeedAloneAndLiesWhereItMay(): void
    {
        $drill = self::file(['places' => ['cue' => ['in' => ['box' => [1, 1, 2, 3]]], '1' => ['from' => [[6, 3], [5, 1]]]]])->drill;
        $setUp = new SetUp($drill, new Equipment());
        $spots = static fn (Layout $layout): array => [
            $layout->spot(Ball::Cue)->inDiamonds((new Equipment())->table), $layout->spot(Ball::One)->inDiamonds((new Equipment())->table),
        ];
        $ones = [];
        for ($seed = 1; $seed <= 40; ++$seed) {
            [[$long, $short], $one] = $spots($setUp->of($seed));
            self::assertEquals($setUp->of($seed), $setUp->of($seed));
            self::assertTrue($long >= 1.0 && $long <= 2.0 && $short >= 1.0 && $short <= 3.0);
            $ones[\sprintf('%.0f', $one[0])] = true;
        }
        self::assertEqualsCanonicalizing([5, 6], array_keys($ones));
    }

    public function testBallsThatCannotBeDrawnApartAreRefused(): void
    {
        $drill = self::file(['places' => ['cue' => ['in' => ['box' => [4, 2, 4.01, 2.01]]], '1' => [4.1, 2]]])->drill;

        $this->expectException(IllegalLayout::class);
        (new SetUp($drill, new Equipment()))->of(1);
    }

    /** Diamonds grow with the table, and what lies on the rail is frozen there on any. */
    public function testADrillScalesWithTheTable(): void
    {
        $drill = self::file(['places' => ['cue' => [4, 2], '1' => [6, 4]]])->drill;
        foreach ([2.54, 1.9812] as $length) {
            $equipment = new Equipment(new TableProfile(length: $length));
            $layout = (new SetUp($drill, $equipment))->of(1);
            self::assertEqualsWithDelta(0.5 * $length, $layout->spot(Ball::Cue)->x, 1e-9);
            self::assertEqualsWithDelta(0.5 * $length - $equipment->balls->radius, $layout->spot(Ball::One)->y, 1e-9);
        }
    }

    public function testTheLibraryHasTwentyFourDrillsOfOurOwnEachOfWhichIsRight(): void
    {
        $names = $skills = [];
        foreach (glob(\dirname(__DIR__, 3).'/drills/*.drill.json') ?: [] as $path) {
            $file = DrillFile::parse((string) file_get_contents($path));
            $names[] = $file->drill->name;
            $skills[$file->drill->skill->value] = true;
            self::assertNotSame('', $file->drill->text, $path);
            for ($level = 0; $level <= \count($file->drill->levels); ++$level) {
                self::assertGreaterThanOrEqual(0, (new SetUp($file->at($level), new Equipment()))->of(1)->count(), "$path $level");
            }
        }
        self::assertGreaterThanOrEqual(24, \count(array_unique($names)));
        self::assertCount(\count($names), array_unique($names));
        self::assertCount(5, $skills, implode(', ', array_keys($skills)));
    }

    /** docs/schema/drill.schema.json says what we read (opis/json-schema). */
    public function testTheSchemaSaysWhatIsRead(): void
    {
        $schema = (string) file_get_contents(\dirname(__DIR__, 3).'/docs/schema/drill.schema.json');
        $isValid = static fn (string $json): bool => (new Validator())->validate(json_decode($json), $schema)->isValid();
        foreach (glob(\dirname(__DIR__, 3).'/drills/*.drill.json') ?: [] as $path) {
            self::assertTrue($isValid((string) file_get_contents($path)), $path);
        }
        foreach (['an unknown field', 'a task that there is not', 'too many tries', 'a target of no shape'] as $fault) {
            $changes = iterator_to_array(self::faults())[$fault][0];
            self::assertFalse($isValid(json_encode([...self::STRAIGHT, ...$changes], \JSON_THROW_ON_ERROR)), $fault);
        }
    }

    /** @param array<string, mixed> $changes */
    private static function file(array $changes): DrillFile
    {
        return DrillFile::parse(json_encode([...self::STRAIGHT, ...$changes], \JSON_THROW_ON_ERROR));
    }
}
