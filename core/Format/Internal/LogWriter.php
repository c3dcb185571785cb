<?php

declare(strict_types=1);

namespace ZigLane\Core\Format\Internal;

use ZigLane\Core\Format\LogFile;
use ZigLane\Core\Log\Log;
use ZigLane\Core\Log\LoggedRack;
use ZigLane\Core\Log\LoggedShot;
use ZigLane\Core\Log\Outing;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Table\TableProfile;

/**
 * A log as arrays for its file.
 *
 * @internal
 */
final class LogWriter
{
    /** Decimals of spots in diamonds: a tenth of a millimetre and less. */
    private const SPOT = 6;

    /** @return array<string, mixed> */
    public static function log(Log $log): array
    {
        return [
            'format' => LogFile::FORMAT,
            'version' => 1,
            'player' => $log->player->toArray(),
            'outings' => array_map(self::outing(...), $log->outings),
        ];
    }

    /** @return array<string, mixed> */
    private static function outing(Outing $outing): array
    {
        return [
            'id' => $outing->id,
            'date' => $outing->date->format('Y-m-d'),
            'place' => $outing->place,
            'notes' => $outing->notes,
            ...Arrays::equipment($outing->equipment),
            'racks' => array_map(
                static fn (LoggedRack $rack): array => self::rack($rack, $outing->equipment->table),
                $outing->racks,
            ),
        ];
    }

    /** @return array<string, mixed> */
    private static function rack(LoggedRack $rack, TableProfile $table): array
    {
        return [
            'id' => $rack->id,
            'game' => $rack->game->value,
            'kind' => $rack->kind->value,
            'start' => Arrays::layout($rack->start, $table, self::SPOT),
            'ballInHand' => $rack->ballInHand->value,
            'end' => $rack->end?->value,
            'shots' => array_map(self::shot(...), $rack->shots),
            ...array_filter(['balls' => $rack->balls, 'racks' => $rack->racks], is_int(...)),
        ];
    }

    /** @return array<string, mixed> */
    public static function shot(LoggedShot $shot): array
    {
        $table = $shot->equipment->table;
        $meant = null === $shot->meant ? null : [
            'stroke' => self::stroke($shot->meant),
            'landing' => null === $shot->landing ? null : Arrays::spot($shot->landing, $table, self::SPOT),
            'make' => $shot->make,
            'position' => $shot->position,
            'runOut' => $shot->runOut,
            'guess' => $shot->guess,
        ];
        $result = $shot->result;

        return [
            'id' => $shot->id,
            'at' => $shot->at?->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d\TH:i:s\Z'),
            'kind' => $shot->kind->value,
            'before' => Arrays::layout($shot->before, $table, self::SPOT),
            'called' => null === $shot->ball ? null : ['ball' => $shot->ball->label(), 'pocket' => $shot->pocket?->value],
            'meant' => $meant,
            ...(null === $meant && null !== $shot->guess ? ['guess' => $shot->guess] : []),
            'result' => [
                'made' => $result->isMade,
                'missed' => $result->missed?->value,
                'scratch' => $result->scratch ? $result->in->value ?? true : null,
                'foul' => $result->foul,
                'miscue' => $result->miscue,
                'position' => $result->position,
                'after' => Arrays::layout($result->after, $table, self::SPOT),
                'measured' => $result->measured,
                ...([] === $result->fell ? [] : ['fell' => array_map(static fn (Ball $ball): string => $ball->label(), $result->fell)]),
            ],
        ];
    }

    /** @return array<string, float> the direction is the cue's own, as in shot files */
    private static function stroke(Strike $strike): array
    {
        return [
            'direction' => round(rad2deg($strike->direction), 6),
            'speed' => round($strike->speed, 6),
            'side' => round($strike->side, 6),
            'height' => round($strike->height, 6),
            'elevation' => round(rad2deg($strike->elevation), 6),
        ];
    }
}
