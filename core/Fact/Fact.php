<?php

declare(strict_types=1);

namespace ZigLane\Core\Fact;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;

/**
 * Something that the core has to say, as data: a kind, like "reason.onlyPocket", and what its sentence needs to know. The sentences are
 * the application's. The names of numbers end in their units: `byMetres`, `chanceShare` (0 to 1), `cutDegrees`, `speedMps`; others count.
 *
 * @phpstan-type Value Ball|Pocket|Rail|self|string|int|float|bool|null|list<Ball>|list<Rail|Pocket>|list<self>
 */
final readonly class Fact
{
    /** @param array<string, Value> $values */
    public function __construct(public string $kind, public array $values = [])
    {
    }

    /** For logs and failed tests: the kind with its values. */
    public function __toString(): string
    {
        return $this->kind.' '.json_encode(array_diff_key($this->toArray(), ['kind' => true]), \JSON_PARTIAL_OUTPUT_ON_ERROR);
    }

    /** @return array<string, mixed> for a file: balls, pockets and rails by their names there */
    public function toArray(): array
    {
        return ['kind' => $this->kind] + array_map(self::plain(...), $this->values);
    }

    /**
     * The reverse of toArray.
     *
     * @param array<mixed> $array
     *
     * @return self|null null if it is none
     */
    public static function fromArray(array $array): ?self
    {
        $kind = $array['kind'] ?? null;
        unset($array['kind']);
        if (!\is_string($kind) || 1 !== preg_match('/^[a-zA-Z]{1,40}\.[a-zA-Z]{1,40}$/D', $kind) || \count($array) > 12) {
            return null;
        }
        $values = [];
        foreach ($array as $name => $value) {
            $values[(string) $name] = self::read($value);
        }

        return new self($kind, $values);
    }

    private static function plain(mixed $value): mixed
    {
        return match (true) {
            $value instanceof Ball => $value->label(),
            $value instanceof \BackedEnum => $value->value,
            $value instanceof self => $value->toArray(),
            \is_array($value) => array_map(self::plain(...), $value),
            \is_float($value) => round($value, 6),
            default => $value,
        };
    }

    /** @return Value */
    private static function read(mixed $value): Ball|Pocket|Rail|self|string|int|float|bool|array|null
    {
        if (\is_array($value)) {
            return array_is_list($value) ? self::readList($value) : self::fromArray($value);
        }
        if (\is_string($value)) {
            // No name stands for two things: "7", "FR", "foot".
            return Ball::named($value) ?? Pocket::tryFrom($value) ?? Rail::tryFrom($value) ?? mb_substr($value, 0, 200);
        }

        return \is_scalar($value) ? $value : null;
    }

    /**
     * @param list<mixed> $list
     *
     * @return list<Ball>|list<Rail|Pocket>|list<self>
     */
    private static function readList(array $list): array
    {
        $facts = array_values(array_filter(array_map(
            static fn (mixed $fact): ?self => \is_array($fact) ? self::fromArray($fact) : null,
            $list,
        )));
        $names = array_filter($list, is_string(...));
        $balls = array_values(array_filter(array_map(Ball::named(...), $names)));

        return match (true) {
            [] !== $facts => $facts,
            [] !== $balls => $balls,
            default => array_values(array_filter(array_map(
                static fn (string $name): Rail|Pocket|null => Rail::tryFrom($name) ?? Pocket::tryFrom($name),
                $names,
            ))),
        };
    }
}
