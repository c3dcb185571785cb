<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Repository\LogFits;

/** A fit of a player's errors to his log: asked for, worked on, and what came of it, as `lane:fit` prints it. */
#[ORM\Entity(repositoryClass: LogFits::class)]
#[ORM\Table(name: 'log_fit')]
#[ORM\Index(name: 'log_fit_of_owner', columns: ['owner_id', 'id'])]
class LogFitJob
{
    use WorkedOn;

    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $id;

    /** @var array<mixed>|null */
    #[ORM\Column(type: Types::JSON, nullable: true)]
    private ?array $answer = null;

    public function __construct(
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private Account $owner,
        #[ORM\Column(type: Types::SMALLINT)]
        private int $halfLife,
        \DateTimeImmutable $createdAt,
    ) {
        $this->id = Uuid::v7();
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

    public function getHalfLife(): int
    {
        return $this->halfLife;
    }

    /** @return array<mixed>|null */
    public function getAnswer(): ?array
    {
        return $this->answer;
    }
}
