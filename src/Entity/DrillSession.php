<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Repository\DrillSessions;
use ZigLane\Core\Practice\Drill;

/** A drill as it was played once: trained or scored, alone or by turns. */
#[ORM\Entity(repositoryClass: DrillSessions::class)]
#[ORM\Table(name: 'drill_session')]
#[ORM\Index(name: 'drill_session_of_owner', columns: ['owner_id', 'drill_key', 'started_at'])]
class DrillSession
{
    #[ORM\Column(nullable: true)]
    private ?\DateTimeImmutable $endedAt = null;

    /** Points of the owner when it ended, and his tries. */
    #[ORM\Column(nullable: true)]
    private ?float $score = null;

    #[ORM\Column(type: Types::SMALLINT)]
    private int $tries = 0;

    /** @var list<string>|null keys of the drills that follow when several are run through */
    #[ORM\Column(type: Types::JSON, nullable: true)]
    private ?array $later = null;

    /**
     * @param string       $key     of the drill: of the library, or the id of one of the owner's own
     * @param int          $level   0 is the drill as it stands
     * @param list<string> $players the owner is the first
     */
    public function __construct(
        #[ORM\Id]
        #[ORM\Column(type: UuidType::NAME)]
        private Uuid $id,
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private Account $owner,
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(name: 'version', referencedColumnName: 'hash', nullable: false)]
        private DrillVersion $version,
        #[ORM\Column(name: 'drill_key', length: 80)]
        private string $key,
        #[ORM\Column(type: Types::SMALLINT)]
        private int $level,
        #[ORM\Column]
        private bool $isScored,
        #[ORM\Column(type: Types::JSON)]
        private array $players,
        #[ORM\Column]
        private int $seed,
        #[ORM\Column]
        private \DateTimeImmutable $startedAt,
    ) {
    }

    public function getId(): Uuid
    {
        return $this->id;
    }

    public function getOwner(): Account
    {
        return $this->owner;
    }

    public function getVersion(): DrillVersion
    {
        return $this->version;
    }

    public function getDrill(): Drill
    {
        return $this->version->getFile()->at($this->level);
    }

    public function getKey(): string
    {
        return $this->key;
    }

    public function getLevel(): int
    {
        return $this->level;
    }

    public function isScored(): bool
    {
        return $this->isScored;
    }

    /** @return list<string> */
    public function getPlayers(): array
    {
        return $this->players;
    }

    /** @return list<string> */
    public function getLater(): array
    {
        return $this->later ?? [];
    }

    /** @param list<string> $keys */
    public function followedBy(array $keys): void
    {
        $this->later = [] === $keys ? null : $keys;
    }

    public function getSeed(): int
    {
        return $this->seed;
    }

    public function getStartedAt(): \DateTimeImmutable
    {
        return $this->startedAt;
    }

    public function getEndedAt(): ?\DateTimeImmutable
    {
        return $this->endedAt;
    }

    public function getScore(): ?float
    {
        return $this->score;
    }

    public function getTries(): int
    {
        return $this->tries;
    }

    /** @param \DateTimeImmutable|null $ended null: it goes on */
    public function stand(float $score, int $tries, ?\DateTimeImmutable $ended): void
    {
        $this->score = $score;
        $this->tries = $tries;
        $this->endedAt = $ended;
    }
}
