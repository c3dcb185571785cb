<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Repository\Shares;

/** Something of its owner's that is shown to a named person, or to whoever has the link: then for looking only. */
#[ORM\Entity(repositoryClass: Shares::class)]
#[ORM\Table(name: 'share')]
#[ORM\Index(name: 'share_of_subject', columns: ['owner_id', 'kind', 'subject'])]
class Share
{
    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $id;

    /** What nobody can guess, of a link; null for a named person. */
    #[ORM\Column(length: 32, unique: true, nullable: true)]
    private ?string $token;

    #[ORM\Column(nullable: true)]
    private ?\DateTimeImmutable $withdrawnAt = null;

    public function __construct(
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private Account $owner,
        #[ORM\Column(length: 10, enumType: ShareKind::class)]
        private ShareKind $kind,
        /** The id, or a drill's key. */
        #[ORM\Column(length: 64)]
        private string $subject,
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: true, onDelete: 'CASCADE')]
        private ?Account $grantee,
        #[ORM\Column(length: 10, enumType: ShareLevel::class)]
        private ShareLevel $level,
        #[ORM\Column]
        private \DateTimeImmutable $createdAt,
        /** The last day on which it is shown. */
        #[ORM\Column(type: 'date_immutable', nullable: true)]
        private ?\DateTimeImmutable $endsOn = null,
    ) {
        $this->id = Uuid::v7();
        $this->token = null === $grantee ? bin2hex(random_bytes(16)) : null;
        if (null === $grantee) {
            $this->level = ShareLevel::Look;
        }
    }

    public function getId(): Uuid
    {
        return $this->id;
    }

    public function getToken(): ?string
    {
        return $this->token;
    }

    public function getOwner(): Account
    {
        return $this->owner;
    }

    public function getKind(): ShareKind
    {
        return $this->kind;
    }

    public function getSubject(): string
    {
        return $this->subject;
    }

    public function getGrantee(): ?Account
    {
        return $this->grantee;
    }

    public function getLevel(): ShareLevel
    {
        return $this->level;
    }

    public function getCreatedAt(): \DateTimeImmutable
    {
        return $this->createdAt;
    }

    public function getEndsOn(): ?\DateTimeImmutable
    {
        return $this->endsOn;
    }

    public function getWithdrawnAt(): ?\DateTimeImmutable
    {
        return $this->withdrawnAt;
    }

    public function withdraw(\DateTimeImmutable $now): void
    {
        $this->withdrawnAt ??= $now;
    }

    public function change(ShareLevel $level, ?\DateTimeImmutable $endsOn): void
    {
        $this->level = null === $this->grantee ? ShareLevel::Look : $level;
        $this->endsOn = $endsOn;
    }

    public function isOpen(\DateTimeImmutable $now): bool
    {
        return null === $this->withdrawnAt && (null === $this->endsOn || $now->format('Y-m-d') <= $this->endsOn->format('Y-m-d'));
    }
}
