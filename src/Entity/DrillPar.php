<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Repository\DrillPars;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Format\TableFile;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Practice\Par;
use ZigLane\Core\Table\Equipment;

/** What a drill's version is worth to a player's errors on a table: asked for once, worked on, kept. */
#[ORM\Entity(repositoryClass: DrillPars::class)]
#[ORM\Table(name: 'drill_par')]
#[ORM\UniqueConstraint(name: 'drill_par_of', columns: ['version', 'level', 'hand'])]
class DrillPar
{
    /** Runs that a par is made of. */
    public const RUNS = 1000;

    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $id;

    /** What tells one player's errors and table from another's. */
    #[ORM\Column(length: 64, options: ['fixed' => true])]
    private string $hand;

    /** @var array<mixed> errors, as a rack file has them */
    #[ORM\Column(type: Types::JSON)]
    private array $player;

    /** The table, as a file; null: the usual one. */
    #[ORM\Column(name: 'equipment', type: Types::TEXT, nullable: true)]
    private ?string $table;

    /** @var array<int|string, int> runs by their points, so far */
    #[ORM\Column(type: Types::JSON)]
    private array $scores = [];

    #[ORM\Column(length: 10, nullable: true)]
    private ?string $why = null;

    /** @var array<mixed>|null the stroke that was found for the first try, as a rack file has shots */
    #[ORM\Column(type: Types::JSON, nullable: true)]
    private ?array $stroke = null;

    #[ORM\Column(nullable: true)]
    private ?\DateTimeImmutable $endedAt = null;

    public function __construct(
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(name: 'version', referencedColumnName: 'hash', nullable: false, onDelete: 'CASCADE')]
        private DrillVersion $version,
        #[ORM\Column(type: Types::SMALLINT)]
        private int $level,
        ExecutionErrors $player,
        #[ORM\Column]
        private \DateTimeImmutable $createdAt,
        Equipment $equipment = new Equipment(),
    ) {
        $this->id = Uuid::v7();
        $this->player = $player->toArray();
        $this->hand = self::handOf($player, $equipment);
        $this->table = self::tableOf($equipment);
    }

    /** What tells one player on one table from others. */
    public static function handOf(ExecutionErrors $player, Equipment $equipment = new Equipment()): string
    {
        return hash('sha256', json_encode($player->toArray(), \JSON_THROW_ON_ERROR).self::tableOf($equipment));
    }

    public function getTable(): ?string
    {
        return $this->table;
    }

    public function getEquipment(): Equipment
    {
        return null === $this->table ? new Equipment() : TableFile::parse($this->table)->equipment;
    }

    private static function tableOf(Equipment $equipment): ?string
    {
        return $equipment == new Equipment() ? null : (new TableFile('Table', $equipment))->write();
    }

    public function getId(): Uuid
    {
        return $this->id;
    }

    public function getVersion(): DrillVersion
    {
        return $this->version;
    }

    public function getLevel(): int
    {
        return $this->level;
    }

    public function getHand(): string
    {
        return $this->hand;
    }

    public function getPlayer(): ExecutionErrors
    {
        return RackFile::player($this->player);
    }

    public function getPar(): Par
    {
        return Par::sum([$this->scores], $this->version->getFile()->at($this->level)->pass, $this->why);
    }

    /** @return array<mixed>|null */
    public function getStroke(): ?array
    {
        return $this->stroke;
    }

    public function getCreatedAt(): \DateTimeImmutable
    {
        return $this->createdAt;
    }

    public function getEndedAt(): ?\DateTimeImmutable
    {
        return $this->endedAt;
    }

    public function progress(): float
    {
        return null !== $this->endedAt ? 1.0 : min(1.0, array_sum($this->scores) / self::RUNS);
    }
}
