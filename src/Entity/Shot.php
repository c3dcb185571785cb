<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;
use ZigLane\Core\Format\LogFile;
use ZigLane\Core\Log\LoggedShot;
use ZigLane\Core\Log\ShotFeatures;
use ZigLane\Core\Log\ShotGroup;
use ZigLane\Core\Log\ShotKind;
use ZigLane\Core\Rules\Game;

/**
 * A logged shot. `entry` is the shot as it stands in a log file; the other columns are what a list shows and is filtered by. Its id is made
 * where it is written down, so that an entry sent twice is one.
 */
#[ORM\Entity]
#[ORM\Table(name: 'shot')]
#[ORM\UniqueConstraint(name: 'shot_of_rack', columns: ['rack_id', 'number'])]
#[ORM\Index(name: 'shot_of_owner', columns: ['owner_id', 'shot_at', 'id'])]
#[ORM\Index(name: 'shot_of_kind', columns: ['owner_id', 'kind', 'shot_at', 'id'])]
#[ORM\Index(name: 'shot_of_game', columns: ['owner_id', 'game', 'shot_at', 'id'])]
#[ORM\Index(name: 'shot_made', columns: ['owner_id', 'is_made', 'shot_at', 'id'])]
class Shot
{
    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $id;

    #[ORM\ManyToOne]
    #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
    private Account $owner;

    #[ORM\Column(length: 16, enumType: Game::class)]
    private Game $game;

    #[ORM\Column(length: 12, enumType: ShotKind::class)]
    private ShotKind $kind;

    #[ORM\Column]
    private \DateTimeImmutable $shotAt;

    #[ORM\Column(length: 2, nullable: true)]
    private ?string $ball;

    #[ORM\Column(length: 2, nullable: true)]
    private ?string $pocket;

    #[ORM\Column(nullable: true)]
    private ?bool $isMade;

    #[ORM\Column(nullable: true)]
    private ?bool $hasPosition;

    #[ORM\Column]
    private bool $isFoul;

    /** Stated chance of the pot, 0 to 1. */
    #[ORM\Column(nullable: true)]
    private ?float $make;

    /** The player's own guess. */
    #[ORM\Column(nullable: true)]
    private ?float $guess;

    /** Metres to the ghost ball; degrees, positive to the left; m/s. */
    #[ORM\Column(nullable: true)]
    private ?float $distance;

    #[ORM\Column(nullable: true)]
    private ?float $cut;

    #[ORM\Column(nullable: true)]
    private ?float $speed;

    /** The kinds of shot that it is of, as bits in the order of ShotGroup. */
    #[ORM\Column(name: 'group_bits')]
    private int $groups;

    /** @var array<mixed> */
    #[ORM\Column(type: Types::JSON)]
    private array $entry;

    public function __construct(
        Uuid $id,
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private ShotRack $rack,
        #[ORM\Column]
        private int $number,
        LoggedShot $shot,
        \DateTimeImmutable $now,
    ) {
        $this->id = $id;
        $this->owner = $rack->getOwner();
        $this->game = $rack->getGame();
        $this->kind = $shot->kind;
        $this->shotAt = $shot->at ?? $now;
        $this->ball = $shot->ball?->label();
        $this->pocket = $shot->pocket?->value;
        $this->isMade = $shot->result->isMade;
        $this->hasPosition = $shot->result->position;
        $this->isFoul = $shot->result->foul || $shot->result->scratch;
        $this->make = $shot->make;
        $this->guess = $shot->guess;
        $features = ShotFeatures::of($shot);
        $this->distance = $features->distance;
        $this->cut = $features->cut;
        $this->speed = $features->speed;
        $this->groups = self::groups($shot, $features);
        // As it will come back from the database: empty layouts are lists there.
        $entry = json_decode(json_encode(LogFile::shotArray($shot), \JSON_THROW_ON_ERROR), true, 32, \JSON_THROW_ON_ERROR);
        \assert(\is_array($entry));
        $this->entry = $entry;
    }

    private static function groups(LoggedShot $shot, ShotFeatures $features): int
    {
        $bits = 0;
        foreach (ShotGroup::cases() as $group) {
            $bits |= $group->has($shot, $features) ? $group->bit() : 0;
        }

        return $bits;
    }

    public function getId(): Uuid
    {
        return $this->id;
    }

    public function getRack(): ShotRack
    {
        return $this->rack;
    }

    public function getNumber(): int
    {
        return $this->number;
    }

    public function getKind(): ShotKind
    {
        return $this->kind;
    }

    public function getShotAt(): \DateTimeImmutable
    {
        return $this->shotAt;
    }

    public function isMade(): ?bool
    {
        return $this->isMade;
    }

    public function logged(): LoggedShot
    {
        return LogFile::readShot($this->entry, $this->rack->getStart()->equipment);
    }
}
