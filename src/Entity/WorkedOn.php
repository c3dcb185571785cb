<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\ORM\Mapping as ORM;

/** Work that is asked for, done by a worker with statements of its own (Repository\WorkedOn) and ended once. */
trait WorkedOn
{
    /** Share that is done, 0 to 1. */
    #[ORM\Column]
    private float $progress = 0.0;

    #[ORM\Column(nullable: true)]
    private ?\DateTimeImmutable $endedAt = null;

    #[ORM\Column]
    private \DateTimeImmutable $createdAt;

    public function getProgress(): float
    {
        return $this->progress;
    }

    public function getCreatedAt(): \DateTimeImmutable
    {
        return $this->createdAt;
    }

    public function getEndedAt(): ?\DateTimeImmutable
    {
        return $this->endedAt;
    }

    /** Whether it is waited for: one that has not ended after ten minutes may be asked for again. */
    public function isUnderWay(\DateTimeImmutable $now): bool
    {
        return null === $this->endedAt && $this->createdAt >= $now->modify('-10 minutes');
    }
}
