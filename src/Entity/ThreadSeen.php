<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** How far somebody has read a thread. */
#[ORM\Entity]
#[ORM\Table(name: 'thread_seen')]
class ThreadSeen
{
    public function __construct(
        #[ORM\Id]
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private Account $reader,
        #[ORM\Id]
        #[ORM\Column(type: UuidType::NAME)]
        private Uuid $subject,
        #[ORM\Column]
        private \DateTimeImmutable $seenAt,
    ) {
    }

    public function getReader(): Account
    {
        return $this->reader;
    }

    public function getSubject(): Uuid
    {
        return $this->subject;
    }
}
