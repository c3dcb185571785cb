<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Security\Core\User\PasswordAuthenticatedUserInterface;
use Symfony\Component\Security\Core\User\UserInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Repository\AccountRepository;
use ZigLane\App\Words\LengthUnit;
use ZigLane\App\Words\SpeedUnit;
use ZigLane\App\Words\TipUnit;
use ZigLane\Core\Plan\Weights;
use ZigLane\Core\Rules\HouseRules;
use ZigLane\Core\Stroke\Hand;
use ZigLane\Core\Table\Equipment;

/** A person who signs in. Addresses are kept in lower case and are unique. */
#[ORM\Entity(repositoryClass: AccountRepository::class)]
#[ORM\Table(name: 'account')]
class Account implements UserInterface, PasswordAuthenticatedUserInterface
{
    /** The account that every visitor's demo is a copy of (Account\DemoVisit); neither has a usable password. */
    public const DEMO_EMAIL = 'demo@zig-lane.invalid';
    /** What the work of all visitors counts as in the queue: together they are one party. */
    private const DEMO_PARTY = 'demo';

    #[ORM\Id]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $id;

    #[ORM\Column(length: 180, unique: true)]
    private string $email;

    #[ORM\Column(length: 80)]
    private string $name;

    #[ORM\Column(length: 255)]
    private string $password = '!';

    #[ORM\Column(length: 10, enumType: TipUnit::class)]
    private TipUnit $tipUnit = TipUnit::Tips;

    #[ORM\Column(length: 3, enumType: LengthUnit::class, options: ['default' => 'cm'])]
    private LengthUnit $lengthUnit = LengthUnit::Centimetres;

    #[ORM\Column(length: 5, enumType: SpeedUnit::class, options: ['default' => 'm/s'])]
    private SpeedUnit $speedUnit = SpeedUnit::MetresPerSecond;

    /** Where he plays his drills; null: on the usual table. */
    #[ORM\ManyToOne]
    #[ORM\JoinColumn(name: 'usual_table_id', nullable: true, onDelete: 'SET NULL')]
    private ?OwnTable $usualTable = null;

    /** @var array<string, float> what strokes cost besides their odds, as the player last planned with */
    #[ORM\Column(type: 'json')]
    private array $weights = [];

    /** Whether odds come from the player's log once it says enough. */
    #[ORM\Column(options: ['default' => true])]
    private bool $usesLog = true;

    /** Days after which a logged shot weighs half; 0: all weigh the same. */
    #[ORM\Column(type: 'smallint', options: ['default' => 90])]
    private int $halfLife = 90;

    /** A reminder to chalk every so many shots at the table; 0: none. */
    #[ORM\Column(type: 'smallint', options: ['default' => 0])]
    private int $chalkEvery = 0;

    /** Whether he coaches: a choice, which shows the pages of a coach and gives no rights. */
    #[ORM\Column(options: ['default' => false])]
    private bool $coaches = false;

    #[ORM\Column(options: ['default' => false])]
    private bool $isLeftHanded = false;

    #[ORM\Column(length: 64, options: ['default' => 'UTC'])]
    private string $timeZone = 'UTC';

    /** Code of the language that he reads, like "de"; empty: what his browser asks for. */
    #[ORM\Column(length: 8, options: ['default' => ''])]
    private string $language = '';

    /** @var array<string, bool> what the rules of his room forbid (core Rules\HouseRules) */
    #[ORM\Column(type: 'json', nullable: true)]
    private ?array $houseRules = null;

    /** The day on which he was here last. */
    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $seenOn = null;

    /** He has asked for all of it to be deleted: done a week later, unless he takes it back. */
    #[ORM\Column(nullable: true)]
    private ?\DateTimeImmutable $deletedAt = null;

    #[ORM\Column]
    private \DateTimeImmutable $createdAt;

    public function __construct(string $email, string $name, \DateTimeImmutable $now)
    {
        $this->id = Uuid::v7();
        $this->email = mb_strtolower($email);
        $this->name = $name;
        $this->createdAt = $now;
    }

    public function getId(): Uuid
    {
        return $this->id;
    }

    public function getEmail(): string
    {
        return $this->email;
    }

    public function getName(): string
    {
        return $this->name;
    }

    public function rename(string $name): void
    {
        $this->name = $name;
    }

    public function moveTo(string $email): void
    {
        $this->email = mb_strtolower($email);
    }

    public function coaches(): bool
    {
        return $this->coaches;
    }

