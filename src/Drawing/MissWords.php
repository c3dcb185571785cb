<?php

declare(strict_types=1);

namespace ZigLane\App\Drawing;

/** What the misses of a shot leave the other player, in a sentence. */
final class MissWords
{
    /**
     * @param int        $count misses
     * @param int        $fouls of them
     * @param float|null $leave mean chance of the other player's easiest pot after the others; null if there are none
     */
    public static function of(int $count, int $fouls, ?float $leave): string
    {
        return match (true) {
            0 === $count => '',
            null === $leave => 'Every miss is a foul as well: ball in hand for the other player.',
            default => \sprintf('A miss leaves the other player a pot of %d of 100%s.', (int) round(100 * $leave), 0 === $fouls ? '' : \sprintf(', but for the %s in %d misses', 1 === $fouls ? 'foul' : $fouls.' fouls', $count)),
        };
    }
}
