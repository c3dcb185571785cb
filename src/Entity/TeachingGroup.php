<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Repository\Groups;

/** A coach's pupils: a class, a team. Whoever has its code can join. */
#[ORM\Entity(repositoryClass: Groups::class)]
#[ORM\Table(name: 'teaching_group')]
class TeachingGroup
{
    /** Letters and digits that are not taken for each other. */
    private const ALPHABET = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789';
    private const CODE = 10;

    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $id;

    #[ORM\Column(length: 16, unique: true)]
    private string $code;

    #[ORM\Column(nullable: true)]
    private ?\DateTimeImmutable $closedAt = null;

    public function __construct(
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private Account $coach,
        #[ORM\Column(length: 80)]
        private string $name,
        #[ORM\Column]
        private \DateTimeImmutable $createdAt,
    ) {
        $this->id = Uuid::v7();
        $this->code = self::drawn();
    }

    public function getId(): Uuid
    {
        return $this->id;
    }

    public function getCoach(): Account
    {
        return $this->coach;
    }

    public function getName(): string
    {
        return $this->name;
    }

    public function rename(string $name): void
    {
        $this->name = $name;
    }

    public function getCode(): string
    {
        return $this->code;
    }

    /** Whoever has only the old one joins no more. */
    public function changeCode(): void
    {
        $this->code = self::drawn();
    }

    public function getCreatedAt(): \DateTimeImmutable
    {
        return $this->createdAt;
    }

    public function isClosed(): bool
    {
        return null !== $this->closedAt;
    }

    public function close(\DateTimeImmutable $now): void
    {
        $this->closedAt ??= $now;
    }

    private static function drawn(): string
    {
        $code = '';
        for ($i = 0; $i < self::CODE; ++$i) {
            $code .= self::ALPHABET[random_int(0, \strlen(self::ALPHABET) - 1)];
        }

        return $code;
    }
}
