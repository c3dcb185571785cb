<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\ORM\Mapping as ORM;

/** The column of what is Deletable. */
trait DeletedAt
{
    #[ORM\Column(nullable: true)]
    private ?\DateTimeImmutable $deletedAt = null;

    public function isDeleted(): bool
    {
        return null !== $this->deletedAt;
    }

    public function getDeletedAt(): ?\DateTimeImmutable
    {
        return $this->deletedAt;
    }

    public function delete(\DateTimeImmutable $now): void
    {
        $this->deletedAt = $now;
    }

    public function restore(): void
    {
        $this->deletedAt = null;
    }
}
