<?php

declare(strict_types=1);

namespace ZigLane\Core\Format;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\Internal\Reader;
use ZigLane\Core\Teaching\ItemKind;
use ZigLane\Core\Teaching\Question;

/**
 * A lesson: drills, positions with a question, runs and words in an order. Format "zig-lane/lesson", version 1: everything that it needs is
 * in it, so that it holds when a drill of the library it came from is gone.
 */
final readonly class LessonFile
{
    public const FORMAT = 'zig-lane/lesson';
    public const MAX_BYTES = 2_097_152;
    public const MAX_NAME = 120;
    public const MAX_ITEMS = 60;
    public const MAX_TEXT = 8000;

    /** @var list<LessonItem> each with an id that no other of them has */
    public array $items;

    /** @param list<LessonItem> $items Those without an id, or with one that stands before, get one by their place */
    public function __construct(public string $name, array $items = [])
    {
        $taken = array_fill_keys(array_map(static fn (LessonItem $item): string => $item->id, $items), true);
        $seen = ['' => true];
        foreach ($items as $i => $item) {
            if (isset($seen[$item->id])) {
                // Ends: each number is tried once, and there are fewer ids than numbers.
                for ($n = $i + 1; isset($taken["p$n"]); ++$n) {
                }
                $items[$i] = $item = $item->named("p$n");
            }
            $seen[$item->id] = $taken[$item->id] = true;
        }
        $this->items = $items;
    }

    /** @throws InvalidFile With every fault that was found */
    public static function parse(string $json, int $maxBytes = self::MAX_BYTES): self
    {
        $document = Reader::document($json, $maxBytes, self::FORMAT);
        $reader = new Reader();
        $reader->onlyKnown($document, '', ['format', 'version', 'name', 'items']);
        $name = \is_string($document['name'] ?? null) ? trim(mb_scrub($document['name'])) : '';
        if ('' === $name || mb_strlen($name) > self::MAX_NAME) {
            $reader->fault('name', 'name', ['found' => Reader::show($document['name'] ?? null), 'most' => self::MAX_NAME]);
        }
        $list = $document['items'] ?? [];
        if (!\is_array($list) || !array_is_list($list) || \count($list) > self::MAX_ITEMS) {
            $reader->because('items', new Fact('file.lessonItems', ['most' => self::MAX_ITEMS]));
            $list = [];
        }
        $items = $faults = [];
        foreach ($list as $i => $one) {
            try {
                $items[] = self::item($one, "items.$i");
            } catch (InvalidFile $e) {
                array_push($faults, ...$e->faults);
            }
        }
        foreach ($faults as $fault) {
            $reader->because($fault->path, $fault->fact);
        }
        $reader->finish();

        return new self($name, $items);
    }

    /** @param list<LessonItem> $items */
    public function withItems(array $items): self
    {
        return new self($this->name, $items);
    }

    /** @return int|null where the item of this id stands */
    public function place(string $id): ?int
    {
        foreach ($this->items as $i => $item) {
            if ($item->id === $id) {
                return $i;
            }
        }

        return null;
    }

    public function withName(string $name): self
    {
        return new self($name, $this->items);
    }

    public function write(): string
    {
        return json_encode(
            [
                'format' => self::FORMAT, 'version' => 1, 'name' => $this->name,
                'items' => array_map(static fn (LessonItem $item): array => $item->toArray(), $this->items),
            ],
            \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_SLASHES | \JSON_UNESCAPED_UNICODE,
        );
    }

    /** @throws InvalidFile If it is at fault */
    private static function item(mixed $one, string $path): LessonItem
    {
        $kind = \is_array($one) && \is_string($one['kind'] ?? null) ? ItemKind::tryFrom($one['kind']) : null;
        if (!\is_array($one) || null === $kind) {
            throw InvalidFile::because("$path.kind", new Fact('file.lessonKind', []));
        }
        $reader = new Reader();
        $reader->onlyKnown($one, $path, ['id', 'kind', 'text', ...match ($kind) {
            ItemKind::Text => [],
            ItemKind::Drill => ['drill', 'level'],
            ItemKind::Position => ['rack', 'question'],
            ItemKind::Plan => ['plan'],
        }]);
        $id = $one['id'] ?? '';
        if (!\is_string($id) || 1 !== preg_match('/^[A-Za-z0-9-]{0,40}$/D', $id)) {
            $reader->because("$path.id", new Fact('file.lessonId', []));
            $id = '';
        }
        $text = $one['text'] ?? '';
        if (!\is_string($text) || mb_strlen($text) > self::MAX_TEXT) {
            $reader->because("$path.text", new Fact('file.lessonText', ['most' => self::MAX_TEXT]));
            $text = '';
        }
        $text = mb_scrub($text);
        $question = ItemKind::Position === $kind ? $reader->choice($one, $path, 'question', Question::class, true) : null;
        $level = ItemKind::Drill === $kind ? (int) $reader->number($one, $path, 'level', 0, 50, 0.0) : 0;
        $reader->finish();

        $item = match ($kind) {
            ItemKind::Text => LessonItem::words($text),
            ItemKind::Drill => LessonItem::drill(
                DrillFile::parse(...self::part($one, 'drill', $path, DrillFile::MAX_BYTES)),
                $level,
                $text,
            ),
            ItemKind::Position => LessonItem::position(
                RackFile::parse(...self::part($one, 'rack', $path, 65536))->rack,
                $question ?? Question::Plan,
                $text,
            ),
            ItemKind::Plan => LessonItem::run(PlanFile::parse(...self::part($one, 'plan', $path, PlanFile::MAX_BYTES)), $text),
        };

        return $item->named($id);
    }

    /**
     * @param array<mixed> $item
     *
     * @return array{string, int} a file inside, and how long it may be
     *
     * @throws InvalidFile If it is none
     */
    private static function part(array $item, string $key, string $path, int $most): array
    {
        if (!\is_array($item[$key] ?? null)) {
            throw InvalidFile::because("$path.$key", new Fact('file.lessonPart', []));
        }

        return [json_encode($item[$key], \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION), $most];
    }
}
