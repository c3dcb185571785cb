<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\ORM\Mapping as ORM;

/** The leg that the owner of a sheet shows to those who look at it with him. */
#[ORM\Entity]
#[ORM\Table(name: 'followed')]
class Followed
{
    /** Seconds after which nobody is followed any more. */
    public const LONG = 900;

    public function __construct(
        #[ORM\Id]
        #[ORM\OneToOne]
        #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private RackSheet $sheet,
        #[ORM\Column(type: 'smallint')]
        private int $leg,
        #[ORM\Column]
        private \DateTimeImmutable $at,
    ) {
    }

    public function getSheet(): RackSheet
    {
        return $this->sheet;
    }

    public function getLeg(): int
    {
        return $this->leg;
    }

    public function getAt(): \DateTimeImmutable
    {
        return $this->at;
    }

    public function show(int $leg, \DateTimeImmutable $at): void
    {
        $this->leg = $leg;
        $this->at = $at;
    }
}
