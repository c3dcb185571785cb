<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Repository\Assignments;
use ZigLane\Core\Format\LessonFile;

/** A lesson that a pupil has been given, as it was then, with a date: whatever becomes of the lesson, what was set stays. */
#[ORM\Entity(repositoryClass: Assignments::class)]
#[ORM\Table(name: 'assignment')]
class Assignment
{
    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $id;

    #[ORM\Column(length: 120)]
    private string $name;

    #[ORM\Column(type: Types::TEXT, length: 16777215)]
    private string $file;

    #[ORM\Column(nullable: true)]
    private ?\DateTimeImmutable $doneAt = null;

    #[ORM\Column(nullable: true)]
    private ?\DateTimeImmutable $withdrawnAt = null;

    public function __construct(
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private Membership $membership,
        LessonFile $lesson,
        #[ORM\Column(type: 'date_immutable', nullable: true)]
        private ?\DateTimeImmutable $dueOn,
        #[ORM\Column(length: 500)]
        private string $note,
        #[ORM\Column]
        private \DateTimeImmutable $setAt,
    ) {
        $this->id = Uuid::v7();
        $this->name = $lesson->name;
        $this->file = $lesson->write();
    }

    public function getId(): Uuid
    {
        return $this->id;
    }

    public function getMembership(): Membership
    {
        return $this->membership;
    }

    public function getPupil(): Account
    {
        return $this->membership->getPupil();
    }

    public function getCoach(): Account
    {
        return $this->membership->getGroup()->getCoach();
    }

    public function getName(): string
    {
        return $this->name;
    }

    public function getLesson(): LessonFile
    {
        return LessonFile::parse($this->file);
    }

    public function getDueOn(): ?\DateTimeImmutable
    {
        return $this->dueOn;
    }

    public function getNote(): string
    {
        return $this->note;
    }

    public function getSetAt(): \DateTimeImmutable
    {
        return $this->setAt;
    }

    public function getDoneAt(): ?\DateTimeImmutable
    {
        return $this->doneAt;
    }

    /** Done, or with null not yet. */
    public function finish(?\DateTimeImmutable $at): void
    {
        $this->doneAt = $at;
    }

    public function isWithdrawn(): bool
    {
        return null !== $this->withdrawnAt;
    }

    public function withdraw(\DateTimeImmutable $now): void
    {
        $this->withdrawnAt ??= $now;
    }

    public function isLate(\DateTimeImmutable $now): bool
    {
        $today = $this->getPupil()->today($now)->format('Y-m-d');

        return null === $this->doneAt && null !== $this->dueOn && $today > $this->dueOn->format('Y-m-d');
    }
}
