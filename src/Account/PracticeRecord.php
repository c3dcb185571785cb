<?php

declare(strict_types=1);

namespace ZigLane\App\Account;

use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\DrillSession;
use ZigLane\App\Entity\DrillTry;
use ZigLane\App\Entity\DrillVersion;

/**
 * One session of a drill as practice.json has it, read from outside.
 *
 * @phpstan-type TryRow array{
 *     number: int, player: int, done: bool, made: int|null, opened: int|null,
 *     after: array<int|string, array{float, float}>|null, at: \DateTimeImmutable
 * }
 */
final readonly class PracticeRecord
{
    private const MOST_TRIES = 2000;

    /**
     * @param list<string> $players
     * @param list<TryRow> $tries
     */
    private function __construct(
        public string $id,
        public string $version,
        public string $key,
        private int $level,
        private bool $isScored,
        private array $players,
        private int $seed,
        private \DateTimeImmutable $startedAt,
        private ?\DateTimeImmutable $endedAt,
        private ?float $score,
        private int $count,
        private array $tries,
    ) {
    }

    /** Null where it is not understood. */
    public static function read(mixed $one): ?self
    {
        $text = static fn (string $field): string => \is_array($one) && \is_string($one[$field] ?? null) ? $one[$field] : '';
        $whole = self::whole(...);
        if (!\is_array($one) || !Uuid::isValid($text('id')) || '' === $text('key') || \strlen($text('key')) > 80) {
            return null;
        }
        $startedAt = self::time($text('startedAt'));
        $seed = $whole($one['seed'] ?? null, 1, \PHP_INT_MAX >> 32);
        $level = $whole($one['level'] ?? null, 0, 50);
        $tries = [];
        foreach (\is_array($one['tries'] ?? null) ? \array_slice($one['tries'], 0, self::MOST_TRIES) : [] as $try) {
            $at = \is_array($try) && \is_string($try['at'] ?? null) ? self::time($try['at']) : null;
            $number = \is_array($try) ? $whole($try['number'] ?? null, 0, 32_000) : null;
            $player = \is_array($try) ? $whole($try['player'] ?? null, 0, 20) : null;
            if (!\is_array($try) || null === $at || null === $number || null === $player) {
                return null;
            }
            $tries[] = [
                'number' => $number, 'player' => $player, 'done' => true === ($try['done'] ?? null), 'made' => $whole($try['made'] ?? null, 0, 1000),
                'opened' => $whole($try['opened'] ?? null, 0, 1000), 'after' => self::spots($try['after'] ?? null), 'at' => $at,
            ];
        }
        if (null === $startedAt || null === $seed || null === $level) {
            return null;
        }
        $players = [];
        foreach (\is_array($one['players'] ?? null) ? $one['players'] : [] as $name) {
            if (\is_string($name) && mb_strlen($name) <= 40 && \count($players) < 8) {
                $players[] = mb_scrub($name);
            }
        }
        $score = $one['score'] ?? null;

        return new self(
            $text('id'), $text('version'), $text('key'), $level, true === ($one['scored'] ?? null), $players, $seed, $startedAt,
            self::time($text('endedAt')), is_numeric($score) ? (float) $score : null, $whole($one['count'] ?? null, 0, 32_000) ?? 0, $tries,
        );
    }

    public function session(Uuid $id, Account $owner, DrillVersion $version, string $key): DrillSession
    {
        $session = new DrillSession(
            $id, $owner, $version, $key, $this->level, $this->isScored, $this->players, $this->seed, $this->startedAt,
        );
        if (null !== $this->score || null !== $this->endedAt) {
            $session->stand($this->score ?? 0.0, $this->count, $this->endedAt);
        }

        return $session;
    }

    /** @return list<DrillTry> of the session that was made of it */
    public function tries(DrillSession $session): array
    {
        return array_map(static fn (array $try): DrillTry => new DrillTry(
            Uuid::v5(
                $session->getId(),
                (string) $try['number'].'-'.$try['player'],
            ), $session, $try['number'], $try['player'], $try['done'], $try['made'],
            $try['opened'], $try['after'], $try['at'],
        ), $this->tries);
    }

    private static function whole(mixed $value, int $least, int $most): ?int
    {
        return \is_int($value) && $value >= $least && $value <= $most ? $value : null;
    }

    /** @return array<int|string, array{float, float}>|null by ball */
    private static function spots(mixed $spots): ?array
    {
        $read = [];
        foreach (\is_array($spots) ? $spots : [] as $ball => $spot) {
            if (\is_array($spot) && is_numeric($spot[0] ?? null) && is_numeric($spot[1] ?? null)) {
                $read[$ball] = [(float) $spot[0], (float) $spot[1]];
            }
        }

        return \is_array($spots) ? $read : null;
    }

    private static function time(string $text): ?\DateTimeImmutable
    {
        $at = \DateTimeImmutable::createFromFormat('!Y-m-d\TH:i:s\Z', $text, new \DateTimeZone('UTC'));

        return false === $at ? null : $at;
    }
}
