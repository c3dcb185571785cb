<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Repository\OwnTables;
use ZigLane\Core\Calibration\Parameter;
use ZigLane\Core\Calibration\UsualTests;
use ZigLane\Core\Format\TableFile;
use ZigLane\Core\Format\TableTestsFile;
use ZigLane\Core\Table\Equipment;

/**
 * A table of a player's: its profile, the tests that were shot on it, and what they taught. A sheet keeps the profile as it was when it
 * took it.
 */
#[ORM\Entity(repositoryClass: OwnTables::class)]
#[ORM\Table(name: 'own_table')]
#[ORM\Index(name: 'own_table_of_owner', columns: ['owner_id', 'name'])]
class OwnTable
{
    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $id;

    #[ORM\Column(length: 80)]
    private string $name;

    #[ORM\Column(type: Types::TEXT)]
    private string $file;

    /** The profile that the tests are held against: that before any fit. */
    #[ORM\Column(type: Types::TEXT)]
    private string $base;

    /** @var list<array<mixed>> as in the `tests` of a table-tests file */
    #[ORM\Column(type: Types::JSON)]
    private array $tests = [];

    #[ORM\Column(nullable: true)]
    private ?\DateTimeImmutable $testedAt = null;

    /** @var array<mixed>|null what the tests taught, as `lane:calibrate` prints it, with the profile that it makes */
    #[ORM\Column(type: Types::JSON, nullable: true)]
    private ?array $fit = null;

    /** When a fit was asked for that has not ended. */
    #[ORM\Column(nullable: true)]
    private ?\DateTimeImmutable $askedAt = null;

    #[ORM\Column]
    private float $progress = 0.0;

    /** Whether the room's camera hangs over it. */
    #[ORM\Column(options: ['default' => false])]
    private bool $hasCamera = false;

    #[ORM\Version]
    #[ORM\Column(type: 'integer')]
    private int $version = 1;

    public function __construct(
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        private Account $owner,
        TableFile $file,
        #[ORM\Column]
        private \DateTimeImmutable $createdAt,
    ) {
        $this->id = Uuid::v7();
        $this->change($file);
        $this->base = $this->file;
    }

    public function getId(): Uuid
    {
        return $this->id;
    }

    public function getOwner(): Account
    {
        return $this->owner;
    }

    public function getName(): string
    {
        return $this->name;
    }

    public function hasCamera(): bool
    {
        return $this->hasCamera;
    }

    public function hangCamera(bool $hangs): void
    {
        $this->hasCamera = $hangs;
    }

    public function getFile(): TableFile
    {
        return TableFile::parse($this->file);
    }

    public function getEquipment(): Equipment
    {
        return $this->getFile()->equipment;
    }

    public function getVersion(): int
    {
        return $this->version;
    }

    public function getCreatedAt(): \DateTimeImmutable
    {
        return $this->createdAt;
    }

    /** Other words or measures, by hand: what the tests are held against too. */
    public function change(TableFile $file): void
    {
        $this->file = $this->base = $file->write();
        $this->name = $file->name;
    }

    /** @return list<array<mixed>> */
    public function getTests(): array
    {
        return $this->tests;
    }

    public function getTestedAt(): ?\DateTimeImmutable
    {
        return $this->testedAt;
    }

    /** @param list<array<mixed>> $tests */
    public function keepTests(array $tests, \DateTimeImmutable $now): void
    {
        $this->tests = $tests;
        $this->testedAt = $now;
    }

    /** The tests as a file, held against the profile before any fit: its constants are to be found, its measures are known. */
    public function getTestsFile(): string
    {
        $base = TableFile::parse($this->base)->equipment;
        $found = array_map(static fn (Parameter $one): string => $one->value, Parameter::usualOnes());
        $measures = array_diff_key($base->table->toArray(), array_flip([...$found, 'slope', 'slopeDirection']));

        return json_encode(
            [
                'format' => TableTestsFile::FORMAT, 'version' => 1, 'name' => $this->name, 'table' => $measures,
                'balls' => ['radius' => $base->balls->radius, 'mass' => $base->balls->mass],
                // A straight shot with side tells the cue's own end; without one it is what it is known as.
                'cue' => ['endMassRatio' => $this->tellsCue() ? null : $base->cue->endMassRatio], 'tests' => $this->tests,
            ],
            \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_SLASHES | \JSON_UNESCAPED_UNICODE,
        );
    }

    private function tellsCue(): bool
    {
        return \in_array(UsualTests::Squirt->value, array_column($this->tests, 'name'), true);
    }

    /** @return array<mixed>|null */
    public function getFit(): ?array
    {
        return $this->fit;
    }

    public function getAskedAt(): ?\DateTimeImmutable
    {
        return $this->askedAt;
    }

    public function ask(\DateTimeImmutable $now): void
    {
        $this->askedAt = $now;
        $this->progress = 0.0;
    }

    public function getProgress(): float
    {
        return $this->progress;
    }

    /** The table as its tests found it; null before any fit. */
    public function getFitted(): ?TableFile
    {
        $profile = $this->fit['profile'] ?? null;

        return \is_array($profile) ? TableFile::parse(json_encode($profile, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION)) : null;
    }

    /** What the tests taught becomes the profile. */
    public function takeFit(): void
    {
        $this->file = $this->getFitted()?->write() ?? $this->file;
    }
}
