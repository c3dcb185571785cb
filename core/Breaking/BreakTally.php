<?php

declare(strict_types=1);

namespace ZigLane\Core\Breaking;

use ZigLane\Core\Odds\Trials;

/** What many breaks came to: counts, and where balls lay. Tallies of parts can be put together. */
final class BreakTally
{
    public int $breaks = 0;
    /** Object balls that dropped. */
    public int $made = 0;
    public int $dry = 0;
    public int $scratches = 0;
    public int $illegal = 0;
    /** The breaker shoots on. */
    public int $goesOn = 0;
    public int $won = 0;
    /** A ball on the wing went to the corner on its side. */
    public int $wings = 0;
    /** The ball at the apex dropped in a side pocket. */
    public int $apexToSide = 0;
    /** The breaker shoots on and has a shot that he makes more often than not. */
    public int $shots = 0;
    /** Sum of the breaker's chances to run out from there; 0 where he does not shoot on, 1 where the break won. */
    public float $runOuts = 0.0;
    /** Sum of distances between object balls, metres. */
    public float $spread = 0.0;

    /** @var array<string, int> by pocket: object balls */
    public array $pockets = [];

    /** @var array<string, list<array{float, float}>> metres, by "cue", "apex" (the lowest ball that is left, or the 8) and "money" */
    public array $spots = ['cue' => [], 'first' => [], 'money' => []];

    /** @return array{float, float, float} a share with its 95 percent interval (Wilson) */
    public function share(int $count): array
    {
        return Trials::told($count, $this->breaks);
    }

    public function runOut(): float
    {
        return $this->runOuts / max(1, $this->breaks);
    }

    /** Standard error of the mean chance to run out. */
    public function runOutError(): float
    {
        $mean = $this->runOut();

        return \sqrt(max(1e-6, $mean * (1 - $mean)) / max(1, $this->breaks));
    }

    public function add(self $other): void
    {
        foreach (['breaks', 'made', 'dry', 'scratches', 'illegal', 'goesOn', 'won', 'wings', 'apexToSide', 'shots'] as $count) {
            $this->$count += $other->$count;
        }
        $this->runOuts += $other->runOuts;
        $this->spread += $other->spread;
        foreach ($other->pockets as $pocket => $count) {
            $this->pockets[$pocket] = ($this->pockets[$pocket] ?? 0) + $count;
        }
        foreach ($other->spots as $what => $spots) {
            $this->spots[$what] = [...$this->spots[$what] ?? [], ...$spots];
        }
    }
}
