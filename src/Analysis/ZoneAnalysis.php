<?php

declare(strict_types=1);

namespace ZigLane\App\Analysis;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Plan\TwoAhead;
use ZigLane\Core\PositionPlay\Lane;
use ZigLane\Core\PositionPlay\Zone;
use ZigLane\Core\Stroke\LengthScale;
use ZigLane\Core\Table\Spot;

/** From where the next ball is potted, the lane of this shot in that zone, and from where the ball after the next one follows. */
final readonly class ZoneAnalysis implements ShotAnalysis
{
    /** Odds from which a zone is drawn darkest. */
    private const DARK = 0.9;
    /** Share of the best odds of two balls from which a spot counts as on the right side. */
    private const RIGHT_SIDE = 0.8;
    /** Best odds of two balls below which nothing is shown. */
    private const WORTH = 0.02;

    /**
     * @param PotModel|null                $pot   of the next ball, where one pocket alone counts
     * @param array<int, list<list<Spot>>> $areas outlines of the zone, the lightest first
     * @param list<list<Spot>>             $ahead outlines of where the ball after the next one follows from; may be none
     * @param list<Fact>                   $facts
     */
    private function __construct(
        public ?PotModel $pot,
        public array $areas,
        public Lane|Fact|null $lane,
        public array $ahead,
        private array $facts,
        private bool $hasMore = false,
    ) {
    }

    public static function of(AnalysisRequest $request): self
    {
        $layout = $request->shot->outcome->final;
        $next = $request->nextOn($layout);
        if (null === $next) {
            return new self(null, [], null, [], [new Fact('zone.noNext')]);
        }
        $pots = $request->pots($layout, $next);
        if ([] === $pots) {
            return new self(
                null,
                [],
                null,
                [],
                [new Fact(
                    \count($request->pockets) > 1 ? 'zone.nowhere' : 'zone.notThere',
                    ['next' => $next, 'pockets' => $request->pockets],
                )],
            );
        }
        $zone = Zone::of($pots, $request->rack->equipment);
        $areas = self::areas($zone, $request->least);
        $pot = 1 === \count($pots) ? $pots[0] : null;
        $lane = Lane::of($request->shot, $pots, $request->least, $request->solver);
        $here = $layout->has(Ball::Cue) ? Zone::best($pots, $layout->spot(Ball::Cue)) : null;
        $facts = [
            new Fact(
                'zone.shaded',
                [
                    'next' => $next,
                    'pockets' => array_map(static fn (PotModel $pot): \ZigLane\Core\Name\Pocket => $pot->pocket, $pots),
                    'leastShare' => $request->least,
                    'bestShare' => $zone->most(),
                ],
            ),
            ...(null === $here ? [] : [new Fact('zone.here', ['next' => $next, 'hereShare' => $here])]),
            ...self::laneFacts($lane, $request->shot->strike->speed, $request->lengths),
        ];
        $after = null !== $request->after && $layout->has($request->after) ? $request->after : null;
        if (null === $after || !$request->more) {
            return new self(
                $pot,
                $areas,
                $lane,
                [],
                null === $after ? $facts : [...$facts, new Fact('zone.workingOn', ['after' => $after])],
                null !== $after,
            );
        }
        $ahead = Zone::ofOdds($pots, TwoAhead::odds($request->rack->withLayout($layout), $pots, $after), $request->rack->equipment);
        $isWorth = $ahead->most() >= self::WORTH;
        $facts[] = $isWorth
            ? new Fact(
                'zone.rightSide',
                ['next' => $next, 'after' => $after, 'leastShare' => self::RIGHT_SIDE * $ahead->most(), 'bestShare' => $ahead->most()],
            )
            : new Fact('zone.neverFollows', ['next' => $next, 'after' => $after]);

        return new self($pot, $areas, $lane, $isWorth ? $ahead->rings(self::RIGHT_SIDE * $ahead->most()) : [], $facts);
    }

    /** @return array<int, list<list<Spot>>> */
    private static function areas(Zone $zone, float $least): array
    {
        $areas = [];
        foreach (array_unique([$least, 0.5 * ($least + 1), self::DARK]) as $k => $odds) {
            if (0 === $k || $odds > $least) {
                $areas[$k] = $zone->rings($odds);
            }
        }

        return $areas;
    }

    /** @return list<Fact> */
    private static function laneFacts(Lane|Fact $lane, float $speed, LengthScale $lengths): array
    {
        if ($lane instanceof Fact) {
            return [new Fact('zone.noLane', ['why' => $lane])];
        }
        $at = static fn (float $share): string => \sprintf('%.1f', $lengths->lengths(min($speed * $share, Strike::MAX_SPEED)));
        $way = null === $lane->angle ? 'stops' : ($lane->angle < 35.0 ? 'into' : ($lane->angle > 55.0 ? 'across' : 'between'));

        return [
            new Fact(
                'zone.lane',
                [
                    'lengthMetres' => $lane->length(),
                    ...$lane->room(),
                    'slowest' => $at(1 - $lane->slower),
                    'hardest' => $at(1 + $lane->harder),
                    'way' => $way,
                    'angleDegrees' => $lane->angle ?? 0.0,
                ],
            ),
            new Fact('zone.ends', ['short' => $lane->short ?? new Fact('lane.noEnd'), 'long' => $lane->long ?? new Fact('lane.noEnd')]),
        ];
    }

    public function facts(): array
    {
        return $this->facts;
    }

    public function suggestions(): array
    {
        return [];
    }

    public function hasMore(): bool
    {
        return $this->hasMore;
    }
}
