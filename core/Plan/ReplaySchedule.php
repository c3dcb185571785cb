<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

/**
 * Which replays are due: fewer and fewer candidates get more and more of them (successive halving; Karnin, Koren and Somekh, ICML 2013).
 * What is due depends on the blocks that are done and on nothing else, so it does not matter who does them, nor in which order. Blocks that
 * choose between the candidates have no part in the odds that are stated, or those would be the luck of the chosen.
 */
final class ReplaySchedule
{
    /** Replays in a block. */
    public const BLOCK = 10;
    /** Stages: how many of the candidates are kept, and how many blocks each has had at the end. */
    private const STAGES = [[6, 2], [4, 6], [2, 16], [1, 80]];
    /** From this block on there is nothing left to choose; before, every other one chooses. */
    private const CHOSEN = 16;

    /** Replays that the stated odds of the best plan rest on at the least, however slow the machine is. */
    public const LEAST = 100;

    /** By how much a plainer candidate may be behind the best at the most, however few replays there are; of balls run a share. */
    private const ALIKE = 0.05;
    private const ALIKE_BALLS = 0.1;

    /** Whether a block serves to choose between candidates; else it serves to state their odds. */
    public static function chooses(int $block): bool
    {
        return $block < self::CHOSEN && 1 === $block % 2;
    }

    /**
     * The replays of a candidate that had no part in choosing it.
     *
     * @param array<int, Tally> $blocks
     */
    public static function stated(array $blocks): Tally
    {
        return Tally::sum(array_filter($blocks, static fn (int $block): bool => !self::chooses($block), \ARRAY_FILTER_USE_KEY));
    }

    /**
     * The blocks that the best candidate still lacks for its odds to be told, in order: what a plan holds does not depend on the clock.
     *
     * @param list<array<int, Tally>> $done by candidate and block
     * @param list<float>             $fuss of the first shot of each candidate; none: all are as plain
     *
     * @return list<array{int, int}> candidate and block
     */
    public static function owed(array $done, array $fuss = []): array
    {
        $best = self::best($done, $fuss)[0] ?? null;
        if (null === $best) {
            return [];
        }
        $lacking = self::LEAST - self::stated($done[$best])->tries;
        $owed = [];
        for ($block = 0; $lacking > 0; ++$block) {
            if (!self::chooses($block) && !isset($done[$best][$block])) {
                $owed[] = [$best, $block];
                $lacking -= self::BLOCK;
            }
        }

        return $owed;
    }

    /**
     * Those by which it is chosen.
     *
     * @param array<int, Tally> $blocks
     */
    private static function choosing(array $blocks, int $before = self::CHOSEN): Tally
    {
        return Tally::sum(array_filter(
            $blocks,
            static fn (int $block): bool => $block < $before && self::chooses($block),
            \ARRAY_FILTER_USE_KEY,
        ));
    }

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
     * @param list<float>             $fuss of the first shot of each candidate, by which the last stage chooses; none: all are as plain
     *
     * @return list<array{int, int}> candidate and block
     */
    public static function due(array $done, array $fuss = []): array
    {
        $had = 0;
        foreach (self::STAGES as [$keep, $blocks]) {
            $due = [];
            $ranking = 1 === $keep ? self::best($done, $fuss) : self::ranking($done, $had);
            foreach (\array_slice($ranking, 0, $keep) as $candidate) {
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
        $chance = static fn (int $candidate): float => self::choosing($done[$candidate], $blocks)->score();
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
     * The candidates as their replays rank them now, the best first: by the chance that each has at the least (at 95 percent), so that few
     * lucky replays do not outdo many. Of those that the replays cannot tell from the best (within one standard error of the difference)
     * the plainest comes first.
     *
     * @param list<array<int, Tally>> $done
     * @param list<float>             $fuss of the first shot of each candidate; none: all are as plain
     *
     * @return list<int>
     */
    public static function best(array $done, array $fuss = []): array
    {
        $tallies = array_map(static fn (array $blocks): Tally => self::choosing($blocks), $done);
        $least = array_map(static fn (Tally $replays): float => $replays->least(), $tallies);
        $order = array_keys($done);
        usort($order, static fn (int $a, int $b): int => [$least[$b], $a] <=> [$least[$a], $b]);
        $best = $order[0] ?? null;
        if (null === $best || 0 === $tallies[$best]->tries) {
            return $order;
        }
        $plainest = $best;
        foreach ($order as $other) {
            if (($fuss[$other] ?? 0.0) < ($fuss[$plainest] ?? 0.0) && self::isAsGood($tallies[$other], $tallies[$best])) {
                $plainest = $other;
            }
        }

        return [$plainest, ...array_values(array_filter($order, static fn (int $candidate): bool => $candidate !== $plainest))];
    }

    /** Whether replays cannot tell one from a better one, which has as many replays or more. */
    private static function isAsGood(Tally $one, Tally $best): bool
    {
        if (0 === $one->tries || 2 * $one->tries < $best->tries) {
            return false;
        }

        $most = $best->isOverRacks ? self::ALIKE_BALLS * $best->score() : self::ALIKE;

        return $one->score() >= $best->score() - min($most, hypot($one->error(), $best->error()));
    }

    /**
     * The candidates to be shown side by side: the best of those with odds to state; before any has them, the first as it was found.
     *
     * @param list<array<int, Tally>> $done
     * @param list<float>             $fuss
     *
     * @return list<int>
     */
    public static function shown(array $done, int $most, array $fuss = []): array
    {
        $best = self::best($done, $fuss);
        $replayed = array_values(array_filter($best, static fn (int $candidate): bool => self::stated($done[$candidate])->tries > 0));

        return \array_slice([] === $replayed ? \array_slice($best, 0, 1) : $replayed, 0, $most);
    }
}
