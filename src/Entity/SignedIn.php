<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A device on which somebody is signed in; where its row is gone, the session is over. */
#[ORM\Entity]
#[ORM\Table(name: 'signed_in')]
#[ORM\Index(name: 'signed_in_of_account', columns: ['account_id', 'used_at'])]
class SignedIn
{
    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $id;

    public function __construct(
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private Account $account,
        /** Browser and system in two words, of what the browser says. */
        #[ORM\Column(length: 60)]
        private string $device,
        #[ORM\Column]
        private \DateTimeImmutable $since,
        #[ORM\Column]
        private \DateTimeImmutable $usedAt,
    ) {
        $this->id = Uuid::v4();
    }

    public function getId(): Uuid
    {
        return $this->id;
    }

    public function getAccount(): Account
    {
        return $this->account;
    }

    public function getDevice(): string
    {
        return $this->device;
    }

    public function getSince(): \DateTimeImmutable
    {
        return $this->since;
    }

    public function getUsedAt(): \DateTimeImmutable
    {
        return $this->usedAt;
    }
}
