<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Doctrine\RackType;
use ZigLane\App\Doctrine\ShotChoicesType;
use ZigLane\App\Repository\PlanJobRepository;
use ZigLane\App\Words\ConstraintText;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\OptionsFile;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\PlanConstraints;
use ZigLane\Core\Plan\Weights;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotChoice;

/**
 * A plan that is worked on, or was: what it was asked for, and the best so far as a plan file. Workers change it by statements of their
 * own (PlanJobRepository), since several of them and a person act on it at once.
 */
#[ORM\Entity(repositoryClass: PlanJobRepository::class)]
#[ORM\Table(name: 'plan_job')]
class PlanJob
{
    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $id;

    #[ORM\Column(length: 7, options: ['default' => 'plan'])]
    private JobKind $kind = JobKind::Plan;

    /** @var array<string, float|array<string, float>>|null errors of the other player, as a rack file has them; null in a plan */
    #[ORM\Column(type: Types::JSON, nullable: true)]
    private ?array $opponent = null;

    #[ORM\Column(length: 10)]
    private PlanState $state = PlanState::Waiting;

    /** How many ways to begin are weighed; null before they are known. */
    #[ORM\Column(type: Types::SMALLINT, nullable: true)]
    private ?int $candidates = null;

    #[ORM\Column(type: Types::SMALLINT)]
    private int $dueBlocks = 0;

    #[ORM\Column(type: Types::SMALLINT)]
    private int $doneBlocks = 0;

    /** Grows whenever a better plan is written. */
    #[ORM\Column]
    private int $drawn = 0;

    #[ORM\Column(type: Types::TEXT, length: 4294967295, nullable: true)]
    private ?string $plan = null;

    private ?PlanFile $parsed = null;
    private ?OptionsFile $options = null;

    #[ORM\Column(nullable: true)]
    private ?string $message = null;

    #[ORM\Column(type: 'datetime_immutable', nullable: true)]
    private ?\DateTimeImmutable $startedAt = null;

    /** When a worker last finished a block. */
    #[ORM\Column(type: 'datetime_immutable', nullable: true)]
    private ?\DateTimeImmutable $activeAt = null; // @phpstan-ignore property.onlyWritten (workers read it in statements of their own)

    #[ORM\Column(type: 'datetime_immutable', nullable: true)]
    private ?\DateTimeImmutable $endedAt = null;

    /**
     * @param array{forbidden: list<array{string, string}>, before: list<array{string, string}>} $constraints ball and pocket; ball, ball
     * @param array<string, float>                                                               $weights
     * @param list<ShotChoice>                                                                   $legs        that are locked
     * @param ShotRack|null                                                                      $shotRack    the rack at the table that
     *                                                                                                        it is for; else a sheet
     * @param int|null                                                                           $afterShots  of that rack, so many were
     *                                                                                                        shot
     */
    public function __construct(
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: true, onDelete: 'CASCADE')]
        private ?RackSheet $sheet,
        #[ORM\Column(type: RackType::NAME)]
        private Rack $rack,
        #[ORM\Column(type: Types::JSON)]
        private array $constraints,
        #[ORM\Column(type: Types::JSON)]
        private array $weights,
        #[ORM\Column(type: ShotChoicesType::NAME)]
        private array $legs,
        #[ORM\Column]
        private int $seconds,
        #[ORM\Column]
        private int $seed,
        #[ORM\Column]
        private \DateTimeImmutable $createdAt,
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: true, onDelete: 'CASCADE')]
        private ?ShotRack $shotRack = null,
        #[ORM\Column(type: Types::SMALLINT, nullable: true)]
        private ?int $afterShots = null,
    ) {
        $this->id = Uuid::v7();
    }

    /** The job for the options of its position, against another player. */
    public function against(ExecutionErrors $opponent): self
    {
        $this->kind = JobKind::Options;
        $this->opponent = $opponent->toArray();

        return $this;
    }

    /** A plan that nobody has to work on: an option that was taken over at the table. */
    public function settled(PlanFile $plan, \DateTimeImmutable $now): self
    {
        $this->plan = $plan->write();
        $this->state = PlanState::Done;
        $this->drawn = 1;
        $this->endedAt = $now;

        return $this;
    }

    public function getKind(): JobKind
    {
        return $this->kind;
    }

    public function getOpponent(): ?ExecutionErrors
    {
        return null === $this->opponent ? null : RackFile::player($this->opponent);
    }

    public function getId(): Uuid
    {
        return $this->id;
    }

    public function getSheet(): ?RackSheet
    {
        return $this->sheet;
    }

    public function getShotRack(): ?ShotRack
    {
        return $this->shotRack;
    }

    public function getRack(): Rack
    {
        return $this->rack;
    }

    /** Whether a rack is not the one that was planned: its balls lie elsewhere, or another player shoots. */
    public function isOfAnother(Rack $now): bool
    {
        return $now->layout->without(Ball::Cue) != $this->rack->layout->without(Ball::Cue)
            || ($this->rack->layout->has(Ball::Cue) && $now->layout != $this->rack->layout)
            || $now->player != $this->rack->player;
    }

    public function getConstraints(): PlanConstraints
    {
        return ConstraintText::of($this->constraints, $this->legs);
    }

    /** @return array{forbidden: list<array{string, string}>, before: list<array{string, string}>} by names, as they were typed */
    public function getConstraintNames(): array
    {
        return $this->constraints;
    }

    public function getWeights(): Weights
    {
        return new Weights(...array_map(floatval(...), array_intersect_key($this->weights, Weights::LIMITS)));
    }

    /** @return list<ShotChoice> */
    public function getLegs(): array
    {
        return $this->legs;
    }

    public function getSeconds(): int
    {
        return $this->seconds;
    }

    public function getSeed(): int
    {
        return $this->seed;
    }

    public function getState(): PlanState
    {
        return $this->state;
    }

    public function getCandidates(): ?int
    {
        return $this->candidates;
    }

    /** Share of the work that is done, 0 to 1; of a job that is over 1. */
    public function progress(): float
    {
        return $this->state->isOver() ? 1.0 : ($this->dueBlocks > 0 ? min(1.0, $this->doneBlocks / $this->dueBlocks) : 0.0);
    }

    public function getDoneBlocks(): int
    {
        return $this->doneBlocks;
    }

    public function getDrawn(): int
    {
        return $this->drawn;
    }

    /**
     * The best so far; null before there is one.
     *
     * @throws InvalidFile If what is stored can no longer be read
     */
    public function getPlan(): ?PlanFile
    {
        return null === $this->plan ? null : $this->parsed ??= PlanFile::parse($this->plan, \PHP_INT_MAX);
    }

    /**
     * The options so far; null before there are any.
     *
     * @throws InvalidFile If what is stored can no longer be read
     */
    public function getOptions(): ?OptionsFile
    {
        return null === $this->plan ? null : $this->options ??= OptionsFile::parse($this->plan, \PHP_INT_MAX);
    }

    public function hasPlan(): bool
    {
        return null !== $this->plan;
    }

    public function getPlanFile(): ?string
    {
        return $this->plan;
    }

    public function getMessage(): ?string
    {
        return $this->message;
    }

    public function getCreatedAt(): \DateTimeImmutable
    {
        return $this->createdAt;
    }

    public function getStartedAt(): ?\DateTimeImmutable
    {
        return $this->startedAt;
    }

    public function getEndedAt(): ?\DateTimeImmutable
    {
        return $this->endedAt;
    }
}
