<?php

declare(strict_types=1);

namespace ZigLane\Core\Format;

use ZigLane\Core\Format\Internal\Arrays;
use ZigLane\Core\Format\Internal\Reader;
use ZigLane\Core\Table\Equipment;

/** A table profile: one table with its balls and a cue. Format "zig-lane/table", version 1. */
final readonly class TableFile
{
    public const FORMAT = 'zig-lane/table';
    public const MAX_BYTES = 16384;
    public const MAX_NAME = 80;
    private const MAX_NOTES = 1000;

    public function __construct(public string $name, public Equipment $equipment, public string $notes = '')
    {
    }

    /** @throws InvalidFile With every fault that was found */
    public static function parse(string $json, int $maxBytes = self::MAX_BYTES): self
    {
        $document = Reader::document($json, $maxBytes, self::FORMAT);
        $reader = new Reader();
        $reader->onlyKnown($document, '', ['format', 'version', 'name', 'notes', 'table', 'balls', 'cue']);
        $cue = $reader->object($document, '', 'cue');
        $reader->onlyKnown($cue, 'cue', ['endMassRatio']);
        $equipment = new Equipment($reader->table($document), $reader->balls($document), $reader->cue($cue, 'cue'));
        $texts = ['name' => '', 'notes' => ''];
        foreach (['name' => [1, self::MAX_NAME], 'notes' => [0, self::MAX_NOTES]] as $field => [$least, $most]) {
            $text = $document[$field] ?? '';
            $length = \is_string($text) ? mb_strlen(trim(mb_scrub($text))) : -1;
            if ($length < $least || $length > $most) {
                $reader->fault($field, 'name', ['found' => Reader::show($text), 'most' => $most]);
            }
            $texts[$field] = \is_string($text) ? trim(mb_scrub($text)) : '';
        }
        $reader->finish();

        return new self($texts['name'], $equipment, $texts['notes']);
    }

    public function with(Equipment $equipment): self
    {
        return new self($this->name, $equipment, $this->notes);
    }

    public function write(): string
    {
        return json_encode(
            [
                'format' => self::FORMAT, 'version' => 1, 'name' => $this->name, 'notes' => $this->notes,
                ...Arrays::equipment($this->equipment),
            ],
            \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_SLASHES | \JSON_UNESCAPED_UNICODE,
        );
    }
}
