<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A word that was sent by mail and does one thing once: kept only as its hash. */
#[ORM\Entity]
#[ORM\Table(name: 'letter')]
class Letter
{
    public const RESET = 'reset';
    public const ADDRESS = 'address';
    public const UNDELETE = 'undelete';
    /** To the address that an account had: takes its change back. */
    public const BACK = 'back';

    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $id;

    #[ORM\Column(nullable: true)]
    private ?\DateTimeImmutable $usedAt = null;

    public function __construct(
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private Account $account,
        #[ORM\Column(length: 10)]
        private string $purpose,
        #[ORM\Column(length: 64, unique: true)]
        private string $hash,
        /** The new address, or the one to go back to, where that is what it is for. */
        #[ORM\Column(length: 180)]
        private string $value,
        #[ORM\Column]
        private \DateTimeImmutable $endsAt,
    ) {
        $this->id = Uuid::v7();
    }

    public function getId(): Uuid
    {
        return $this->id;
    }

    public function getAccount(): Account
    {
        return $this->account;
    }

    public function getPurpose(): string
    {
        return $this->purpose;
    }

    public function getHash(): string
    {
        return $this->hash;
    }

    public function getValue(): string
    {
        return $this->value;
    }

    public function isOpen(\DateTimeImmutable $now): bool
    {
        return null === $this->usedAt && $now < $this->endsAt;
    }

    public function use(\DateTimeImmutable $now): void
    {
        $this->usedAt = $now;
    }
}
