<?php

declare(strict_types=1);

namespace ZigLane\Core\Format;

use ZigLane\Core\Motion\Event;
use ZigLane\Core\Motion\Outcome;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Table\Spot;

/** What came of a shot, as a file. Format "zig-lane/outcome", version 1; seconds and metres to a billionth. */
final class OutcomeFile
{
    public const FORMAT = 'zig-lane/outcome';
    private const DECIMALS = 9;

    public static function write(Outcome $outcome): string
    {
        $final = [];
        foreach ($outcome->final->balls() as $ball) {
            $final[$ball->label()] = self::spot($outcome->final->spot($ball));
        }
        $pocketed = [];
        foreach ($outcome->pocketed as $number => $pocket) {
            $pocketed[Ball::from($number)->label()] = $pocket->value;
        }

        return json_encode([
            'format' => self::FORMAT,
            'version' => 1,
            'duration' => self::number($outcome->duration()),
            'events' => array_map(self::event(...), $outcome->events),
            'final' => (object) $final,
            'pocketed' => (object) $pocketed,
        ], \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_SLASHES);
    }

    /** @return array<string, mixed> */
    private static function event(Event $event): array
    {
        return array_filter([
            't' => self::number($event->time),
            'kind' => $event->kind->value,
            'ball' => $event->ball->label(),
            'other' => $event->other?->label(),
            'rail' => $event->rail?->value,
            'pocket' => $event->pocket?->value,
            'at' => self::spot($event->at),
        ], static fn (mixed $value): bool => null !== $value);
    }

    /** @return array{float, float} */
    private static function spot(Spot $spot): array
    {
        return [self::number($spot->x), self::number($spot->y)];
    }

    private static function number(float $value): float
    {
        return round($value, self::DECIMALS) + 0.0;
    }
}
