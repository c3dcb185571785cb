<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A pupil in a group, and what he lets its coach see. Who has left is seen no more, whatever it said before. */
#[ORM\Entity]
#[ORM\Table(name: 'membership')]
#[ORM\UniqueConstraint(name: 'membership_of_pupil', columns: ['group_id', 'pupil_id'])]
class Membership
{
    /** What a coach can be let see, and what he sees unless the pupil says otherwise. */
    public const SIGHTS = ['log' => false, 'scores' => true, 'errors' => false, 'sheets' => false];

    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $id;

    /** @var array<string, bool> by SIGHTS */
    #[ORM\Column(type: 'json')]
    private array $sees;

    #[ORM\Column(nullable: true)]
    private ?\DateTimeImmutable $leftAt = null;

    /** @param array<string, bool> $sees */
    public function __construct(
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(name: 'group_id', nullable: false, onDelete: 'CASCADE')]
        private TeachingGroup $group,
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private Account $pupil,
        array $sees,
        #[ORM\Column]
        private \DateTimeImmutable $joinedAt,
    ) {
        $this->id = Uuid::v7();
        $this->letSee($sees);
    }

    public function getId(): Uuid
    {
        return $this->id;
    }

    public function getGroup(): TeachingGroup
    {
        return $this->group;
    }

    public function getPupil(): Account
    {
        return $this->pupil;
    }

    /** Not of a pupil whose account is closed: from that moment his coach sees nothing of him. */
    public function isThere(): bool
    {
        return null === $this->leftAt && !$this->group->isClosed() && null === $this->pupil->getDeletedAt();
    }

    /** @param array<string, bool> $sees */
    public function comeBack(array $sees, \DateTimeImmutable $now): void
    {
        $this->leftAt = null;
        $this->joinedAt = $now;
        $this->letSee($sees);
    }

    public function leave(\DateTimeImmutable $now): void
    {
        $this->leftAt ??= $now;
    }

    /** Whether the coach sees this of the pupil: a key of SIGHTS. */
    public function sees(string $what): bool
    {
        return $this->isThere() && ($this->sees[$what] ?? false);
    }

    /** @param array<string, bool> $sees */
    public function letSee(array $sees): void
    {
        $this->sees = array_intersect_key($sees, self::SIGHTS) + array_map(static fn (): bool => false, self::SIGHTS);
    }
}
