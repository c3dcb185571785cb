<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

/**
 * Which replays are due: fewer and fewer candidates get more and more of them (successive halving; Karnin, Koren and Somekh, ICML 2013).
 * What is due depends on the blocks that are done and on nothing else, so it does not matter who does them, nor in which order.
 */
final class ReplaySchedule
{
    /** Replays in a block. */
    public const BLOCK = 20;
    /** Stages: how many of the candidates are kept, and how many blocks each has had at the end. */
    private const STAGES = [[6, 2], [4, 5], [2, 12], [1, 40]];

    /** Blocks in all stages together. */
    public static function blocks(int $candidates): int
    {
        $sum = 0;
        $had = 0;
        foreach (self::STAGES as [$keep, $blocks]) {
            $sum += min($keep, $candidates) * ($blocks - $had);
            $had = $blocks;
        }

        return $sum;
    }

    /**
     * The blocks that are due now, in order; none when the search is done.
     *
     * @param list<array<int, Tally>> $done by candidate and block
     *
     * @return list<array{int, int}> candidate and block
     */
    public static function due(array $done): array
    {
        $had = 0;
        foreach (self::STAGES as [$keep, $blocks]) {
            $due = [];
            foreach (\array_slice(self::ranking($done, $had), 0, $keep) as $candidate) {
                for ($block = $had; $block < $blocks; ++$block) {
                    if (!isset($done[$candidate][$block])) {
                        $due[] = [$candidate, $block];
                    }
                }
            }
            if ([] !== $due) {
                return $due;
            }
            $had = $blocks;
        }

        return [];
    }

    /**
     * The candidates by what their first blocks gave, the best first; as they were found where none is done.
     *
     * @param list<array<int, Tally>> $done
     *
     * @return list<int>
     */
    private static function ranking(array $done, int $blocks): array
    {
        $order = array_keys($done);
        $chance = static fn (int $candidate): float => Tally::sum(array_filter(
            $done[$candidate],
            static fn (int $block): bool => $block < $blocks,
            \ARRAY_FILTER_USE_KEY,
        ))->chance();
        if ($blocks > 0) {
            // Those that had all of these blocks come before those that were dropped earlier.
            $rank = array_map(
                static fn (int $candidate): array => [
                    \count(array_filter(array_keys($done[$candidate]), static fn (int $block): bool => $block < $blocks)),
                    $chance($candidate),
                    -$candidate,
                ],
                $order,
            );
            usort($order, static fn (int $a, int $b): int => $rank[$b] <=> $rank[$a]);
        }

        return $order;
    }

    /**
     * The candidates as all replays rank them now, the best first: by the chance that each has at the least (at 95 percent), so that few
     * lucky replays do not outdo many.
     *
     * @param list<array<int, Tally>> $done
     *
     * @return list<int>
     */
    public static function best(array $done): array
    {
        $least = array_map(static fn (array $blocks): float => Tally::sum($blocks)->interval()[0], $done);
        $order = array_keys($done);
        usort($order, static fn (int $a, int $b): int => [$least[$b], $a] <=> [$least[$a], $b]);

        return $order;
    }

    /**
     * The candidates to be shown side by side: the best of those that were replayed; before any was, the first as it was found.
     *
     * @param list<array<int, Tally>> $done
     *
     * @return list<int>
     */
    public static function shown(array $done, int $most): array
    {
        $best = self::best($done);
        $replayed = array_values(array_filter($best, static fn (int $candidate): bool => [] !== $done[$candidate]));

        return \array_slice([] === $replayed ? \array_slice($best, 0, 1) : $replayed, 0, $most);
    }
}
