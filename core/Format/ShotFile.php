<?php

declare(strict_types=1);

namespace ZigLane\Core\Format;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\Internal\Reader;
use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Table\Cue;
use ZigLane\Core\Table\Equipment;

/** A shot file: one strike on a layout, on a stated table. Format "zig-lane/shot", version 1. */
final readonly class ShotFile
{
    public const FORMAT = 'zig-lane/shot';

    private function __construct(
        public Equipment $equipment,
        public Layout $layout,
        public Strike $strike,
    ) {
    }

    /** @throws InvalidFile With every fault that was found */
    public static function parse(string $json, int $maxBytes = 65536, int $maxBalls = 16): self
    {
        $document = Reader::document($json, $maxBytes, self::FORMAT);
        $reader = new Reader();
        $reader->onlyKnown($document, '', ['format', 'version', 'table', 'balls', 'layout', 'layoutDiamonds', 'shot']);
        $table = $reader->table($document);
        $balls = $reader->balls($document);
        $equipment = new Equipment($table, $balls);
        [$layout, $field] = $reader->layout($document, $table, $maxBalls);
        if ($reader->isClean()) {
            $reader->layoutFaults((new LayoutRules($equipment))->faults($layout), $field);
        }
        if ($reader->isClean() && !$layout->has(Ball::Cue)) {
            $reader->fault($field.'.cue', 'missingCue');
        }
        $strike = self::strike($reader, $reader->object($document, '', 'shot', true));
        $reader->finish();
        \assert(null !== $strike);

        return new self($equipment, $layout, $strike);
    }

    /** @param array<mixed> $shot */
    private static function strike(Reader $reader, array $shot): ?Strike
    {
        $reader->onlyKnown($shot, 'shot', ['direction', 'speed', 'side', 'height', 'elevation', 'endMassRatio']);
        $miscue = Cue::MISCUE_LIMIT;
        $direction = $reader->number($shot, 'shot', 'direction', -720.0, 720.0);
        $speed = $reader->number($shot, 'shot', 'speed', 0.001, Strike::MAX_SPEED);
        $side = $reader->number($shot, 'shot', 'side', -1.0, 1.0, 0.0);
        $height = $reader->number($shot, 'shot', 'height', -1.0, 1.0, 0.0);
        $elevation = $reader->number($shot, 'shot', 'elevation', 0.0, Strike::MAX_ELEVATION_DEGREES, 0.0);
        $cue = $reader->cue($shot, 'shot');
        if (!$reader->isClean()) {
            if (hypot($side, $height) > $miscue) {
                $reader->because('shot.side', self::miscue($side, $height));
            }

            return null;
        }
        try {
            return Strike::degrees($direction, $speed, $side, $height, $elevation, $cue->endMassRatio);
        } catch (IllegalStroke $e) {
            $reader->because(
                'tip' === $e->field ? 'shot.side' : 'shot.'.$e->field,
                'tip' === $e->field ? self::miscue($side, $height) : $e->fact(),
            );

            return null;
        }
    }

    private static function miscue(float $side, float $height): Fact
    {
        return new Fact('file.miscue', ['offset' => round(hypot($side, $height), 3), 'limit' => Cue::MISCUE_LIMIT]);
    }
}
