<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Format;

use Opis\JsonSchema\Validator;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Format\DrillFile;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\LessonFile;
use ZigLane\Core\Format\LessonItem;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Teaching\Question;

/** A lesson file holds all that the lesson needs, and is read back to the last byte. */
final class LessonFileTest extends TestCase
{
    public function testALessonIsReadBackToTheLastByte(): void
    {
        $lesson = self::lesson();
        $written = $lesson->write();
        $read = LessonFile::parse($written);
        self::assertSame($written, $read->write());
        self::assertEquals($lesson, $read);
        self::assertCount(4, $read->items);
    }

    /** docs/schema/lesson.schema.json says what we read (opis/json-schema). */
    public function testTheSchemaSaysWhatIsRead(): void
    {
        $schema = (string) file_get_contents(\dirname(__DIR__, 3).'/docs/schema/lesson.schema.json');
        $validator = new Validator();
        self::assertTrue($validator->validate(json_decode(self::lesson()->write()), $schema)->isValid());
        foreach (self::faults() as $name => [$json]) {
            $document = json_decode($json);
            // What stands inside of another format has a schema of its own.
            if (\is_object($document) && !str_contains($name, 'inside')) {
                self::assertFalse($validator->validate($document, $schema)->isValid(), $name);
            }
        }
    }

    #[DataProvider('faults')]
    public function testAFaultIsToldWithItsPlace(string $json, string $place): void
    {
        try {
            LessonFile::parse($json);
            self::fail('not refused');
        } catch (InvalidFile $e) {
            self::assertContains($place, array_column($e->faults, 'path'), implode(', ', array_column($e->faults, 'path')));
        }
    }

    /** @return iterable<string, array{string, string}> */
    public static function faults(): iterable
    {
        $with = static fn (array $change): string => json_encode(
            $change + ['format' => 'zig-lane/lesson', 'version' => 1, 'name' => 'x', 'items' => []], \JSON_THROW_ON_ERROR,
        );
        yield 'no JSON' => ['{', ''];
        yield 'another format' => [$with(['format' => 'zig-lane/rack']), 'format'];
        yield 'no name' => [$with(['name' => '']), 'name'];
        yield 'items that are none' => [$with(['items' => 'x']), 'items'];
        yield 'too many' => [$with(['items' => array_fill(0, 61, ['kind' => 'text', 'text' => 'x'])]), 'items'];
        yield 'an unknown kind' => [$with(['items' => [['kind' => 'text'], ['kind' => 'film']]]), 'items.1.kind'];
        yield 'an id that is none' => [$with(['items' => [['kind' => 'text', 'text' => 'x', 'id' => 'a b']]]), 'items.0.id'];
        yield 'a text that is none' => [$with(['items' => [['kind' => 'text', 'text' => 5]]]), 'items.0.text'];
        yield 'a drill that is missing' => [$with(['items' => [['kind' => 'drill']]]), 'items.0.drill'];
        yield 'a question that is none' => [
            $with(['items' => [['kind' => 'position', 'question' => 'why', 'rack' => ['format' => 'zig-lane/rack', 'version' => 1]]]]), 'items.0.question',
        ];
        yield 'a field too many' => [$with(['items' => [['kind' => 'text', 'text' => 'x', 'drill' => []]]]), 'items.0.drill'];
        yield 'a fault inside a rack' => [
            $with(['items' => [['kind' => 'position', 'question' => 'plan', 'rack' => ['format' => 'zig-lane/rack', 'version' => 1, 'game' => 'marbles']]]]), 'game',
        ];
    }

    private static function lesson(): LessonFile
    {
        $root = \dirname(__DIR__, 3);
        $rack = RackFile::parse((string) file_get_contents("$root/demo/5-nine-to-go.rack.json"))->rack;

        return new LessonFile('A lesson', [
            LessonItem::words("# Words\n\n**bold**, \"quoted\", ä"),
            LessonItem::drill(DrillFile::parse((string) file_get_contents("$root/drills/dead-stop.drill.json")), 1, 'Ten of them'),
            LessonItem::position($rack, Question::CueBall, 'Where to?'),
            LessonItem::run(PlanFile::parse((string) file_get_contents("$root/tests/Core/Decide/seven-behind-the-six.plan.json"))),
        ]);
    }
}
