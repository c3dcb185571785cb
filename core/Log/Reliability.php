<?php

declare(strict_types=1);

namespace ZigLane\Core\Log;

use ZigLane\Core\Odds\Trials;

/**
 * Stated chances beside what came of them: of the shots of which so much was stated, the share that came off. The interval of a share is
 * Wilson's at 95 percent.
 *
 * @phpstan-type Bin array{low: float, high: float, count: int, stated: float, share: float, interval: array{float, float}}
 */
final readonly class Reliability
{
    /** Edges of the bins: finer where most shots are. */
    private const EDGES = [0.0, 0.2, 0.4, 0.55, 0.7, 0.8, 0.9, 0.97, 1.0];

    /**
     * @param list<Bin> $bins   that have shots
     * @param int       $count  all of them
     * @param float     $stated mean of what was stated, 0 to 1
     * @param float     $share  that came off, 0 to 1
     */
    private function __construct(public array $bins, public int $count, public float $stated, public float $share)
    {
    }

    /** @param list<array{float, bool}> $shots what was stated, 0 to 1, and whether it came off */
    public static function of(array $shots): self
    {
        $bins = [];
        for ($i = 1; $i < \count(self::EDGES); ++$i) {
            [$low, $high] = [self::EDGES[$i - 1], self::EDGES[$i]];
            $isLast = $i + 1 === \count(self::EDGES);
            $in = array_values(array_filter(
                $shots,
                static fn (array $shot): bool => $shot[0] >= $low && ($shot[0] < $high || $isLast),
            ));
            if ([] !== $in) {
                $bins[] = self::bin($low, $high, $in);
            }
        }

        return new self($bins, \count($shots), self::mean($shots), [] === $shots ? 0.0 : self::hits($shots) / \count($shots));
    }

    /**
     * @param non-empty-list<array{float, bool}> $shots
     *
     * @return Bin
     */
    private static function bin(float $low, float $high, array $shots): array
    {
        $hits = self::hits($shots);

        return [
            'low' => $low, 'high' => $high, 'count' => \count($shots), 'stated' => self::mean($shots), 'share' => $hits / \count($shots),
            'interval' => Trials::interval($hits, \count($shots)),
        ];
    }

    /**
     * By how much more was stated than came off, and its interval: positive where the chances are over-rated.
     *
     * @return array{float, array{float, float}} shares
     */
    public function over(): array
    {
        [$low, $high] = Trials::interval((int) round($this->share * $this->count), max(1, $this->count));

        return [$this->stated - $this->share, [$this->stated - $high, $this->stated - $low]];
    }

    /** Whether the interval says that what is stated is too much (1) or too little (-1); 0 where it cannot be told. */
    public function isOff(): int
    {
        [, [$least, $most]] = $this->over();

        return 0 === $this->count ? 0 : ($least > 0.0 ? 1 : ($most < 0.0 ? -1 : 0));
    }

    /** @param list<array{float, bool}> $shots */
    private static function hits(array $shots): int
    {
        return \count(array_filter(array_column($shots, 1)));
    }

    /** @param list<array{float, bool}> $shots */
    private static function mean(array $shots): float
    {
        return [] === $shots ? 0.0 : array_sum(array_column($shots, 0)) / \count($shots);
    }
}
