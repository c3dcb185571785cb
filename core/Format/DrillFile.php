<?php

declare(strict_types=1);

namespace ZigLane\Core\Format;

use ZigLane\Core\Format\Internal\DrillReader;
use ZigLane\Core\Format\Internal\Reader;
use ZigLane\Core\Practice\Drill;

/**
 * A drill file. Format "zig-lane/drill", version 1. What is kept is the document as it was read, so that levels are edits of it and writing
 * gives back what was meant.
 */
final readonly class DrillFile
{
    public const FORMAT = 'zig-lane/drill';
    public const MAX_BYTES = 65536;

    /** @param array<mixed> $document */
    private function __construct(public array $document, public Drill $drill)
    {
    }

    /** @throws InvalidFile With every fault that was found, of its levels too */
    public static function parse(string $json, int $maxBytes = self::MAX_BYTES): self
    {
        $document = Reader::document($json, $maxBytes, self::FORMAT);
        $drill = DrillReader::read($document);
        foreach ($drill->levels as $i => $level) {
            try {
                DrillReader::read(self::patched($document, $level->edits));
            } catch (InvalidFile $e) {
                throw new InvalidFile(array_map(
                    static fn (Fault $fault): Fault => new Fault("levels.$i.edits.".$fault->path, $fault->fact),
                    $e->faults,
                ));
            }
        }

        return new self($document, $drill);
    }

    /** The drill at one of its levels: 0 is the drill as it stands, 1 the first of its levels; one that is not there is as it stands. */
    public function at(int $level): Drill
    {
        $edits = $this->drill->levels[$level - 1]->edits ?? null;

        return null === $edits ? $this->drill : DrillReader::read(self::patched($this->document, $edits));
    }

    /**
     * With a level more, or another one of that name: what makes it of this drill is what an edited one differs by.
     *
     * @throws InvalidFile If the name or the level is at fault
     */
    public function withLevel(string $name, self $edited): self
    {
        $document = $this->document;
        $without = static fn (array $one): array => array_diff_key($one, ['levels' => 0]);
        $level = ['name' => $name, 'edits' => self::difference($without($document), $without($edited->document)) ?: new \stdClass()];
        $levels = array_values(array_filter(
            \is_array($document['levels'] ?? null) ? $document['levels'] : [],
            static fn (mixed $one): bool => !\is_array($one) || ($one['name'] ?? null) !== $name,
        ));
        $document['levels'] = [...$levels, $level];

        return self::parse(json_encode($document, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION));
    }

    public function write(): string
    {
        return json_encode(
            $this->document,
            \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_SLASHES | \JSON_UNESCAPED_UNICODE,
        );
    }

    /** What tells one version of a drill from another. */
    public function hash(): string
    {
        return hash('sha256', json_encode($this->document, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION));
    }

    /**
     * A JSON merge patch (RFC 7386).
     *
     * @param array<mixed> $document
     * @param array<mixed> $edits
     *
     * @return array<mixed>
     */
    private static function patched(array $document, array $edits): array
    {
        foreach ($edits as $key => $value) {
            if (null === $value) {
                unset($document[$key]);
            } elseif (\is_array($value) && (!array_is_list($value) || [] === $value)) {
                $old = $document[$key] ?? [];
                $document[$key] = self::patched(\is_array($old) && !array_is_list($old) ? $old : [], $value);
            } else {
                $document[$key] = $value;
            }
        }

        return $document;
    }

    /**
     * The merge patch that makes one document of another.
     *
     * @param array<mixed> $from
     * @param array<mixed> $to
     *
     * @return array<mixed>
     */
    private static function difference(array $from, array $to): array
    {
        $patch = array_map(static fn (): null => null, array_diff_key($from, $to));
        foreach ($to as $key => $value) {
            $before = $from[$key] ?? null;
            if ($before === $value && \array_key_exists($key, $from)) {
                continue;
            }
            $patch[$key] = \is_array($value) && \is_array($before) && !array_is_list($value) && !array_is_list($before)
                ? self::difference($before, $value)
                : $value;
        }

        return $patch;
    }
}
