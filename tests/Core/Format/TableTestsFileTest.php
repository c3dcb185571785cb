<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Format;

use Opis\JsonSchema\Validator;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Calibration\Parameter;
use ZigLane\Core\Format\Fault;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\TableTestsFile;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Table\Spot;

final class TableTestsFileTest extends TestCase
{
    public function testAFileIsRead(): void
    {
        $file = TableTestsFile::parse(self::file());
        $test = $file->tests[0];
        self::assertFalse($test->isSpeedKnown);
        self::assertInstanceOf(Spot::class, $test->ends[0]);
        self::assertEqualsWithDelta(5.1 * 0.3175, $test->ends[0]->x, 1e-12);
        self::assertSame(Pocket::FootLeft, $test->ends[1]);
        self::assertSame([[Rail::Foot, 2.0 * 0.3175], [Rail::Head, null]], $test->cushions[0]);
        self::assertSame([], $test->cushions[1]);
        self::assertSame(6.3, $test->seconds);
        self::assertSame([0.02, 0.1], [$test->spot, $test->watch]);
        self::assertSame(30.0, $test->strike->endMassRatio);
    }

    public function testWhatIsGivenIsKnownAndTheRestIsToBeFound(): void
    {
        $names = static fn (string $json): array => array_map(
            static fn (Parameter $one): string => $one->value,
            TableTestsFile::parse($json)->base->unknown,
        );
        $all = ['roll', 'slide', 'spinDecay', 'cushionRestitution', 'cushionFriction', 'ballRestitution', 'ballFriction'];
        self::assertSame($all, $names(self::file()));
        $known = str_replace(
            ['"table": {}', '"balls": {}', '"endMassRatio": 30'],
            ['"table": {"roll": 0.012, "slide": 0.2}', '"balls": {"restitution": 0.95, "friction": [0.01, 0.1, 1]}', '"endMassRatio": null'],
            self::file(),
        );
        self::assertSame(['spinDecay', 'cushionRestitution', 'cushionFriction', 'endMassRatio'], $names($known));
        self::assertSame(0.012, TableTestsFile::parse($known)->base->equipment->table->roll);
        // A slope that is given is known, a level table too.
        self::assertTrue(TableTestsFile::parse($known)->base->mayTilt);
        self::assertFalse(TableTestsFile::parse(str_replace('"roll": 0.012', '"slope": 0', $known))->base->mayTilt);
    }

    #[DataProvider('faults')]
    public function testAFaultIsToldAtItsPlace(string $from, string $to, string $path): void
    {
        try {
            TableTestsFile::parse(str_replace($from, $to, self::file()));
        } catch (InvalidFile $e) {
            self::assertContains($path, array_map(static fn (Fault $fault): string => $fault->path, $e->faults));

            return;
        }
        self::fail('It was read.');
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function faults(): iterable
    {
        yield 'no tests' => ['"tests": [{', '"tests": [], "more": [{', 'tests'];
        yield 'a ball that is not there' => ['"1": "FL"', '"4": [1, 1]', 'tests.0.observed.4'];
        yield 'an end off the table' => ['"cue": [5.1, 2.0]', '"cue": [9.1, 2.0]', 'tests.0.observed.cue.0'];
        yield 'nothing seen' => ['"observed": {', '"observed": {}, "hidden": {', 'tests.0.hidden'];
        yield 'a rail that is none' => ['"rail": "foot"', '"rail": "top"', 'tests.0.observed.cushions.0.rail'];
        yield 'a miscue' => ['"height": 0.4', '"height": 0.7', 'tests.0.stroke.side'];
        yield 'balls that overlap' => ['"1": [4, 2]', '"1": [2.05, 2]', 'tests.0.layout.1'];
        yield 'no cue ball' => ['"layout": {"cue": [2, 2], ', '"layout": {', 'tests.0.layout.cue'];
        yield 'a slope on which no ball lies still' => ['"table": {}', '"table": {"slope": 0.9}', 'table.slope'];
        yield 'a time of nothing' => ['"seconds": 6.3', '"seconds": -1', 'tests.0.observed.seconds'];
    }

    public function testTheSchemaTakesWhatIsRead(): void
    {
        $schema = (string) file_get_contents(\dirname(__DIR__, 3).'/docs/schema/table-tests.schema.json');
        $validator = new Validator();
        self::assertTrue($validator->validate(json_decode(self::file()), $schema)->isValid());
        $broken = str_replace('"rail": "foot"', '"rail": "top"', self::file());
        self::assertFalse($validator->validate(json_decode($broken), $schema)->isValid());
    }

    private static function file(): string
    {
        return '{"format": "zig-lane/table-tests", "version": 1, "table": {}, "balls": {}, "cue": {"endMassRatio": 30}, "tests": [{
            "layout": {"cue": [2, 2], "1": [4, 2]}, "stroke": {"direction": 0, "side": 0.0, "height": 0.4, "elevation": 2}, "speed": null,
            "observed": {"cue": [5.1, 2.0], "1": "FL", "noCushion": ["1"], "cushions": [{"ball": "cue", "rail": "foot", "diamond": 2.0},
                {"ball": "cue", "rail": "head"}], "seconds": 6.3}, "measured": {"spot": 0.02, "seconds": 0.1}}]}';
    }
}
