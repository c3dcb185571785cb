<?php

declare(strict_types=1);

namespace ZigLane\Core\Format\Internal;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\Fault;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\IllegalLayout;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Cue;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableProfile;

/**
 * Reads untrusted JSON and gathers every fault on the way; values at fault are replaced so that reading can go on.
 *
 * @internal
 */
final class Reader
{
    /** @var list<Fault> */
    private array $faults = [];

    /**
     * The document as an array.
     *
     * @param non-empty-list<int> $versions that are read
     *
     * @return array<mixed>
     *
     * @throws InvalidFile If it is too long, no JSON, or not of this format and version
     */
    public static function document(string $json, int $maxBytes, string $format, array $versions = [1]): array
    {
        if (\strlen($json) > $maxBytes) {
            throw InvalidFile::because('', new Fact('file.tooLong', ['bytes' => \strlen($json), 'most' => $maxBytes]));
        }
        try {
            $document = json_decode($json, true, 16, \JSON_THROW_ON_ERROR);
        } catch (\JsonException $e) {
            throw InvalidFile::because('', new Fact('file.notJson', ['why' => lcfirst($e->getMessage()), 'format' => $format]));
        }
        $twice = Twice::in($json);
        if (null !== $twice) {
            throw InvalidFile::because($twice, new Fact('file.twice', []));
        }
        if (!\is_array($document) || array_is_list($document) && [] !== $document) {
            throw InvalidFile::because('', new Fact('file.notObject', ['found' => self::show($document), 'format' => $format]));
        }
        if (($document['format'] ?? null) !== $format) {
            throw InvalidFile::because(
                'format',
                new Fact('file.format', ['found' => self::show($document['format'] ?? null), 'format' => $format]),
            );
        }
        if (!\in_array($document['version'] ?? null, $versions, true)) {
            throw InvalidFile::because(
                'version',
                new Fact('file.version', ['found' => self::show($document['version'] ?? null), 'allowed' => implode(' or ', $versions)]),
            );
        }

        return $document;
    }

    /** @param array<string, string|int|float> $values */
    public function fault(string $path, string $kind, array $values = []): void
    {
        $this->because($path, new Fact('file.'.$kind, $values));
    }

    public function because(string $path, Fact $fact): void
    {
        $this->faults[] = new Fault($path, $fact);
    }

    public function isClean(): bool
    {
        return [] === $this->faults;
    }

    /** @throws InvalidFile If any fault was found */
    public function finish(): void
    {
        if ([] !== $this->faults) {
            throw new InvalidFile($this->faults);
        }
    }

    /**
     * @param array<mixed> $object
     * @param list<string> $known
     */
    public function onlyKnown(array $object, string $path, array $known): void
    {
        foreach (array_keys($object) as $key) {
            if (!\in_array((string) $key, $known, true)) {
                $this->fault(self::join($path, self::key((string) $key)), 'unknownField', ['allowed' => implode(', ', $known)]);
            }
        }
    }

    /**
     * @param array<mixed> $parent
     *
     * @return array<mixed> empty if it is missing or no object
     */
    public function object(array $parent, string $path, string $key, bool $required = false): array
    {
        $value = $parent[$key] ?? null;
        if (null === $value && !$required) {
            return [];
        }
        if (!\is_array($value) || (array_is_list($value) && [] !== $value)) {
            $this->fault(self::join($path, $key), 'object', ['found' => self::show($value)]);

            return [];
        }

        return $value;
    }

    /** @param array<mixed> $parent */
    public function number(array $parent, string $path, string $key, float $least, float $most, ?float $default = null): float
    {
        if (!\array_key_exists($key, $parent)) {
            if (null === $default) {
                $this->fault(self::join($path, $key), 'missingNumber', ['least' => $least, 'most' => $most]);
            }

            return $default ?? $least;
        }

        return $this->checked($parent[$key], self::join($path, $key), $least, $most) ?? $default ?? $least;
    }

    /**
     * @template T of \BackedEnum
     *
     * @param array<mixed>    $parent
     * @param class-string<T> $enum
     *
     * @return T|null
     */
    public function choice(array $parent, string $path, string $key, string $enum, bool $required): ?\BackedEnum
    {
        $value = $parent[$key] ?? null;
        if (null === $value && !$required) {
            return null;
        }
        foreach ($enum::cases() as $case) {
            if ($case->value === $value) {
                return $case;
            }
        }
        $allowed = implode(', ', array_map(static fn (\BackedEnum $case): string => (string) $case->value, $enum::cases()));
        $this->fault(self::join($path, $key), 'choice', ['found' => self::show($value), 'allowed' => $allowed]);

        return null;
    }

    /** @param array<mixed> $document */
    public function table(array $document): TableProfile
    {
        $fields = $this->numbers($this->object($document, '', 'table'), 'table', TableProfile::LIMITS);
        $most = TableProfile::steepest($fields['roll'] ?? TableProfile::LIMITS['roll'][0]);
        if (($fields['slope'] ?? 0.0) > $most) {
            $this->fault('table.slope', 'number', ['found' => self::show($fields['slope']), 'least' => 0.0, 'most' => round($most, 3)]);
            unset($fields['slope']);
        }

        return TableProfile::fromArray($fields);
    }