    /** The hand that holds the cue. */
    public function getHand(): Hand
    {
        return $this->isLeftHanded ? Hand::Left : Hand::Right;
    }

    public function isLeftHanded(): bool
    {
        return $this->isLeftHanded;
    }

    public function getTimeZone(): string
    {
        return $this->timeZone;
    }

    public function getLanguage(): string
    {
        return $this->language;
    }

    public function read(string $language): void
    {
        $this->language = $language;
    }

    /** The day that it is where he is, at midnight. */
    public function today(\DateTimeImmutable $now): \DateTimeImmutable
    {
        return new \DateTimeImmutable($now->setTimezone(new \DateTimeZone($this->timeZone))->format('Y-m-d'));
    }

    public function live(bool $coaches, bool $isLeftHanded, string $timeZone): void
    {
        $this->coaches = $coaches;
        $this->isLeftHanded = $isLeftHanded;
        $this->timeZone = $timeZone;
    }

    public function coach(): void
    {
        $this->coaches = true;
    }

    public function getHouseRules(): HouseRules
    {
        return HouseRules::fromArray($this->houseRules ?? []);
    }

    public function playBy(HouseRules $rules): void
    {
        $this->houseRules = $rules->toArray();
    }

    public function getSeenOn(): ?\DateTimeImmutable
    {
        return $this->seenOn;
    }

    public function isHere(\DateTimeImmutable $day): void
    {
        $this->seenOn = $day;
    }

    public function getDeletedAt(): ?\DateTimeImmutable
    {
        return $this->deletedAt;
    }

    /** Deleted after a while, or with null kept. */
    public function delete(?\DateTimeImmutable $at): void
    {
        $this->deletedAt = $at;
    }

    public function isDemo(): bool
    {
        return self::isOfDemo($this->email);
    }

    /** Whether an address is one of the demo's: nobody can have one. */
    public static function isOfDemo(string $email): bool
    {
        return str_ends_with(strtolower($email), '@zig-lane.invalid');
    }

    /** The address of a visitor, or of who belongs to his demo. */
    public static function visitor(string $visit, string $who = ''): string
    {
        return 'visitor-'.$visit.$who.'@zig-lane.invalid';
    }

    /** Whom the queue counts this account's work to. */
    public function party(): string
    {
        return $this->isDemo() ? self::DEMO_PARTY : (string) $this->id;
    }

    public function getCreatedAt(): \DateTimeImmutable
    {
        return $this->createdAt;
    }

    public function getTipUnit(): TipUnit
    {
        return $this->tipUnit;
    }

    public function getLengthUnit(): LengthUnit
    {
        return $this->lengthUnit;
    }

    public function getSpeedUnit(): SpeedUnit
    {
        return $this->speedUnit;
    }

    public function measureIn(LengthUnit $length, SpeedUnit $speed): void
    {
        $this->lengthUnit = $length;
        $this->speedUnit = $speed;
    }

    public function countTipsIn(TipUnit $unit): void
    {
        $this->tipUnit = $unit;
    }

    public function getWeights(): Weights
    {
        return new Weights(...array_map(floatval(...), array_intersect_key($this->weights, Weights::LIMITS)));
    }

    public function planWith(Weights $weights): void
    {
        $this->weights = $weights->toArray();
    }

    public function getUsualTable(): ?OwnTable
    {
        return $this->usualTable;
    }

    public function playOn(?OwnTable $table): void
    {
        $this->usualTable = $table;
    }

    /** What he plays his drills with. */
    public function getEquipment(): Equipment
    {
        return $this->usualTable?->getEquipment() ?? new Equipment();
    }

    public function usesLog(): bool
    {
        return $this->usesLog;
    }

    public function getHalfLife(): int
    {
        return $this->halfLife;
    }

    public function learnFromLog(bool $usesLog, int $halfLife): void
    {
        $this->usesLog = $usesLog;
        $this->halfLife = $halfLife;
    }

    public function getChalkEvery(): int
    {
        return $this->chalkEvery;
    }

    public function remindToChalk(int $shots): void
    {
        $this->chalkEvery = $shots;
    }

    public function getUserIdentifier(): string
    {
        \assert('' !== $this->email);

        return $this->email;
    }

    public function getRoles(): array
    {
        return ['ROLE_USER'];
    }

    public function getPassword(): string
    {
        return $this->password;
    }

    public function setPassword(string $hash): void
    {
        $this->password = $hash;
    }

    #[\Deprecated]
    public function eraseCredentials(): void
    {
    }
}
