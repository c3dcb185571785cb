<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Math\Normal;
use ZigLane\Core\Odds\Trials;

/** What came of the racks of a duel, to its first player. */
final class DuelScore
{
    public int $games = 0;
    private float $sum = 0.0;
    private float $squares = 0.0;
    private int $won = 0;
    private int $drawn = 0;

    /**
     * @param float $result 1 won, 0 lost, 0.5 undecided; in straight pool balls, his less the other's
     * @param bool  $isPool whether it is in balls
     */
    public function add(float $result, bool $isPool): void
    {
        ++$this->games;
        $this->sum += $result;
        $this->squares += $result ** 2;
        $even = $isPool ? 0.0 : 0.5;
        $this->won += $result > $even ? 1 : 0;
        $this->drawn += $result === $even ? 1 : 0;
    }

    public function won(): int
    {
        return $this->won;
    }

    public function drawn(): int
    {
        return $this->drawn;
    }

    /** Share of the racks won, a draw as half of one. */
    public function share(): float
    {
        return ($this->won + 0.5 * $this->drawn) / max(1, $this->games);
    }

    /** @return array{float, float} of the share at 95 percent (Wilson) */
    public function interval(): array
    {
        return 0 === $this->games ? [0.0, 1.0] : Trials::interval((int) round($this->won + 0.5 * $this->drawn), $this->games);
    }

    /** Mean result: in straight pool balls. */
    public function mean(): float
    {
        return $this->sum / max(1, $this->games);
    }

    /** @return array{float, float} of the mean at 95 percent (normal) */
    public function meanInterval(): array
    {
        $n = max(2, $this->games);
        $half = Normal::NINETY_FIVE * Normal::errorOfMean($this->sum, $this->squares, $n);

        return [$this->mean() - $half, $this->mean() + $half];
    }
}