    /** @param array<mixed> $document */
    public function balls(array $document): BallSet
    {
        $object = $this->object($document, '', 'balls');
        $friction = $object['friction'] ?? null;
        unset($object['friction']);
        $limits = BallSet::LIMITS;
        $parts = array_intersect_key($limits, ['frictionFloor' => 1, 'frictionFall' => 1, 'frictionRate' => 1]);
        $fields = $this->numbers($object, 'balls', array_diff_key($limits, $parts), ['friction']);
        if (null !== $friction) {
            if (!\is_array($friction) || !array_is_list($friction) || 3 !== \count($friction)) {
                $this->fault('balls.friction', 'threeNumbers', ['found' => self::show($friction)]);
            } else {
                foreach (array_keys($parts) as $i => $name) {
                    $value = $this->checked($friction[$i], "balls.friction.$i", $limits[$name][1], $limits[$name][2]);
                    if (null !== $value) {
                        $fields[$name] = $value;
                    }
                }
            }
        }

        return new BallSet(...$fields);
    }

    /** @param array<mixed> $parent */
    public function cue(array $parent, string $path): Cue
    {
        [$default, $least, $most] = Cue::END_MASS_RATIO;

        return new Cue($this->number($parent, $path, 'endMassRatio', $least, $most, $default));
    }

    /**
     * @param array<mixed>                              $object
     * @param array<string, array{float, float, float}> $limits
     * @param list<string>                              $also   known fields that are read elsewhere
     *
     * @return array<string, float> the fields that are given
     */
    public function numbers(array $object, string $path, array $limits, array $also = []): array
    {
        $this->onlyKnown($object, $path, [...array_keys($limits), ...$also]);
        $fields = [];
        foreach ($limits as $key => [, $least, $most]) {
            if (\array_key_exists($key, $object)) {
                $value = $this->checked($object[$key], self::join($path, $key), $least, $most);
                if (null !== $value) {
                    $fields[$key] = $value;
                }
            }
        }

        return $fields;
    }

    /**
     * The layout, given in metres or in diamonds; faults of the balls' places are found by the caller.
     *
     * @param array<mixed> $document
     *
     * @return array{Layout, string} and the field it stands in
     */
    public function layout(array $document, TableProfile $table, int $maxBalls): array
    {
        $hasMetres = \array_key_exists('layout', $document);
        $hasDiamonds = \array_key_exists('layoutDiamonds', $document);
        if ($hasMetres === $hasDiamonds) {
            $this->fault('layout', $hasMetres ? 'twoLayouts' : 'noLayout');

            return [Layout::empty(), 'layout'];
        }
        $field = $hasMetres ? 'layout' : 'layoutDiamonds';
        $object = $this->object($document, '', $field, true);
        if (\count($object) > $maxBalls) {
            $this->fault($field, 'tooManyBalls', ['found' => \count($object), 'most' => $maxBalls]);

            return [Layout::empty(), $field];
        }
        $spot = $hasMetres ? Spot::metres(...) : static fn (float $x, float $y): Spot => Spot::diamonds($x, $y, $table);

        return [$this->spots($object, $field, $spot), $field];
    }

    /**
     * Balls with their spots, two numbers each.
     *
     * @param array<mixed>                 $object
     * @param \Closure(float, float): Spot $spot
     */
    public function spots(array $object, string $path, \Closure $spot): Layout
    {
        $layout = Layout::empty();
        foreach ($object as $name => $value) {
            $at = self::join($path, self::key((string) $name));
            $ball = Ball::named((string) $name);
            if (null === $ball) {
                $this->fault($at, 'notABall');
                continue;
            }
            if (!\is_array($value) || !array_is_list($value) || 2 !== \count($value)) {
                $this->fault($at, 'twoNumbers', ['found' => self::show($value)]);
                continue;
            }
            $x = $this->checked($value[0], "$at.0", -100.0, 100.0);
            $y = $this->checked($value[1], "$at.1", -100.0, 100.0);
            if (null !== $x && null !== $y) {
                $layout = $layout->with($ball, $spot($x, $y));
            }
        }

        return $layout;
    }

    /** @param list<IllegalLayout> $faults */
    public function layoutFaults(array $faults, string $field): void
    {
        foreach ($faults as $fault) {
            $this->because($field.'.'.$fault->ball->label(), $fault->fact());
        }
    }

    /** A value for a message: short, and never more than a line. */
    public static function show(mixed $value): string
    {
        return match (true) {
            null === $value => 'nothing',
            \is_string($value) => '"'.mb_strimwidth((string) preg_replace('/[^\P{C}]+/u', '?', mb_scrub($value)), 0, 40, '...').'"',
            \is_bool($value) => $value ? 'true' : 'false',
            \is_array($value) => array_is_list($value) ? \sprintf('a list of %d', \count($value)) : 'an object',
            \is_float($value) => rtrim(rtrim(\sprintf('%.6F', $value), '0'), '.'),
            \is_int($value) => (string) $value,
            default => get_debug_type($value),
        };
    }

    private function checked(mixed $value, string $path, float $least, float $most): ?float
    {
        if ((!\is_int($value) && !\is_float($value)) || $value < $least || $value > $most || !is_finite((float) $value)) {
            $this->fault($path, 'number', ['found' => self::show($value), 'least' => $least, 'most' => $most]);

            return null;
        }

        return (float) $value;
    }

    private static function join(string $path, string $key): string
    {
        return '' === $path ? $key : $path.'.'.$key;
    }

    /** A key of the file as part of a path: no line breaks, no endless names. */
    private static function key(string $key): string
    {
        return trim(self::show($key), '"');
    }
}
