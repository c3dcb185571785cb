<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Repository\OwnDrills;
use ZigLane\Core\Format\DrillFile;

/** A drill of a player's own: its file as it is now. What was scored stays with the version that it was scored on (DrillVersion). */
#[ORM\Entity(repositoryClass: OwnDrills::class)]
#[ORM\Table(name: 'drill')]
#[ORM\Index(name: 'drill_of_owner', columns: ['owner_id', 'name'])]
class OwnDrill
{
    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $id;

    #[ORM\Column(length: 80)]
    private string $name;

    #[ORM\Column(type: Types::TEXT, length: 16777215)]
    private string $file;

    #[ORM\Version]
    #[ORM\Column(type: 'integer')]
    private int $version = 1;

    public function __construct(
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private Account $owner,
        DrillFile $file,
        #[ORM\Column]
        private \DateTimeImmutable $createdAt,
    ) {
        $this->id = Uuid::v7();
        $this->change($file);
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

    public function getFile(): DrillFile
    {
        return DrillFile::parse($this->file);
    }

    public function getVersion(): int
    {
        return $this->version;
    }

    public function getCreatedAt(): \DateTimeImmutable
    {
        return $this->createdAt;
    }

    public function change(DrillFile $file): void
    {
        $this->file = $file->write();
        $this->name = $file->drill->name;
    }
}
