<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Format;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\LogFile;
use ZigLane\Core\Format\LogPieces;

final class LogPiecesTest extends TestCase
{
    /** @param array<mixed> $log */
    #[DataProvider('logs')]
    public function testThePiecesTogetherAreTheLog(array $log, int $pieces): void
    {
        $json = json_encode($log, \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT);
        $whole = LogFile::parse($json);
        $found = $numbers = [];
        $count = 0;
        foreach (self::pieces($json) as [$text, $outing, $rack]) {
            ++$count;
            $piece = LogFile::parse($text);
            self::assertEquals($whole->player, $piece->player);
            self::assertCount(1, $piece->outings);
            self::assertSame($whole->outings[$outing]->place, $piece->outings[0]->place);
            self::assertEquals($whole->outings[$outing]->equipment, $piece->outings[0]->equipment);
            $numbers[] = [$outing, $rack, \count($piece->outings[0]->racks)];
            array_push($found, ...$piece->outings[0]->racks);
        }
        $all = array_merge(...array_map(static fn ($outing): array => $outing->racks, $whole->outings));
        self::assertEquals($all, $found);
        self::assertSame($pieces, $count, json_encode($numbers, \JSON_THROW_ON_ERROR));
    }

    /** @return iterable<string, array{array<mixed>, int}> */
    public static function logs(): iterable
    {
        $rack = static fn (int $n): array => [
            'id' => "r$n", 'game' => 'nine-ball', 'start' => ['cue' => [1, 1], '9' => [4, 2]],
            'shots' => [['id' => "s$n", 'before' => ['cue' => [1, 1]], 'result' => ['made' => true, 'after' => ['cue' => [2, 1.5]]]]],
        ];
        $racks = static fn (int $from, int $to): array => array_map($rack, range($from, $to));
        $head = ['format' => LogFile::FORMAT, 'version' => 1, 'player' => ['aim' => 0.2, 'speed' => 0.05, 'tipSide' => 1.0, 'tipHeight' => 1.0]];
        yield 'none' => [$head + ['outings' => []], 0];
        yield 'one of few' => [$head + ['outings' => [['date' => '2026-11-02', 'place' => 'Here', 'racks' => $racks(1, 3)]]], 1];
        yield 'long ones' => [$head + ['outings' => [
            ['date' => '2026-11-02', 'place' => 'racks":[{ "odd', 'racks' => $racks(1, 120)],
            ['date' => '2026-11-03', 'place' => 'empty', 'racks' => []],
            ['racks' => $racks(121, 125), 'date' => '2026-11-04', 'place' => 'said \\ behind "its" racks'],
        ]], 4];
        yield 'the list before the rest' => [['outings' => [['racks' => $racks(1, 2), 'date' => '2026-11-02']], ...$head], 1];
        yield 'lists of the same names elsewhere' => [$head + ['outings' => [['date' => '2026-11-02', 'racks' => [
            $rack(1) + ['racks' => 3], $rack(2),
        ]]]], 1];
    }

    #[DataProvider('broken')]
    public function testWhatIsNoLogIsRefused(string $json): void
    {
        $this->expectException(InvalidFile::class);
        foreach (self::pieces($json) as [$piece]) {
            LogFile::parse($piece);
        }
        LogFile::parse($json);
    }

    /** @return iterable<string, array{string}> */
    public static function broken(): iterable
    {
        yield 'nothing' => [''];
        yield 'cut off' => ['{"format":"zig-lane/log","version":1,"outings":[{"racks":[{"game":"nine-ball"}'];
        yield 'a string without an end' => ['{"format":"zig-lane/log'];
        yield 'brackets that do not match' => ['{"outings":[{"racks":[{]}]}'];
        yield 'too deep' => [str_repeat('[', 40).str_repeat(']', 40)];
        yield 'two megabytes of lists' => ['{"format":"zig-lane/log","version":1,"x":['.str_repeat('[],', 700_000).'[]]}'];
        yield 'a list in a rack of two megabytes' => ['{"outings":[{"racks":[{"x":['.str_repeat('[],', 700_000).'[]]}]}]}'];
        yield 'something behind it' => ['{"format":"zig-lane/log","version":1,"outings":[]} x'];
    }

    public function testALogIsWrittenInPiecesAsInOne(): void
    {
        foreach (self::logs() as [$log]) {
            $read = LogFile::parse(json_encode($log, \JSON_THROW_ON_ERROR));
            $whole = LogFile::write($read);
            $document = json_decode($whole, flags: \JSON_THROW_ON_ERROR);
            self::assertInstanceOf(\stdClass::class, $document);
            $outings = array_map(
                static fn (mixed $one): string => json_encode($one, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_SLASHES),
                (array) $document->outings,
            );
            self::assertEquals(json_decode($whole), json_decode(implode('', [...LogFile::stream($read->player, $outings)])));
        }
    }

    /** Two hundred thousand shots in pieces, whatever they are. */
    public function testALongLogTakesLittleMemory(): void
    {
        $shot = '{"id":"x","before":{"cue":[1,1]},"result":{"made":true,"after":{"cue":[2,1.5]}},"notes":"'.str_repeat('a', 600).'"}';
        $rack = '{"id":"r","game":"nine-ball","shots":['.implode(',', array_fill(0, 10, $shot)).']}';
        $outing = '{"date":"2026-11-02","racks":['.implode(',', array_fill(0, 20, $rack)).']}';
        $json = '{"format":"zig-lane/log","version":1,"outings":['.implode(',', array_fill(0, 200, $outing)).']}';
        $before = memory_get_usage();
        memory_reset_peak_usage();
        $count = 0;
        foreach (self::pieces($json) as [$piece]) {
            $count += substr_count($piece, '"id":"x"');
        }
        self::assertSame(40_000, $count);
        self::assertLessThan(8_000_000, memory_get_peak_usage() - $before);
    }

    /** @return iterable<array{string, int, int}> */
    private static function pieces(string $json): iterable
    {
        $pieces = new LogPieces($json);
        foreach ($pieces->runs as $i => $run) {
            yield [$pieces->file($i, substr($json, $run['from'], $run['length'])), $run['outing'], $run['rack']];
        }
    }
}
