<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Repository\ShotLog;

/** A day at a table, as its player keeps it. */
#[ORM\Entity(repositoryClass: ShotLog::class)]
#[ORM\Table(name: 'outing')]
#[ORM\Index(name: 'outing_of_owner', columns: ['owner_id', 'played_on'])]
class Outing
{
    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $id;

    public function __construct(
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private Account $owner,
        #[ORM\Column(type: 'date_immutable')]
        private \DateTimeImmutable $playedOn,
        #[ORM\Column(length: 120)]
        private string $place = '',
        #[ORM\Column(type: Types::TEXT)]
        private string $notes = '',
        /** The table that was played on, where it is one of the owner's. */
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: true, onDelete: 'SET NULL')]
        private ?OwnTable $table = null,
    ) {
        $this->id = Uuid::v7();
    }

    public function getId(): Uuid
    {
        return $this->id;
    }

    public function getOwner(): Account
    {
        return $this->owner;
    }

    public function getPlayedOn(): \DateTimeImmutable
    {
        return $this->playedOn;
    }

    public function getPlace(): string
    {
        return $this->place;
    }

    public function getNotes(): string
    {
        return $this->notes;
    }

    public function getTable(): ?OwnTable
    {
        return $this->table;
    }

    public function on(?OwnTable $table): void
    {
        $this->table = $table;
    }

    public function note(string $place, string $notes): void
    {
        $this->place = $place;
        $this->notes = $notes;
    }
}
