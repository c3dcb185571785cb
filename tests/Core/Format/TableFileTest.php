<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Format;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Format\Fault;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\TableFile;
use ZigLane\Core\Table\Cue;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\TableProfile;
use ZigLane\Core\Table\TypicalTable;

final class TableFileTest extends TestCase
{
    public function testATableComesBackAsItWasWritten(): void
    {
        $table = TableProfile::fromArray(['length' => 2.2352, 'cornerMouth' => 0.11, 'slope' => 0.12, 'slopeDirection' => -90.0]);
        $file = new TableFile('Back room', new Equipment($table, cue: new Cue(45.0)), 'by the window');
        $read = TableFile::parse($file->write());
        self::assertEquals($file, $read);
        self::assertSame($file->write(), $read->write());
    }

    /** Each kind is a table of its own that the model takes, and all but one differ from the usual one. */
    public function testTypicalTablesAreFiles(): void
    {
        $written = [];
        foreach (TypicalTable::cases() as $kind) {
            $json = (new TableFile($kind->value, $kind->equipment()))->write();
            self::assertEquals($kind->equipment(), TableFile::parse($json)->equipment);
            $written[] = preg_replace('/"name": "[a-z]+"/', '', $json);
        }
        self::assertCount(\count(TypicalTable::cases()), array_unique($written));
        self::assertEquals(new Equipment(), TypicalTable::Usual->equipment());
        // What worn and quick are called after.
        [$worn, $quick] = [TypicalTable::Worn->equipment(), TypicalTable::Quick->equipment()];
        self::assertGreaterThan($quick->table->roll, $worn->table->roll);
        self::assertLessThan($quick->table->cushionRestitution, $worn->table->cushionRestitution);
        self::assertGreaterThan($quick->balls->friction(0.5), $worn->balls->friction(0.5));
        self::assertLessThan((new TableProfile())->cornerMouth, TypicalTable::Tight->equipment()->table->cornerMouth);
    }

    #[DataProvider('faults')]
    public function testAFaultIsToldAtItsPlace(string $json, string $path): void
    {
        try {
            TableFile::parse($json);
        } catch (InvalidFile $e) {
            self::assertContains($path, array_map(static fn (Fault $fault): string => $fault->path, $e->faults));

            return;
        }
        self::fail('It was read.');
    }

    /** @return iterable<string, array{string, string}> */
    public static function faults(): iterable
    {
        $file = static fn (string $rest): string => '{"format": "zig-lane/table", "version": 1, '.$rest.'}';
        yield 'no name' => [$file('"name": "  "'), 'name'];
        yield 'a name of an essay' => [$file('"name": "'.str_repeat('x', 81).'"'), 'name'];
        yield 'a field that is none' => [$file('"name": "x", "felt": 1'), 'felt'];
        yield 'a pocket for a cat' => [$file('"name": "x", "table": {"cornerMouth": 0.9}'), 'table.cornerMouth'];
        yield 'a hillside' => [$file('"name": "x", "table": {"slope": 0.9}'), 'table.slope'];
        yield 'too steep for its cloth' => [$file('"name": "x", "table": {"slope": 0.4, "roll": 0.005}'), 'table.slope'];
        yield 'another format' => ['{"format": "zig-lane/rack", "version": 1}', 'format'];
        yield 'a cue of lead' => [$file('"name": "x", "cue": {"endMassRatio": 1}'), 'cue.endMassRatio'];
    }
}
