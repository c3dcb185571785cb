<?php

declare(strict_types=1);

namespace ZigLane\Core\Reading;

use ZigLane\Core\Name\Ball;

/** One ball, read. */
final readonly class BallReading
{
    /**
     * @param non-empty-list<PocketReading> $pockets the best odds first
     * @param list<Ball>                    $cluster balls that it lies together with
     * @param float                         $seen    how much of it the cue ball can meet straight, 0 (hooked) to 1
     */
    public function __construct(
        public Ball $ball,
        public array $pockets,
        public bool $isFrozen,
        public bool $isHanging,
        public array $cluster,
        public float $seen,
    ) {
    }

    public function openPockets(): int
    {
        return \count($this->open());
    }

    public function best(): PocketReading
    {
        return $this->pockets[0];
    }

    /** The one pocket that it goes to, or null if there are more or none. */
    public function onlyPocket(): ?PocketReading
    {
        $open = $this->open();

        return 1 === \count($open) ? $open[0] : null;
    }

    /** @return list<PocketReading> */
    private function open(): array
    {
        return array_values(array_filter($this->pockets, static fn (PocketReading $pocket): bool => $pocket->isReal()));
    }
}
