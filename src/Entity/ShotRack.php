<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Doctrine\RackType;
use ZigLane\Core\Log\RackKind;
use ZigLane\Core\Log\RackResult;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;

/**
 * A rack that is or was shot: how it lay at first, how it lies now, how it ended. It keeps the plan that was followed, whatever becomes of
 * its sheet. `id` may be made by the browser, so that a rack begun twice is one.
 */
#[ORM\Entity]
#[ORM\Table(name: 'shot_rack')]
#[ORM\Index(name: 'shot_rack_of_owner', columns: ['owner_id', 'deleted_at', 'started_at', 'id'])]
#[ORM\Index(name: 'shot_rack_of_game', columns: ['owner_id', 'game', 'deleted_at', 'started_at', 'id'])]
class ShotRack implements Deletable
{
    use DeletedAt;

    #[ORM\Column(length: 16, enumType: Game::class)]
    private Game $game;

    /** How it lies now. */
    #[ORM\Column(name: 'now_rack', type: RackType::NAME)]
    private Rack $now;

    #[ORM\Column(name: 'ended_by', length: 10, nullable: true, enumType: RackResult::class)]
    private ?RackResult $end = null;

    /** Balls and racks in a row, where only that was noted. */
    #[ORM\Column(type: Types::SMALLINT, nullable: true)]
    private ?int $balls = null;

    #[ORM\Column(type: Types::SMALLINT, nullable: true)]
    private ?int $racks = null;

    /** The plan that was followed at the first shot, as its file. */
    #[ORM\Column(type: Types::TEXT, length: 4294967295, nullable: true)]
    private ?string $plan = null;

    /** @var array<mixed>|null what the shots cost, once that is worked out */
    #[ORM\Column(type: Types::JSON, nullable: true)]
    private ?array $costs = null;

    #[ORM\Version]
    #[ORM\Column(type: 'integer')]
    private int $version = 1;

    public function __construct(
        #[ORM\Id]
        #[ORM\Column(type: UuidType::NAME)]
        private Uuid $id,
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private Account $owner,
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private Outing $outing,
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: true, onDelete: 'SET NULL')]
        private ?RackSheet $sheet,
        #[ORM\Column(length: 10, enumType: RackKind::class)]
        private RackKind $kind,
        #[ORM\Column(name: 'start_rack', type: RackType::NAME)]
        private Rack $start,
        #[ORM\Column]
        private \DateTimeImmutable $startedAt,
    ) {
        $this->game = $start->game;
        $this->now = $start;
    }

    public function getId(): Uuid
    {
        return $this->id;
    }

    public function getOwner(): Account
    {
        return $this->owner;
    }

    public function getOuting(): Outing
    {
        return $this->outing;
    }

    public function getSheet(): ?RackSheet
    {
        return $this->sheet;
    }

    /** To the sheet that it was shot from. */
    public function tie(?RackSheet $sheet): void
    {
        $this->sheet = $sheet;
    }

    public function getGame(): Game
    {
        return $this->game;
    }

    public function getKind(): RackKind
    {
        return $this->kind;
    }

    public function getStart(): Rack
    {
        return $this->start;
    }

    public function getNow(): Rack
    {
        return $this->now;
    }

    public function lies(Rack $now): void
    {
        $this->now = $now;
        $this->costs = null;
    }

    public function getStartedAt(): \DateTimeImmutable
    {
        return $this->startedAt;
    }

    public function getEnd(): ?RackResult
    {
        return $this->end;
    }

    /** Ended, or with null taken up again. */
    public function endBy(?RackResult $end): void
    {
        $this->end = $end;
    }

    public function getBalls(): ?int
    {
        return $this->balls;
    }

    public function getRacks(): ?int
    {
        return $this->racks;
    }

    public function count(?int $balls, ?int $racks): void
    {
        $this->balls = $balls;
        $this->racks = $racks;
    }

    public function getPlan(): ?string
    {
        return $this->plan;
    }

    public function follow(?string $plan): void
    {
        $this->plan = $plan;
    }

    /** @return array<mixed>|null */
    public function getCosts(): ?array
    {
        return $this->costs;
    }

    public function getVersion(): int
    {
        return $this->version;
    }
}
