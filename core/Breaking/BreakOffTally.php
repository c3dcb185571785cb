<?php

declare(strict_types=1);

namespace ZigLane\Core\Breaking;

use ZigLane\Core\Odds\Trials;

/** What many break shots of straight pool came to. */
final class BreakOffTally
{
    public int $shots = 0;
    public int $made = 0;
    public int $scratches = 0;
    /** Sum of racked balls that left their place. */
    public int $opened = 0;
    /** The rack opened (BreakOff::isOpen). */
    public int $open = 0;
    /** Made, the cue ball on the table, and open. */
    public int $good = 0;
    /** Of how many good ones what is left was looked at; and the sum of the easiest pots' chances. */
    public int $looked = 0;
    public float $left = 0.0;

    /** @var array<int, int> how often a racked ball stayed where it was, by number */
    public array $stuck = [];

    /** @var list<array{float, float}> where the cue ball stopped, metres */
    public array $spots = [];

    /** @return array{float, float, float} a share with its 95 percent interval (Wilson) */
    public function share(int $count): array
    {
        return Trials::told($count, $this->shots);
    }

    /** The chance of the easiest pot after one that was made; 0 counts where the rack stayed shut. */
    public function next(): float
    {
        return $this->left / max(1, $this->looked);
    }
}
