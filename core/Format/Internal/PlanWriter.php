<?php

declare(strict_types=1);

namespace ZigLane\Core\Format\Internal;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\Leg;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\PositionPlay\Lane;
use ZigLane\Core\PositionPlay\Outline;
use ZigLane\Core\PositionPlay\ZoneLevel;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\CushionPoint;
use ZigLane\Core\Stroke\LengthScale;
use ZigLane\Core\Table\Spot;

/**
 * Plans as arrays for their file.
 *
 * @internal
 */
final class PlanWriter
{
    /** Decimals of spots that are played from, metres. */
    private const EXACT = 9;
    /** Decimals of spots that are only drawn, metres. */
    private const DRAWN = 4;
    private const OUTLINE = 3;
    /** How far an outline that is only drawn may lie beside the computed one, metres: a hair on the screen. */
    private const HAIR = 0.004;

    /** @return array<string, mixed> */
    public static function plan(Plan $plan): array
    {
        $replays = $plan->replays;
        $isRehearsed = $replays->tries > 0;
        $scale = new LengthScale($plan->rack->equipment);

        return array_filter([
            ...self::runOut($isRehearsed ? $replays->chance() : null, $replays->tries),
            'balls' => $isRehearsed && $replays->isOverRacks ? round($replays->balls(), 2) : null,
            'ballsInterval' => $isRehearsed && $replays->isOverRacks
                ? array_map(static fn (float $edge): float => round(min(1000.0, $edge), 2), $replays->ballsInterval())
                : null,
            'interval' => $isRehearsed ? array_map(static fn (float $edge): float => round($edge, 4), $replays->interval()) : null,
            'place' => null === $plan->place ? null : self::spot($plan->place, self::EXACT),
            'group' => $plan->group?->value,
            'end' => $plan->end?->toArray(),
            'differs' => $plan->differs?->toArray(),
            'tally' => array_map(static fn (mixed $value): mixed => \is_array($value) ? (object) $value : $value, $replays->toArray()),
            'legs' => array_map(static fn (Leg $leg): array => self::leg($leg, $plan->rack, $scale), $plan->legs),
        ], self::isWritten(...), \ARRAY_FILTER_USE_BOTH);
    }

    /** What is not known is left out, but for the chance to finish: that is null, with the reason. */
    private static function isWritten(mixed $value, string $field): bool
    {
        return null !== $value || 'runOut' === $field;
    }

    /** @return array<string, mixed> */
    private static function runOut(?float $chance, int $replays): array
    {
        return [
            'runOut' => null === $chance ? null : round($chance, 4),
            'noRunOut' => null === $chance ? (new Fact('run.notReplayed'))->toArray() : null,
            'replays' => $replays,
        ];
    }

    /** @return array<string, mixed> */
    private static function leg(Leg $leg, Rack $rack, LengthScale $scale): array
    {
        $choice = $leg->choice;
        $stroke = $choice->stroke;

        return array_filter([
            'ball' => $choice->ball->label(),
            'pocket' => $choice->pocket->value,
            'from' => $leg->before->has(Ball::Cue) ? self::spot($leg->before->spot(Ball::Cue)) : null,
            'before' => self::layout($leg->before),
            'cut' => null === $leg->cut ? null : round($leg->cut, 2),
            'ghost' => null === $leg->ghost ? null : self::spot($leg->ghost),
            'stroke' => [
                'direction' => rad2deg($leg->direction),
                'speed' => $stroke->speed,
                'side' => $stroke->tip->side,
                'height' => $stroke->tip->height,
                'elevation' => $stroke->elevation,
            ],
            'aside' => 0.0 === $choice->aside ? null : $choice->aside,
            'byHand' => null === $choice->direction ? null : true,
            'safety' => $choice->isSafety ?: null,
            'lengths' => round($scale->lengths($stroke->speed), 2),
            'tip' => ['clock' => $stroke->tip->clock(), 'tips' => round($stroke->tip->offset() / $rack->equipment->offsetPerTip(), 2)],
            'cushions' => array_map(
                static fn (CushionPoint $point): array => [
                    'rail' => $point->rail->value,
                    'diamond' => round($point->along() / $rack->equipment->table->diamond(), 2),
                    'at' => self::spot($point->at),
                ],
                $leg->cushions,
            ),
            'landing' => null === $leg->landing ? null : self::spot($leg->landing),
            'zone' => self::rings($leg->zone[0] ?? null),
            'darker' => array_map(
                static fn (ZoneLevel $level): array => ['least' => $level->least, 'zone' => self::rings($level)],
                \array_slice($leg->zone, 1),
            ),
            'lane' => null === $leg->lane ? null : self::lane($leg->lane),
            'make' => null === $leg->make ? null : round($leg->make, 4),
            'position' => null === $leg->position ? null : round($leg->position, 4),
            'goOn' => null === $leg->goOn ? null : round($leg->goOn, 4),
            ...self::runOut($leg->runOut, $leg->replays),
            'risks' => array_map(static fn (float $share): float => round($share, 4), $leg->risks->toArray()),
            'misses' => null === $leg->misses
                ? null
                : [
                    'count' => $leg->misses->count,
                    'fouls' => $leg->misses->fouls,
                    'leave' => null === $leg->misses->chance ? null : round($leg->misses->chance, 4),
                ],
            'reasons' => array_map(static fn (Fact $reason): array => $reason->toArray(), $leg->reasons),
        ], self::isWritten(...), \ARRAY_FILTER_USE_BOTH);
    }

    /** @return array<string, mixed> */
    private static function lane(Lane $lane): array
    {
        return [
            'metres' => round($lane->length(), 3),
            'slower' => round($lane->slower, 4),
            'harder' => round($lane->harder, 4),
            'angle' => null === $lane->angle ? null : round($lane->angle, 1),
            'stops' => array_map(static fn (Spot $spot): array => self::spot($spot, self::DRAWN), $lane->stops),
            'short' => $lane->short?->toArray(),
            'long' => $lane->long?->toArray(),
        ];
    }

    /** @return list<list<array{float, float}>> */
    private static function rings(?ZoneLevel $level): array
    {
        return array_map(
            // Rounded first, so that what is read back is written as it was.
            static fn (array $ring): array => array_map(
                static fn (Spot $spot): array => [$spot->x, $spot->y],
                Outline::thinned(
                    array_map(static fn (Spot $spot): Spot => Spot::metres(...self::spot($spot, self::OUTLINE)), $ring),
                    self::HAIR,
                ),
            ),
            $level->rings ?? [],
        );
    }

    /** @return array<string, array{float, float}> */
    private static function layout(Layout $layout): array
    {
        $spots = [];
        foreach ($layout->balls() as $ball) {
            $spots[$ball->label()] = self::spot($layout->spot($ball), self::EXACT);
        }

        return $spots;
    }

    /** @return array{float, float} */
    private static function spot(Spot $spot, int $decimals = 6): array
    {
        return [round($spot->x, $decimals), round($spot->y, $decimals)];
    }
}
