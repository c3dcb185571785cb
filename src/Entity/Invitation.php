<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A letter that asks somebody into a group, for two weeks and once. */
#[ORM\Entity]
#[ORM\Table(name: 'invitation')]
class Invitation
{
    private const DAYS = 14;

    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $id;

    #[ORM\Column(length: 32, unique: true)]
    private string $token;

    #[ORM\Column]
    private \DateTimeImmutable $endsAt;

    /** When its letter was handed to the mail server; null: not yet. */
    #[ORM\Column(nullable: true)]
    private ?\DateTimeImmutable $sentAt = null; // @phpstan-ignore property.unusedType (a worker writes it in a statement of its own)

    #[ORM\Column(nullable: true)]
    private ?\DateTimeImmutable $usedAt = null;

    public function __construct(
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(name: 'group_id', nullable: false, onDelete: 'CASCADE')]
        private TeachingGroup $group,
        #[ORM\Column(length: 180)]
        private string $email,
        \DateTimeImmutable $now,
    ) {
        $this->id = Uuid::v7();
        $this->token = bin2hex(random_bytes(16));
        $this->endsAt = $now->modify('+'.self::DAYS.' days');
    }

    public function getId(): Uuid
    {
        return $this->id;
    }

    public function getGroup(): TeachingGroup
    {
        return $this->group;
    }

    public function getEmail(): string
    {
        return $this->email;
    }

    public function getToken(): string
    {
        return $this->token;
    }

    public function getEndsAt(): \DateTimeImmutable
    {
        return $this->endsAt;
    }

    public function getSentAt(): ?\DateTimeImmutable
    {
        return $this->sentAt;
    }

    public function isOpen(\DateTimeImmutable $now): bool
    {
        return null === $this->usedAt && $now < $this->endsAt && !$this->group->isClosed();
    }

    public function use(\DateTimeImmutable $now): void
    {
        $this->usedAt = $now;
    }
}
