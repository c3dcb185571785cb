<?php

declare(strict_types=1);

namespace ZigLane\App\Practice;

use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\DrillPar;
use ZigLane\App\Entity\DrillSession;
use ZigLane\Core\Practice\Par;

/** The pars of a drill beside the player's own scores: a small histogram, and a line for each level. */
final readonly class ParPlot
{
    private const BARS = 24;

    /** @var list<array{name: string, par: Par, progress: float, id: Uuid}> the worst hand first */
    public array $levels;

    /** @var list<array{from: float, share: float, mine: int}> bars of the hand that the player is held against */
    public array $bars;

    public ?Par $par;
    public string $whose;
    public bool $isAsked;
    public bool $isWorked;

    /** The share of the longest bar. */
    public float $longest;

    /** @var list<float> scored on this version, the first first */
    public array $scores;

    /**
     * @param array<string, DrillPar> $known    by hand
     * @param list<DrillSession>      $sessions of this drill and level, the latest first
     * @param int                     $hands    pars that there could be
     */
    public function __construct(array $known, array $sessions, string $hash, string $whose, int $hands)
    {
        $levels = [];
        foreach ($known as $name => $par) {
            $levels[] = ['name' => $name, 'par' => $par->getPar(), 'progress' => $par->progress(), 'id' => $par->getId()];
        }
        $this->levels = $levels;
        $this->whose = $whose;
        $this->isAsked = \count($known) >= $hands;
        $this->isWorked = [] !== array_filter($levels, static fn (array $one): bool => $one['progress'] < 1.0);
        $scores = [];
        foreach (array_reverse($sessions) as $session) {
            if ($session->isScored() && null !== $session->getEndedAt() && $session->getVersion()->getHash() === $hash) {
                $scores[] = (float) $session->getScore();
            }
        }
        $this->scores = $scores;
        $par = isset($known[$whose]) ? $known[$whose]->getPar() : null;
        $this->par = null === $par || 0 === $par->runs() ? null : $par;
        $this->bars = null === $this->par ? [] : self::bars($this->par, $scores);
        $this->longest = max([0.01, ...array_column($this->bars, 'share')]);
    }

    public function last(): ?float
    {
        return $this->scores[\count($this->scores) - 1] ?? null;
    }

    public function best(): ?float
    {
        return [] === $this->scores ? null : max($this->scores);
    }

    /**
     * @param list<float> $scores
     *
     * @return list<array{from: float, share: float, mine: int}>
     */
    private static function bars(Par $par, array $scores): array
    {
        $points = array_map(floatval(...), array_keys($par->scores));
        $most = max([...$points, ...$scores, 1.0]);
        $width = max(1.0, ceil(($most + 1) / self::BARS));
        $bars = [];
        for ($from = 0.0; $from <= $most; $from += $width) {
            $share = 0;
            foreach ($par->scores as $score => $count) {
                $share += (float) $score >= $from && (float) $score < $from + $width ? $count : 0;
            }
            $mine = \count(array_filter($scores, static fn (float $score): bool => $score >= $from && $score < $from + $width));
            $bars[] = ['from' => $from, 'share' => $share / max(1, $par->runs()), 'mine' => $mine];
        }

        return $bars;
    }
}
