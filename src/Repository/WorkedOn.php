<?php

declare(strict_types=1);

namespace ZigLane\App\Repository;

use Symfony\Component\Uid\Uuid;

/** What a worker does to a job of a repository whose TABLE it is: each change is a statement of its own, and it ends once. */
trait WorkedOn
{
    public function progress(Uuid $id, float $share): void
    {
        $this->getEntityManager()->getConnection()->executeStatement(
            'UPDATE '.self::TABLE.' SET progress = ? WHERE id = ? AND ended_at IS NULL',
            [round($share, 3), $id->toBinary()],
        );
    }

    /** @param array<mixed>|null $answer null: nothing came of it */
    public function finish(Uuid $id, ?array $answer): void
    {
        $this->getEntityManager()->getConnection()->executeStatement(
            'UPDATE '.self::TABLE.' SET progress = 1, answer = ?, ended_at = ? WHERE id = ? AND ended_at IS NULL',
            [
                null === $answer ? null : json_encode($answer, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION),
                $this->clock->now()->format('Y-m-d H:i:s'), $id->toBinary(),
            ],
        );
    }
}
