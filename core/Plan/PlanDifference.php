<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Rail;

/**
 * What each of several plans does otherwise than those beside it, by the first thing that tells it from all with the same first ball and
 * pocket: the number of cushions of its first shot, the rails, the spin, the speed (a tenth or more), the place of the cue ball, the balls
 * that follow.
 */
final class PlanDifference
{
    /** Speeds this near to each other are the same. */
    private const SPEED = 0.1;

    /**
     * @param list<Plan> $plans the best first
     *
     * @return list<Plan> with their differences
     */
    public static function told(array $plans): array
    {
        return array_map(
            static fn (Plan $plan, int $i): Plan => $plan->withDifference(self::of(
                $plan,
                array_values(array_filter($plans, static fn (int $j): bool => $j !== $i, \ARRAY_FILTER_USE_KEY)),
            )),
            $plans,
            array_keys($plans),
        );
    }

    /** @param list<Plan> $others */
    private static function of(Plan $plan, array $others): ?Fact
    {
        $leg = $plan->legs[0] ?? null;
        if (null === $leg) {
            return null;
        }
        $values = ['ball' => $leg->choice->ball, 'pocket' => $leg->choice->pocket, 'group' => $plan->group?->value];
        $alike = [];
        foreach ($others as $other) {
            $first = $other->legs[0] ?? null;
            if (
                null !== $first
                && $first->choice->ball === $leg->choice->ball
                && $first->choice->pocket === $leg->choice->pocket
                && $other->group === $plan->group
            ) {
                $alike[] = $other;
            }
        }
        if ([] === $alike) {
            return new Fact('differs.pot', $values);
        }
        foreach (self::features($plan) as $kind => $feature) {
            if ([] === array_filter($alike, static fn (Plan $other): bool => self::isSame($feature, self::features($other)[$kind]))) {
                return new Fact('differs.'.$kind, $values + $feature);
            }
        }

        return new Fact('differs.pot', $values);
    }

    /**
     * @return array<string, array<string, mixed>> what may tell it apart, in this order, with the values of the sentence
     *
     * @phpstan-return array<string, array<string, int|float|string|null|list<Rail>|list<\ZigLane\Core\Name\Ball>>>
     */
    private static function features(Plan $plan): array
    {
        $leg = $plan->legs[0];
        $tip = $leg->choice->stroke->tip;
        $rails = array_map(static fn ($point): Rail => $point->rail, $leg->cushions);
        $place = $plan->place?->inDiamonds($plan->rack->equipment->table);

        return [
            'cushions' => ['cushions' => \count($rails)],
            'rails' => ['rails' => $rails],
            'spin' => [
                'height' => $tip->height > 0.1 ? 'high' : ($tip->height < -0.1 ? 'low' : 'middle'),
                'side' => $tip->side > 0.08 ? 'right' : ($tip->side < -0.08 ? 'left' : 'none'),
            ],
            'speed' => ['speedMps' => $leg->choice->stroke->speed],
            'place' => ['long' => null === $place ? null : round($place[0], 1), 'short' => null === $place ? null : round($place[1], 1)],
            'then' => [
                'then' => array_map(
                    static fn (Leg $next): \ZigLane\Core\Name\Ball => $next->choice->ball,
                    \array_slice($plan->legs, 1, 3),
                ),
            ],
        ];
    }

    /**
     * @param array<string, mixed> $one
     * @param array<string, mixed> $other
     */
    private static function isSame(array $one, array $other): bool
    {
        if (isset($one['speedMps'], $other['speedMps']) && \is_float($one['speedMps']) && \is_float($other['speedMps'])) {
            return abs($one['speedMps'] / $other['speedMps'] - 1) < self::SPEED;
        }

        return $one === $other;
    }
}
