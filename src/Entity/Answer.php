<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** What a pupil answered to a position of a lesson, and how it was scored: once given it stands. */
#[ORM\Entity]
#[ORM\Table(name: 'answer')]
#[ORM\UniqueConstraint(name: 'answer_of_item', columns: ['assignment_id', 'item'])]
class Answer
{
    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $id;

    /** @var array<string, mixed>|null Teaching\Score as an array; null while it is worked out */
    #[ORM\Column(type: 'json', nullable: true)]
    private ?array $score = null;

    #[ORM\Column(nullable: true)]
    private ?\DateTimeImmutable $scoredAt = null;

    /** @param array<string, mixed> $said Teaching\Prediction as an array */
    public function __construct(
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private Assignment $assignment,
        #[ORM\Column(type: 'smallint')]
        private int $item,
        #[ORM\Column(type: 'json')]
        private array $said,
        #[ORM\Column]
        private \DateTimeImmutable $givenAt,
    ) {
        $this->id = Uuid::v7();
    }

    public function getId(): Uuid
    {
        return $this->id;
    }

    public function getAssignment(): Assignment
    {
        return $this->assignment;
    }

    public function getItem(): int
    {
        return $this->item;
    }

    /** @return array<string, mixed> */
    public function getSaid(): array
    {
        return $this->said;
    }

    /** @return array<string, mixed>|null */
    public function getScore(): ?array
    {
        return $this->score;
    }

    public function isScored(): bool
    {
        return null !== $this->scoredAt;
    }

    /** @param array<string, mixed>|null $score null: it could not be scored */
    public function scored(?array $score, \DateTimeImmutable $now): void
    {
        $this->score = $score;
        $this->scoredAt = $now;
    }
}
