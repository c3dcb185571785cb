<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Doctrine\RackType;
use ZigLane\App\Doctrine\ShotChoicesType;
use ZigLane\App\Doctrine\ShotChoiceType;
use ZigLane\App\Repository\RackSheetRepository;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotChoice;

/**
 * A rack sheet: the document that a player opens, one layout with what is planned on it. `step` is the place in its history
 * of layouts; `version` grows with every change and keeps two windows from overwriting each other.
 */
#[ORM\Entity(repositoryClass: RackSheetRepository::class)]
#[ORM\Table(name: 'rack_sheet')]
#[ORM\Index(name: 'rack_sheet_of_owner', columns: ['owner_id', 'deleted_at', 'updated_at'])]
#[ORM\UniqueConstraint(name: 'rack_sheet_submission', columns: ['owner_id', 'submission'])]
class RackSheet implements Deletable
{
    use DeletedAt;

    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $id;

    #[ORM\ManyToOne]
    #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
    private Account $owner;

    #[ORM\Column(length: 80)]
    private string $name;

    #[ORM\Column(type: RackType::NAME)]
    private Rack $rack;

    /** The table of its owner's that the rack was taken to: the rack keeps it as it was then. */
    #[ORM\ManyToOne]
    #[ORM\JoinColumn(name: 'own_table_id', nullable: true, onDelete: 'SET NULL')]
    private ?OwnTable $table = null;

    #[ORM\Column(type: ShotChoiceType::NAME, nullable: true)]
    private ?ShotChoice $shot = null;

    /** @var list<ShotChoice> the legs after the first */
    #[ORM\Column(type: ShotChoicesType::NAME)]
    private array $later = [];

    #[ORM\Column]
    private int $step = 0;

    #[ORM\Version]
    #[ORM\Column(type: 'integer')]
    private int $version = 1;

    /** The form that made this sheet, so that a form posted twice makes one sheet. */
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $submission;

    #[ORM\Column]
    private \DateTimeImmutable $createdAt;

    #[ORM\Column]
    private \DateTimeImmutable $updatedAt;

    public function __construct(Account $owner, string $name, Rack $rack, Uuid $submission, \DateTimeImmutable $now)
    {
        $this->id = Uuid::v7();
        $this->owner = $owner;
        $this->name = $name;
        $this->rack = $rack;
        $this->submission = $submission;
        $this->createdAt = $this->updatedAt = $now;
    }

    public function getId(): Uuid
    {
        return $this->id;
    }

    public function getOwner(): Account
    {
        return $this->owner;
    }

    public function getName(): string
    {
        return $this->name;
    }

    public function rename(string $name, \DateTimeImmutable $now): void
    {
        $this->name = $name;
        $this->updatedAt = $now;
    }

    public function getRack(): Rack
    {
        return $this->rack;
    }

    public function getShot(): ?ShotChoice
    {
        return $this->shot;
    }

    public function getStep(): int
    {
        return $this->step;
    }

    public function getVersion(): int
    {
        return $this->version;
    }

    public function getCreatedAt(): \DateTimeImmutable
    {
        return $this->createdAt;
    }

    public function getUpdatedAt(): \DateTimeImmutable
    {
        return $this->updatedAt;
    }

    public function layOut(Rack $rack, int $step, \DateTimeImmutable $now): void
    {
        $this->rack = $rack;
        $this->step = $step;
        $this->updatedAt = $now;
    }

    public function getTable(): ?OwnTable
    {
        return $this->table;
    }

    /** Whether its table has changed since the rack was taken to it. */
    public function isTableNew(): bool
    {
        return null !== $this->table && $this->table->getEquipment() != $this->rack->equipment;
    }

    public function onTable(?OwnTable $table): void
    {
        $this->table = $table;
    }

    public function playedBy(ExecutionErrors $player, \DateTimeImmutable $now): void
    {
        $this->rack = $this->rack->withPlayer($player);
        $this->updatedAt = $now;
    }

    /** @return list<ShotChoice> the run as planned so far: the first shot and the legs after it */
    public function getLegs(): array
    {
        return null === $this->shot ? [] : [$this->shot, ...$this->later];
    }

    /** @param list<ShotChoice> $legs */
    public function keepLegs(array $legs, \DateTimeImmutable $now): void
    {
        $this->shot = $legs[0] ?? null;
        $this->later = \array_slice($legs, 1);
        $this->updatedAt = $now;
    }
}
