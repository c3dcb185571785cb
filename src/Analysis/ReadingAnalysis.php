<?php

declare(strict_types=1);

namespace ZigLane\App\Analysis;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Reading\BallReading;
use ZigLane\Core\Reading\PocketReading;
use ZigLane\Core\Reading\TableReading;

/** The table as it is read walking round: every ball with every pocket, and what makes it trouble. */
final readonly class ReadingAnalysis implements ShotAnalysis
{
    /** Gaps beside a way that are told, metres. */
    private const CLOSE = 0.06;
    /** A pocket of which less is open is told as partly open. */
    private const PARTLY = 0.35;

    private function __construct(public TableReading $reading, public Layout $layout)
    {
    }

    public static function of(AnalysisRequest $request): self
    {
        return new self(TableReading::of($request->shot->layout, $request->solver, $request->rack->player), $request->shot->layout);
    }

    public function facts(): array
    {
        return [];
    }

    public function suggestions(): array
    {
        return [];
    }

    public function hasMore(): bool
    {
        return false;
    }

    /** @return list<Fact> what makes a ball trouble; empty if nothing does */
    public static function trouble(BallReading $ball): array
    {
        $only = $ball->onlyPocket();

        return [
            ...(0 === $ball->openPockets() ? [new Fact('trouble.noPocket')] : []),
            ...(null !== $only ? [new Fact('trouble.onlyPocket', ['pocket' => $only->pocket])] : []),
            ...([] !== $ball->cluster ? [new Fact('trouble.cluster', ['others' => $ball->cluster])] : []),
            ...($ball->isFrozen ? [new Fact('trouble.onRail')] : []),
            ...($ball->isHanging ? [new Fact('trouble.hangs')] : []),
            ...(0.0 === $ball->seen ? [new Fact('trouble.hooked')] : ($ball->seen < 0.999 ? [new Fact(
                'trouble.seen',
                ['seenShare' => $ball->seen],
            )] : [])),
        ];
    }

    /**
     * @return list<array{Fact, bool}> first the pockets that can be played from here, then the others, then those that are blocked; whether
     *                                 it can not be played
     */
    public static function pockets(BallReading $ball): array
    {
        $here = $elsewhere = [];
        $blocked = [];
        foreach ($ball->pockets as $pocket) {
            if (!$pocket->isReal()) {
                $blocked[] = [
                    [] === $pocket->blockers
                        ? new Fact('pot.blocked', ['pocket' => $pocket->pocket])
                        : new Fact(
                            'pot.blockedBy',
                            ['pocket' => $pocket->pocket, 'blockers' => array_values(array_unique($pocket->blockers, \SORT_REGULAR))],
                        ),
                    true,
                ];
            } elseif (null === $pocket->cut) {
                $elsewhere[] = $pocket->pocket;
            } else {
                $here[] = [self::pot($pocket), false];
            }
        }

        return [...$here, ...([] === $elsewhere ? [] : [[new Fact('pot.notFromHere', ['pockets' => $elsewhere]), true]]), ...$blocked];
    }

    private static function pot(PocketReading $pocket): Fact
    {
        $parts = [];
        foreach (['ball' => $pocket->beside, 'cueBall' => $pocket->way ?? ['left' => null, 'right' => null]] as $whose => $gaps) {
            foreach ($gaps as $side => $nearest) {
                if (null !== $nearest && $nearest[0] < self::CLOSE) {
                    $parts[] = $nearest[0] < 0.0
                        ? new Fact('gap.blocked', ['whose' => $whose, 'side' => $side, 'by' => $nearest[1]])
                        : new Fact('gap.clears', ['whose' => $whose, 'side' => $side, 'gapMetres' => $nearest[0], 'by' => $nearest[1]]);
                }
            }
        }
        if (null !== $pocket->openSide) {
            $parts[] = new Fact('gap.openSide', ['side' => $pocket->openSide->value]);
        } elseif ($pocket->openShare < self::PARTLY) {
            $parts[] = new Fact('gap.partlyOpen');
        }

        return new Fact(
            'pot.here',
            ['pocket' => $pocket->pocket, 'oddsShare' => $pocket->odds, 'cutDegrees' => $pocket->cut ?? 0.0, 'parts' => $parts],
        );
    }
}
