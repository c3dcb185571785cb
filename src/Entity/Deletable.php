<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Symfony\Component\Uid\Uuid;

/** What a person can delete and bring back for a while. */
interface Deletable
{
    public function getId(): Uuid;

    public function isDeleted(): bool;

    public function getDeletedAt(): ?\DateTimeImmutable;

    public function delete(\DateTimeImmutable $now): void;

    public function restore(): void;
}
