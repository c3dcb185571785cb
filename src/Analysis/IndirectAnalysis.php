<?php

declare(strict_types=1);

namespace ZigLane\App\Analysis;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Rules\BallsOn;
use ZigLane\Core\Shot\IndirectSearch;
use ZigLane\Core\Shot\IndirectShot;

/** Combinations, caroms, banks and kicks that the rules allow from here. */
final readonly class IndirectAnalysis implements ShotAnalysis
{
    /** Ways that are shown. */
    private const SHOWN = 8;
    /** More balls that may be met first than these are not named. */
    private const NAMED = 3;

    /**
     * @param list<IndirectShot> $ways the best odds first
     * @param list<Ball>         $on   the balls that may be met first
     */
    private function __construct(public array $ways, private array $on)
    {
    }

    public static function of(AnalysisRequest $request): self
    {
        $on = BallsOn::of($request->rack->game, $request->shot->layout, $request->rack->group);

        return new self(
            \array_slice((new IndirectSearch(
                $request->rack->withLayout($request->shot->layout),
                solver: $request->solver,
            ))->find($on), 0, self::SHOWN),
            $on,
        );
    }

    public function facts(): array
    {
        return [match (true) {
            [] === $this->ways => new Fact('indirect.none', ['leastShare' => IndirectSearch::REAL]),
            \count($this->on) > self::NAMED => new Fact('indirect.found', ['tries' => $this->ways[0]->tries]),
            default => new Fact('indirect.foundMeeting', ['tries' => $this->ways[0]->tries, 'on' => $this->on]),
        }];
    }

    public function suggestions(): array
    {
        return array_map(static fn (IndirectShot $found): Suggestion => new Suggestion(
            $found->way->shot->choice,
            new Fact('indirect.title', ['ball' => $found->way->shot->choice->ball, 'pocket' => $found->way->shot->choice->pocket]),
            new Fact('indirect.odds', ['way' => $found->way->fact(), 'oddsShare' => $found->odds]),
        ), $this->ways);
    }

    public function hasMore(): bool
    {
        return false;
    }
}
