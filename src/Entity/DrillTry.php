<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** One try of a drill as it was entered; what it is worth is worked out from it. */
#[ORM\Entity]
#[ORM\Table(name: 'drill_try')]
#[ORM\UniqueConstraint(name: 'drill_try_number', columns: ['session_id', 'number'])]
class DrillTry
{
    /**
     * @param int                                         $number of the session, from 1
     * @param int|null                                    $made   balls of a try that is counted
     * @param array<int|string, array{float, float}>|null $after  where balls lay then, in diamonds, as far as it was entered
     */
    public function __construct(
        #[ORM\Id]
        #[ORM\Column(type: UuidType::NAME)]
        private Uuid $id,
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private DrillSession $session,
        #[ORM\Column(type: Types::SMALLINT)]
        private int $number,
        #[ORM\Column(type: Types::SMALLINT)]
        private int $player,
        #[ORM\Column]
        private bool $isDone,
        #[ORM\Column(type: Types::SMALLINT, nullable: true)]
        private ?int $made,
        #[ORM\Column(type: Types::SMALLINT, nullable: true)]
        private ?int $opened,
        #[ORM\Column(type: Types::JSON, nullable: true)]
        private ?array $after,
        #[ORM\Column]
        private \DateTimeImmutable $at,
    ) {
    }

    public function getId(): Uuid
    {
        return $this->id;
    }

    public function getSession(): DrillSession
    {
        return $this->session;
    }

    public function getNumber(): int
    {
        return $this->number;
    }

    public function getPlayer(): int
    {
        return $this->player;
    }

    public function isDone(): bool
    {
        return $this->isDone;
    }

    public function getMade(): ?int
    {
        return $this->made;
    }

    public function getOpened(): ?int
    {
        return $this->opened;
    }

    /** @return array<int|string, array{float, float}>|null */
    public function getAfter(): ?array
    {
        return $this->after;
    }

    public function getAt(): \DateTimeImmutable
    {
        return $this->at;
    }
}
