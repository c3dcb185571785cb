<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Repository\Imports;

/** A file that is taken into an account by a worker: one at a time of each account. Its bytes are in import_part until it has ended. */
#[ORM\Entity(repositoryClass: Imports::class)]
#[ORM\Table(name: 'import_job')]
#[ORM\UniqueConstraint(name: 'import_job_under_way', columns: ['under_way'])]
#[ORM\Index(name: 'import_job_of_owner', columns: ['owner_id', 'id'])]
class ImportJob
{
    use WorkedOn;

    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $id;

    /** The owner while it is under way, then null: the index lets nobody have two. */
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $underWay;

    /** @var array{taken?: array<string, int>, failed?: list<string>}|null */
    #[ORM\Column(type: Types::JSON, nullable: true)]
    private ?array $answer = null;

    public function __construct(
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private Account $owner,
        /** A log file; else the zip of an account. */
        #[ORM\Column]
        private bool $isLog,
        \DateTimeImmutable $createdAt,
    ) {
        $this->id = Uuid::v7();
        $this->underWay = $owner->getId();
        $this->createdAt = $createdAt;
    }

    public function getId(): Uuid
    {
        return $this->id;
    }

    public function getOwner(): Account
    {
        return $this->owner;
    }

    public function isLog(): bool
    {
        return $this->isLog;
    }

    public function isOpen(): bool
    {
        return null !== $this->underWay;
    }

    /** @return array<string, int> how many of each kind of thing were taken */
    public function getTaken(): array
    {
        return $this->answer['taken'] ?? [];
    }

    /** @return list<string> what could not be read, by its name in the file and with why */
    public function getFailed(): array
    {
        return $this->answer['failed'] ?? [];
    }

    public function hasAnswer(): bool
    {
        return null !== $this->answer;
    }
}
