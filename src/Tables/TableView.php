<?php

declare(strict_types=1);

namespace ZigLane\App\Tables;

use ZigLane\App\Entity\OwnTable;
use ZigLane\App\Words\Words;
use ZigLane\Core\Calibration\Parameter;
use ZigLane\Core\Calibration\UsualTests;
use ZigLane\Core\Table\Equipment;

/** A table as its page tells it: constants beside the usual ones and beside what its tests found, and how far the tests are. */
final readonly class TableView
{
    public Equipment $equipment;

    /** Whether what the tests found is not in the profile yet. */
    public bool $isNews;

    public function __construct(public OwnTable $table, private Words $words)
    {
        $this->equipment = $table->getEquipment();
        $fitted = $table->getFitted();
        $this->isNews = null !== $fitted && $fitted->equipment != $this->equipment;
    }

    /**
     * The constants that tests can teach: as the profile has them, as the usual table has them, and what the tests found (value and the
     * edges of its 90 percent interval).
     *
     * @return list<array{name: string, now: float, usual: float, fitted: array{float, float, float}|null, isLeft: bool}>
     */
    public function rows(): array
    {
        $fit = $this->table->getFit();
        $rows = [];
        $found = \is_array($fit['parameters'] ?? null) ? $fit['parameters'] : [];
        $isCueTold = isset($found[Parameter::EndMassRatio->value]);
        foreach ([...Parameter::usualOnes(), ...($isCueTold ? [Parameter::EndMassRatio] : [])] as $one) {
            $number = $found[$one->value] ?? null;
            $rows[] = [
                'name' => $one->value,
                'now' => self::of($one, $this->equipment),
                'usual' => self::of($one, new Equipment()),
                'fitted' => self::told($number),
                'isLeft' => \is_array($fit['unidentified'] ?? null) && \in_array($one->value, $fit['unidentified'], true),
            ];
        }

        return $rows;
    }

    /** @return array{float, float, float}|null the slope that the tests found, degrees, with its interval */
    public function slope(): ?array
    {
        $fit = $this->table->getFit();

        return self::told(\is_array($fit['parameters'] ?? null) ? $fit['parameters']['slope'] ?? null : null);
    }

    /** @return list<array{test: UsualTests, done: int, teaches: list<string>}> */
    public function tests(): array
    {
        $count = array_count_values(array_map(
            static fn (array $one): string => \is_string($one['name'] ?? null) ? $one['name'] : '',
            $this->table->getTests(),
        ));

        return array_map(fn (UsualTests $test): array => [
            'test' => $test,
            'done' => $count[$test->value] ?? 0,
            'teaches' => array_values(array_unique(array_map(
                fn (Parameter $one): string => $this->words->said('tables.short.'.$one->value),
                $test->teaches(),
            ))),
        ], UsualTests::cases());
    }

    /**
     * Constants that the tests cannot tell from each other.
     *
     * @return list<list<string>>
     */
    public function alike(): array
    {
        $groups = [];
        $fit = $this->table->getFit();
        foreach (\is_array($fit['alike'] ?? null) ? $fit['alike'] : [] as $group) {
            $names = \is_array($group) && \is_array($group['parameters'] ?? null) ? $group['parameters'] : [];
            $names = array_values(array_filter($names, is_string(...)));
            if (\is_array($group) && is_numeric($group['singular'] ?? null) && $group['singular'] < 1.0 && \count($names) > 1) {
                $groups[] = $names;
            }
        }

        return $groups;
    }

    /** @return array<int, float> tests that do not go with the others, by their number, with standard deviations */
    public function contradicting(): array
    {
        $off = [];
        $fit = $this->table->getFit();
        foreach (\is_array($fit['contradicts'] ?? null) ? $fit['contradicts'] : [] as $one) {
            if (\is_array($one) && \is_int($one['test'] ?? null) && is_numeric($one['deviations'] ?? null)) {
                $off[$one['test']] = (float) $one['deviations'];
            }
        }

        return $off;
    }

    /** @return array{float, float, float}|null */
    private static function told(mixed $number): ?array
    {
        if (!\is_array($number) || !is_numeric($number['value'] ?? null) || !\is_array($number['interval'] ?? null)) {
            return null;
        }
        [$from, $to] = [$number['interval'][0] ?? null, $number['interval'][1] ?? null];

        return is_numeric($from) && is_numeric($to) ? [(float) $number['value'], (float) $from, (float) $to] : null;
    }

    private static function of(Parameter $one, Equipment $equipment): float
    {
        return match ($one) {
            Parameter::BallRestitution => $equipment->balls->restitution,
            Parameter::EndMassRatio => $equipment->cue->endMassRatio,
            Parameter::BallFriction => $equipment->balls->dirt(),
            default => $equipment->table->toArray()[$one->value] ?? $one->usual(),
        };
    }
}
