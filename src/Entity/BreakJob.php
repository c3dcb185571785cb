<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Repository\BreakJobs;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Format\TableFile;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Table\Equipment;

/** A search for the break that suits a player on a table: asked for, worked on, and what came of it. */
#[ORM\Entity(repositoryClass: BreakJobs::class)]
#[ORM\Table(name: 'break_search')]
#[ORM\Index(name: 'break_search_of_owner', columns: ['owner_id', 'game', 'id'])]
class BreakJob
{
    use WorkedOn;

    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $id;

    #[ORM\Column(length: 16, enumType: Game::class)]
    private Game $game;

    /** @var array<mixed> errors, as a rack file has them */
    #[ORM\Column(type: Types::JSON)]
    private array $player;

    #[ORM\Column(name: 'equipment', type: Types::TEXT)]
    private string $table;

    /** @var list<array{stroke: array<string, float>, runOut: float, error: float, goesOn: float, scratch: float}>|null the best first */
    #[ORM\Column(type: Types::JSON, nullable: true)]
    private ?array $answer = null;

    public function __construct(
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private Account $owner,
        Game $game,
        ExecutionErrors $player,
        Equipment $equipment,
        /** m/s that the room or the arm allows */
        #[ORM\Column]
        private float $fastest,
        \DateTimeImmutable $createdAt,
    ) {
        $this->id = Uuid::v7();
        $this->createdAt = $createdAt;
        $this->game = $game;
        $this->player = $player->toArray();
        $this->table = (new TableFile('Table', $equipment))->write();
    }

    public function getId(): Uuid
    {
        return $this->id;
    }

    public function getOwner(): Account
    {
        return $this->owner;
    }

    public function getGame(): Game
    {
        return $this->game;
    }

    public function getPlayer(): ExecutionErrors
    {
        return RackFile::player($this->player);
    }

    public function getEquipment(): Equipment
    {
        return TableFile::parse($this->table)->equipment;
    }

    public function getFastest(): float
    {
        return $this->fastest;
    }

    /** @return list<array{stroke: array<string, float>, runOut: float, error: float, goesOn: float, scratch: float}>|null */
    public function getAnswer(): ?array
    {
        return $this->answer;
    }
}
