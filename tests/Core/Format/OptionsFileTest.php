<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Format;

use Opis\JsonSchema\Validator;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Decide\OptionSearch;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\OptionsFile;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Tests\Table;

/** Options files: what is written is read back. */
final class OptionsFileTest extends TestCase
{
    public function testWhatIsWrittenIsReadBack(): void
    {
        $options = self::file()->options;
        $read = OptionsFile::parse(self::file()->write())->options;

        self::assertEquals($options->rack, $read->rack);
        self::assertEquals($options->opponent, $read->opponent);
        self::assertSame($options->breakEven(), $read->breakEven());
        self::assertCount(\count($options->list), $read->list);
        foreach ($options->list as $i => $judged) {
            self::assertSame($judged->way->kind, $read->list[$i]->way->kind);
            self::assertEquals($judged->way->choice, $read->list[$i]->way->choice);
            self::assertEquals($judged->tally, $read->list[$i]->tally);
            self::assertSame(array_map(strval(...), $judged->reasons), array_map(strval(...), $read->list[$i]->reasons));
        }
    }

    public function testTheFileIsAsItsSchemaSays(): void
    {
        $schema = (string) file_get_contents(\dirname(__DIR__, 3).'/docs/schema/options.schema.json');
        $validator = new Validator();
        foreach ([self::file(), self::file(Game::StraightPool)] as $file) {
            $result = $validator->validate(json_decode($file->write()), $schema);
            self::assertTrue($result->isValid(), (string) $result->error()?->message());
        }
        $broken = preg_replace('/"win":0\.\d+,"interval"/', '"win":1.7,"interval"', self::file()->write());
        self::assertFalse($validator->validate(json_decode((string) $broken), $schema)->isValid());
    }

    public function testAnotherFileIsRefused(): void
    {
        $this->expectException(InvalidFile::class);
        OptionsFile::parse('{"format": "zig-lane/plan", "version": 1}');
    }

    public function testAFaultOfTheRackIsToldAtItsPlace(): void
    {
        $broken = str_replace('"game":"nine-ball"', '"game":"snooker"', self::file()->write());
        try {
            OptionsFile::parse($broken);
            self::fail('It was read.');
        } catch (InvalidFile $e) {
            self::assertSame('rack.game', $e->faults[0]->path);
        }
    }

    private static function file(Game $game = Game::NineBall): OptionsFile
    {
        $player = new ExecutionErrors(...ExecutionErrors::PRESETS['strong player']);
        $rack = new Rack($game, Table::layout([0 => [0.7, 0.35], 3 => [1.56, 1.06], 9 => [1.37, 0.16]]), player: $player);

        return new OptionsFile((new OptionSearch($rack, $player))->first(), 1.5, 1000);
    }
}
