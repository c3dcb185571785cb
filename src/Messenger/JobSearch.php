<?php

declare(strict_types=1);

namespace ZigLane\App\Messenger;

use ZigLane\Core\Error\CoreError;

/** What workers do of a job, in pieces that may be done by any of them: every worker finds the same ways, and blocks count once. */
interface JobSearch
{
    /** @return CoreError|null why there is nothing to look for; null where there is */
    public function refusal(): ?CoreError;

    /** @return string|null a first answer as a file, before the ways are weighed; null where there is none */
    public function first(float $seconds): ?string;

    /**
     * @return int ways that are weighed
     *
     * @throws CoreError If there is none
     */
    public function ways(): int;

    /** Share of the time that is searched; the rest is for writing the answer down. */
    public function searched(): float;

    /** Blocks that will be due at the most. */
    public function blocks(): int;

    /**
     * @param list<array<int, array<mixed>>> $done by way and block, as `block` gave them
     *
     * @return list<array{int, int}> way and block, the first to be done first
     */
    public function due(array $done): array;

    /**
     * What an answer must rest on, however long it takes: seconds bound only what goes beyond.
     *
     * @param list<array<int, array<mixed>>> $done
     *
     * @return list<array{int, int}> way and block, in order; none where an answer can be written
     */
    public function owed(array $done): array;

    /** @return array<mixed> what came of a block */
    public function block(int $way, int $block): array;

    /**
     * @param list<array<int, array<mixed>>> $done
     * @param bool                           $isLast  the answer, and not a better one on the way
     * @param \Closure(): bool               $hasTime whether there is time for what is not needed
     *
     * @return string a file
     */
    public function written(array $done, bool $isLast, float $seconds, \Closure $hasTime): string;
}
