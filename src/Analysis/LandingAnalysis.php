<?php

declare(strict_types=1);

namespace ZigLane\App\Analysis;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\PositionPlay\Landing;
use ZigLane\Core\PositionPlay\LandingSearch;
use ZigLane\Core\PositionPlay\LandingTarget;
use ZigLane\Core\PositionPlay\SpotTarget;
use ZigLane\Core\PositionPlay\Zone;
use ZigLane\Core\PositionPlay\ZoneTarget;
use ZigLane\Core\Table\Spot;

/** Strokes that bring the cue ball to a spot or into the zone of the next ball. */
final readonly class LandingAnalysis implements ShotAnalysis
{
    /** How much more the cue is raised than it is, degrees. */
    private const RAISED = [8.0, 18.0];
    /** Failures that are named. */
    private const NAMED = 3;

    /**
     * @param Spot|null        $spot        where the cue ball is to stop
     * @param list<list<Spot>> $area        outlines of the zone that it may stop in; none where it is a spot
     * @param list<Landing>    $landings    the best first
     * @param list<Fact>       $facts
     * @param list<Suggestion> $suggestions
     */
    private function __construct(
        public ?Spot $spot,
        public array $area,
        public array $landings,
        private array $facts,
        private array $suggestions,
        private bool $hasMore,
    ) {
    }

    public static function of(AnalysisRequest $request): self
    {
        $shot = $request->shot;
        $next = $request->nextOn($shot->layout);
        $pots = null === $request->target && null !== $next ? $request->pots($shot->layout->without($shot->choice->ball), $next) : [];
        if (null !== $request->target) {
            return self::found($request, new SpotTarget($request->target), []);
        }
        if ($request->inZone && [] !== $pots) {
            $zone = Zone::of($pots, $request->rack->equipment);

            return self::found($request, new ZoneTarget($pots, $request->least), $zone->rings($request->least));
        }
        $anywhere = [] === $pots
            ? []
            : [new Suggestion(
                null,
                new Fact('landing.anywhere', ['next' => $next]),
                new Fact('landing.least', ['leastShare' => $request->least]),
            )];

        return new self(null, [], [], [new Fact('landing.ask')], $anywhere, false);
    }

    /** @param list<list<Spot>> $area */
    private static function found(AnalysisRequest $request, LandingTarget $target, array $area): self
    {
        $shot = $request->shot;
        $choice = $shot->choice;
        $search = new LandingSearch($request->solver, $request->rack->player);
        $sides = $request->more ? $search->sides($shot->layout, $choice->ball, $choice->pocket) : [];
        $elevation = $choice->stroke->elevation;
        $raised = $request->more
            ? array_filter(
                array_map(static fn (float $more): float => $elevation + $more, self::RAISED),
                static fn (float $degrees): bool => $degrees <= Strike::MAX_ELEVATION_DEGREES,
            )
            : [];
        $landings = $search->find(
            $shot->layout, $choice->ball, $choice->pocket, $target, $elevation, [0.0, ...$sides],
            array_values($raised),
        );
        $failures = array_map(
            static fn (array $failure): Fact => new Fact('landing.failure', ['times' => $failure[1], 'why' => $failure[0]]),
            \array_slice($search->failures(), 0, self::NAMED),
        );
        $isSpot = $target instanceof SpotTarget;
        $facts = match (true) {
            [] === $landings => [new Fact('landing.none', ['ball' => $choice->ball, 'pocket' => $choice->pocket, 'failures' => $failures])],
            $landings[0]->off <= LandingSearch::CLOSE => [new Fact(
                $isSpot ? 'landing.there' : 'landing.inZone',
                ['roomMetres' => SpotTarget::ROOM, 'tries' => LandingSearch::TRIES],
            )],
            $isSpot => [new Fact('landing.nearest', ['failures' => $failures, 'offMetres' => $landings[0]->off])],
            default => [new Fact(
                'landing.nearestZone',
                ['failures' => $failures, 'oddsShare' => $request->least - ($landings[0]->off - 1)],
            )],
        };
        $facts[] = match (true) {
            !$request->more => new Fact('landing.tryingMore'),
            [] === $sides => new Fact('landing.triedRaised', ['least' => self::RAISED[0], 'most' => self::RAISED[1]]),
            default => new Fact('landing.triedSides', ['least' => self::RAISED[0], 'most' => self::RAISED[1]]),
        };
        $suggestions = array_map(static fn (Landing $landing): Suggestion => new Suggestion(
            $landing->shot->choice,
            FanAnalysis::route($landing->route),
            new Fact(
                $isSpot ? 'landing.odds' : 'landing.zoneOdds',
                ['madeShare' => $landing->made, 'thereShare' => $landing->there, 'clearShare' => $landing->clear],
            ),
        ), $landings);

        return new self($target instanceof SpotTarget ? $target->spot : null, $area, $landings, $facts, $suggestions, !$request->more);
    }

    public function facts(): array
    {
        return $this->facts;
    }

    public function suggestions(): array
    {
        return $this->suggestions;
    }

    public function hasMore(): bool
    {
        return $this->hasMore;
    }
}
