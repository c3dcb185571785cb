<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;

/** A block of replays of one candidate: taken by a worker until a time, then done. Each counts once, whoever did it. */
#[ORM\Entity]
#[ORM\Table(name: 'plan_block')]
class PlanBlock
{
    /** @param array<mixed>|null $replays as Tally::toArray gives them */
    public function __construct(
        #[ORM\Id]
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly PlanJob $job,
        #[ORM\Id]
        #[ORM\Column(type: Types::SMALLINT)]
        public readonly int $candidate,
        #[ORM\Id]
        #[ORM\Column(type: Types::SMALLINT)]
        public readonly int $block,
        #[ORM\Column(type: 'datetime_immutable')]
        public readonly \DateTimeImmutable $takenUntil,
        #[ORM\Column(type: Types::JSON, nullable: true)]
        public readonly ?array $replays = null,
    ) {
    }
}
