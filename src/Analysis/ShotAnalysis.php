<?php

declare(strict_types=1);

namespace ZigLane\App\Analysis;

use ZigLane\Core\Fact\Fact;

/** One look at a shot: what there is to say of it, and the strokes that can be taken from it. */
interface ShotAnalysis
{
    /** @return list<Fact> each becomes a sentence */
    public function facts(): array;

    /** @return list<Suggestion> */
    public function suggestions(): array;

    /** Whether a slower, better answer is to be asked for. */
    public function hasMore(): bool;
}
