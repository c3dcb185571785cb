<?php

declare(strict_types=1);

namespace ZigLane\App\Practice;

use Symfony\Component\Uid\Uuid;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Name\Ball;

/** A try as the practice page writes it down. It names the try before it, so that late and doubled entries are told apart. */
final readonly class TryEntry
{
    private const FARTHEST = 8.5;

    /** @param array<int|string, array{float, float}>|null $after in diamonds */
    private function __construct(
        public Uuid $id,
        public ?Uuid $previous,
        public bool $isDone,
        public ?int $made,
        public ?int $opened,
        public ?array $after,
    ) {
    }

    /** @throws Refused If it is not understood */
    public static function parse(string $json): self
    {
        $entry = \strlen($json) > 8192 ? null : json_decode($json, true, 6);
        if (!\is_array($entry)) {
            throw Refused::because('entry');
        }
        $previous = $entry['previous'] ?? null;

        return new self(
            self::uuid($entry['id'] ?? null),
            null === $previous ? null : self::uuid($previous),
            true === ($entry['done'] ?? null),
            self::count($entry['made'] ?? null),
            self::count($entry['opened'] ?? null),
            self::after($entry['after'] ?? null),
        );
    }

    private static function uuid(mixed $id): Uuid
    {
        return \is_string($id) && Uuid::isValid($id) ? Uuid::fromString($id) : throw Refused::because('entry');
    }

    private static function count(mixed $value): ?int
    {
        return null === $value || (\is_int($value) && $value >= 0 && $value <= 15) ? $value : throw Refused::because('entry');
    }

    /** @return array<int|string, array{float, float}>|null */
    private static function after(mixed $after): ?array
    {
        if (null === $after) {
            return null;
        }
        $spots = [];
        foreach (\is_array($after) ? $after : throw Refused::because('entry') as $name => $spot) {
            $ball = Ball::named((string) $name);
            $isSpot = \is_array($spot) && array_is_list($spot) && 2 === \count($spot);
            if (null === $ball || !$isSpot || !self::isOn($spot[0]) || !self::isOn($spot[1])) {
                throw Refused::because('entry');
            }
            $spots[$ball->label()] = [round((float) $spot[0], 4), round((float) $spot[1], 4)];
        }

        return $spots;
    }

    /** @phpstan-assert-if-true int|float $value */
    private static function isOn(mixed $value): bool
    {
        return (\is_int($value) || \is_float($value)) && $value >= -0.5 && $value <= self::FARTHEST;
    }
}
