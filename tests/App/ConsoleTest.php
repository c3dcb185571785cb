<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Rules\Game;

/** The console as another program uses it: standard input, output, error and exit codes. */
final class ConsoleTest extends TestCase
{
    private const FILE = '{"format": "zig-lane/shot", "version": 1, "layout": {"cue": [0.9, 0.5], "1": [1.905, 0.635]}, "shot": {"direction": 5.2, "speed": 2.6}}';

    public function testSimulateReadsStandardInputAndPrintsTheOutcome(): void
    {
        [$code, $output, $errors] = self::console('lane:simulate -', self::FILE);

        self::assertSame([0, ''], [$code, $errors]);
        $outcome = json_decode($output, true);
        self::assertIsArray($outcome);
        self::assertSame('zig-lane/outcome', $outcome['format']);
        self::assertIsArray($outcome['events']);
        self::assertGreaterThan(4, \count($outcome['events']));
    }

    public function testSimulateReadsAFile(): void
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'shot');
        file_put_contents($path, self::FILE);

        self::assertSame(self::console('lane:simulate -', self::FILE)[1], self::console('lane:simulate '.escapeshellarg($path))[1]);
    }

    public function testAFileThatIsNotValidGetsExitCode2AndALineForEachFault(): void
    {
        [$code, $output, $errors] = self::console(
            'lane:simulate -',
            '{"format": "zig-lane/shot", "version": 1, "layout": {"cue": [0.635, 0.635], "1": [0.68805, 0.635]}, "shot": {"direction": 0, "speed": 99}}',
        );

        self::assertSame([2, ''], [$code, $output]);
        self::assertSame("layout.1: overlaps cue by 4.1 mm\nshot.speed: found 99; a number from 0.001 to 15 is allowed\n", $errors);
    }

    public function testAFileThatIsNotThereGetsExitCode2(): void
    {
        [$code, $output, $errors] = self::console('lane:simulate /nowhere/x.shot.json');

        self::assertSame([2, ''], [$code, $output]);
        self::assertStringContainsString('cannot be read', $errors);
    }

    /** One slow roll teaches the cloth; what it cannot tell is named, and a fault is told at its place. */
    public function testATableIsFittedToItsTests(): void
    {
        $file = '{"format": "zig-lane/table-tests", "version": 1, "table": {}, "tests": [{"layout": {"cue": [0.5, 2]},
            "stroke": {"direction": 0, "height": 0.4}, "speed": null, "observed": {"cue": [5.5, 2], "noCushion": ["cue"], "seconds": 5.4}}]}';
        [$code, $output, $errors] = self::console('lane:calibrate -', $file);
        self::assertSame([0, ''], [$code, $errors]);
        $fit = json_decode($output, true);
        self::assertIsArray($fit);
        self::assertSame('zig-lane/table-fit', $fit['format']);
        self::assertSame(['roll'], array_keys((array) $fit['parameters']));
        self::assertContains('cushionRestitution', (array) $fit['unidentified']);
        [$code, $output, $errors] = self::console('lane:calibrate -', str_replace('[5.5, 2]', '"XX"', $file));
        self::assertSame([2, ''], [$code, $output]);
        self::assertStringStartsWith('tests.0.observed.cue: found "XX"', $errors);
    }

    /** Two shots tell next to nothing: the prior stands, and it is said what was not learned. */
    public function testALogIsFitted(): void
    {
        $shot = '{"id": "s1", "at": "2026-11-20T19:31:05Z", "kind": "pot", "before": {"cue": [2.0, 1.5], "3": [5.1, 0.9]},
            "called": {"ball": "3", "pocket": "FL"}, "meant": {"stroke": {"direction": 11.2, "speed": 1.9}},
            "result": {"made": false, "after": {"cue": [5.2, 2.4]}}}';
        $log = '{"format": "zig-lane/log", "version": 1, "player": {"aim": 0.05, "speed": 0.055, "tipSide": 1.2, "tipHeight": 1.2},
            "outings": [{"id": "o1", "date": "2026-11-20", "racks": [{"id": "r1", "game": "nine-ball", "kind": "tries", "start": {},
            "end": null, "shots": ['.$shot.']}]}]}';
        [$code, $output, $errors] = self::console('lane:fit - --seed 3', $log);
        self::assertSame([0, ''], [$code, $errors]);
        $fit = json_decode($output, true);
        self::assertIsArray($fit);
        self::assertSame(['zig-lane/fit', 1, 1, 1], [$fit['format'], $fit['version'], $fit['shots'], $fit['used']]);
        self::assertIsArray($fit['deviations']);
        self::assertIsArray($fit['unidentified']);
        self::assertSame(['aim', 'speed', 'tipSide', 'tipHeight'], array_keys($fit['deviations']));
        self::assertContains('biases.tipSide', $fit['unidentified']);
        self::assertSame($output, self::console('lane:fit - --seed 3', $log)[1]);
        self::assertSame(2, self::console('lane:fit -', str_replace('tries', 'pub', $log))[0]);
    }

    public function testARackIsPlannedAndThePlanRehearsed(): void
    {
        $rack = '{"format": "zig-lane/rack", "version": 1, "game": "nine-ball", "layoutDiamonds": {"cue": [2.0, 1.5], "3": [5.1, 0.9], "9": [4.4, 2.7]}, "player": {"aim": 0.03, "speed": 0.04, "tipSide": 0.8, "tipHeight": 0.8}}';
        [$code, $output, $errors] = self::console('lane:plan - --seconds 60 --blocks 2', $rack);
        self::assertSame([0, ''], [$code, $errors]);
        $plan = json_decode($output, true);
        self::assertIsArray($plan);
        self::assertSame(['zig-lane/plan', 2], [$plan['format'], $plan['version']]);
        self::assertIsArray($plan['legs']);
        self::assertSame(['3', '9'], array_column($plan['legs'], 'ball'));
        $again = json_decode(self::console('lane:plan - --seconds 60 --blocks 2', $rack)[1], true);
        self::assertIsArray($again);
        self::assertEquals([$plan['legs'], $plan['runOut']], [$again['legs'], $again['runOut']]);

        foreach (['', ' --replan'] as $option) {
            [$code, $rehearsed, $errors] = self::console('lane:rehearse - --times 10'.$option, $output);
            self::assertSame([0, ''], [$code, $errors]);
            $rehearsal = json_decode($rehearsed, true);
            self::assertIsArray($rehearsal);
            self::assertSame(['zig-lane/rehearsal', 10], [$rehearsal['format'], $rehearsal['times']]);
            self::assertIsArray($rehearsal['ended']);
            self::assertEqualsWithDelta(
                10.0,
                10 * (float) (is_numeric($rehearsal['runOut']) ? $rehearsal['runOut'] : -1) + array_sum($rehearsal['ended']),
                1e-6,
            );
        }
    }

    public function testPlansThatCannotBeMadeOrReadGetTheirExitCode(): void
    {
        self::assertSame(2, self::console('lane:plan - --seconds soon', '{}')[0]);
        self::assertSame(2, self::console('lane:plan -', '{"format": "zig-lane/rack"}')[0]);
        [$code, , $errors] = self::console(
            'lane:plan -',
            '{"format": "zig-lane/rack", "version": 1, "game": "nine-ball", "layout": {"3": [1.0, 0.5]}}',
        );
        self::assertSame(1, $code);
        self::assertStringContainsString('There is nothing to plan', $errors);
        self::assertSame(2, self::console('lane:rehearse - --times 0', '{}')[0]);
        self::assertSame(2, self::console('lane:rehearse -', '{"format": "zig-lane/plan"}')[0]);
    }

    public function testABreakPrintsARackFileThatCanBeReadAgain(): void
    {
        [$code, $output, $errors] = self::console('lane:break --game nine-ball --seed 7');

        self::assertSame([0, ''], [$code, $errors]);
        $rack = RackFile::parse($output)->rack;
        self::assertSame(Game::NineBall, $rack->game);
        self::assertGreaterThan(3, $rack->layout->count());
        self::assertSame($output, self::console('lane:break --game nine-ball --seed 7')[1]);
    }

    public function testABreakReportCountsItsBreaks(): void
    {
        [$code, $output] = self::console('lane:break --game eight-ball --seeds 5');

        self::assertSame(0, $code);
        self::assertMatchesRegularExpression('/^Eight-ball, 5 breaks from seed 1\nballs made a break +\d+\.\d\d\n/', $output);
    }

    public function testABreakOfAnUnknownGameGetsExitCode2(): void
    {
        [$code, $output, $errors] = self::console('lane:break --game snooker --seed x --seeds 0');

        self::assertSame([2, ''], [$code, $output]);
        self::assertSame(
            "game: found snooker; allowed: eight-ball, nine-ball, ten-ball, straight-pool\nseed: found x; a whole number is allowed\nseeds: found 0; 1 to 100000 are allowed\n",
            $errors,
        );
    }

    public function testOptionsAreListedTheBestFirstInTheTimeAsked(): void
    {
        $rack = '{"format": "zig-lane/rack", "version": 1, "game": "eight-ball", "group": "solids",
            "layoutDiamonds": {"cue": [2.2, 1.1], "3": [4.9, 3.35], "8": [7.1, 1.0], "9": [4.3, 0.5]}}';
        $start = microtime(true);
        [$code, $output, $errors] = self::console('lane:options - --seconds 2 --opponent club', $rack);

        self::assertSame([0, ''], [$code, $errors]);
        self::assertLessThan(12.0, microtime(true) - $start);
        $document = json_decode($output, true);
        self::assertIsArray($document);
        self::assertSame(['zig-lane/options', 1], [$document['format'], $document['version']]);
        self::assertIsArray($document['options']);
        $kinds = array_column($document['options'], 'kind');
        self::assertContains('attack', $kinds);
        self::assertContains('safety', $kinds);
        [$code, $output, $errors] = self::console('lane:options - --opponent champion', $rack);
        self::assertSame([2, ''], [$code, $output]);
        self::assertSame("opponent: found \"champion\"; beginner, club player, strong player, expert are allowed\n", $errors);
    }

    public function testAFinishedRackHasNoOptionsAndASentenceSaysSo(): void
    {
        $rack = '{"format": "zig-lane/rack", "version": 1, "game": "nine-ball", "layoutDiamonds": {"cue": [2.2, 1.1]}}';
        [$code, $output, $errors] = self::console('lane:options -', $rack);

        self::assertSame([1, ''], [$code, $output]);
        self::assertStringContainsString('The 9 decides this game', $errors);
    }

    public function testADuelCountsItsRacks(): void
    {
        $rack = '{"format": "zig-lane/rack", "version": 1, "game": "nine-ball", "layoutDiamonds": {"cue": [2.2, 1.1], "9": [6.1, 2.4]}}';
        [$code, $output, $errors] = self::console('lane:duel - --games 4 --a safeties --b no-safeties', $rack);

        self::assertSame([0, ''], [$code, $errors]);
        $document = json_decode($output, true);
        self::assertIsArray($document);
        self::assertSame(['zig-lane/duel', 4], [$document['format'], $document['games']]);
        self::assertIsArray($document['interval']);
        self::assertGreaterThanOrEqual($document['interval'][0], $document['share']);
        self::assertSame([2, ''], \array_slice(self::console('lane:duel - --a bold', $rack), 0, 2));
    }

    /** @return array{int, string, string} exit code, output, errors */
    private static function console(string $arguments, string $input = ''): array
    {
        $process = proc_open('php bin/console '.$arguments, [['pipe', 'r'], ['pipe', 'w'], ['pipe', 'w']], $pipes, \dirname(__DIR__, 2));
        self::assertIsResource($process);
        fwrite($pipes[0], $input);
        fclose($pipes[0]);
        $output = (string) stream_get_contents($pipes[1]);
        $errors = (string) stream_get_contents($pipes[2]);

        return [proc_close($process), $output, $errors];
    }
}
