<?php

declare(strict_types=1);

namespace ZigLane\Core\Practice;

/** What simulated players of one hand scored in a drill. */
final readonly class Par
{
    /**
     * @param array<int|string, int> $scores runs by their points, the least first
     * @param string|null            $why    why nobody can score, if so: `noStroke`, `never`
     */
    public function __construct(public array $scores, public float $pass, public ?string $why = null)
    {
    }

    /** @param iterable<array<int|string, int>> $blocks */
    public static function sum(iterable $blocks, float $pass, ?string $why = null): self
    {
        $scores = [];
        foreach ($blocks as $block) {
            foreach ($block as $points => $count) {
                $scores[$points] = ($scores[$points] ?? 0) + $count;
            }
        }
        ksort($scores, \SORT_NUMERIC);

        return new self($scores, $pass, $why);
    }

    public function runs(): int
    {
        return array_sum($this->scores);
    }

    public function mean(): float
    {
        $sum = 0.0;
        foreach ($this->scores as $points => $count) {
            $sum += (float) $points * $count;
        }

        return $sum / max(1, $this->runs());
    }

    public function deviation(): float
    {
        $mean = $this->mean();
        $sum = 0.0;
        foreach ($this->scores as $points => $count) {
            $sum += ((float) $points - $mean) ** 2 * $count;
        }

        return \sqrt($sum / max(1, $this->runs()));
    }

    /** Share of the runs that pass; null where the drill has no mark. */
    public function passShare(): ?float
    {
        return $this->pass > 0.0 ? $this->atLeast($this->pass) / max(1, $this->runs()) : null;
    }

    /** Share of the runs that score less than a player did, those that score the same counted half: 0 to 1. */
    public function rank(float $points): float
    {
        $below = 0.0;
        foreach ($this->scores as $score => $count) {
            $below += (float) $score < $points ? $count : ((float) $score === $points ? 0.5 * $count : 0.0);
        }

        return $below / max(1, $this->runs());
    }

    private function atLeast(float $points): int
    {
        $count = 0;
        foreach ($this->scores as $score => $runs) {
            $count += (float) $score >= $points ? $runs : 0;
        }

        return $count;
    }
}
