<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Repository\Lessons;
use ZigLane\Core\Format\LessonFile;

/** A lesson of a coach's library. */
#[ORM\Entity(repositoryClass: Lessons::class)]
#[ORM\Table(name: 'lesson')]
#[ORM\Index(name: 'lesson_of_owner', columns: ['owner_id', 'updated_at'])]
class Lesson implements Deletable
{
    use DeletedAt;

    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $id;

    #[ORM\Column(length: 120)]
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
        LessonFile $file,
        #[ORM\Column]
        private \DateTimeImmutable $updatedAt,
    ) {
        $this->id = Uuid::v7();
        $this->change($file, $updatedAt);
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

    public function getVersion(): int
    {
        return $this->version;
    }

    public function getUpdatedAt(): \DateTimeImmutable
    {
        return $this->updatedAt;
    }

    public function getFile(): LessonFile
    {
        return LessonFile::parse($this->file);
    }

    public function change(LessonFile $file, \DateTimeImmutable $now): void
    {
        $this->file = $file->write();
        $this->name = $file->name;
        $this->updatedAt = $now;
    }
}
