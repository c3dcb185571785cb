<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Repository\Comments;

/** A remark on a sheet's leg or a move of a rack that was shot, with what was drawn to it. */
#[ORM\Entity(repositoryClass: Comments::class)]
#[ORM\Table(name: 'comment')]
#[ORM\Index(name: 'comment_of_thread', columns: ['subject', 'thread', 'id'])]
class Comment
{
    public const MAX_TEXT = 2000;

    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $id;

    #[ORM\Column(nullable: true)]
    private ?\DateTimeImmutable $removedAt = null;

    /** @param list<array{kind: string, points: list<array{float, float}>}> $marks diamonds */
    public function __construct(
        #[ORM\Column(length: 10, enumType: ThreadKind::class)]
        private ThreadKind $thread,
        #[ORM\Column(type: UuidType::NAME)]
        private Uuid $subject,
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private Account $author,
        /** The leg, the move or the try that it is about, from 1; 0: all of it. */
        #[ORM\Column(type: 'smallint')]
        private int $place,
        #[ORM\Column(type: Types::TEXT)]
        private string $text,
        #[ORM\Column(type: 'json')]
        private array $marks,
        #[ORM\Column]
        private \DateTimeImmutable $writtenAt,
    ) {
        $this->id = Uuid::v7();
    }

    public function getId(): Uuid
    {
        return $this->id;
    }

    public function getThread(): ThreadKind
    {
        return $this->thread;
    }

    public function getSubject(): Uuid
    {
        return $this->subject;
    }

    public function getAuthor(): Account
    {
        return $this->author;
    }

    public function getPlace(): int
    {
        return $this->place;
    }

    public function getText(): string
    {
        return $this->text;
    }

    /** @return list<array{kind: string, points: list<array{float, float}>}> diamonds */
    public function getMarks(): array
    {
        return $this->marks;
    }

    public function getWrittenAt(): \DateTimeImmutable
    {
        return $this->writtenAt;
    }

    public function remove(\DateTimeImmutable $now): void
    {
        $this->removedAt ??= $now;
        $this->text = '';
        $this->marks = [];
    }
}
