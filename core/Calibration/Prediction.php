<?php

declare(strict_types=1);

namespace ZigLane\Core\Calibration;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\Measured;
use ZigLane\Core\Motion\Measurements;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/** What tests would show on a table with stated constants, held against what was seen of them. */
final class Prediction
{
    /** What a pocket that a ball should have dropped in counts: standard deviations. */
    private const OTHERWISE = 4.0;
    /** Beyond this many standard deviations what lies off counts by itself and not by its square (Huber): one bad test is one bad test. */
    private const HUBER = 4.0;
    private const FAR = 60.0;

    private readonly EventSimulator $simulator;

    /** @var array<int, Measurements> by the test's object */
    private array $measurements = [];
    private int $shots = 0;

    public function __construct(private readonly Equipment $equipment)
    {
        $this->simulator = new EventSimulator($equipment);
    }

    public function shots(): int
    {
        return $this->shots;
    }

    /**
     * Standard deviations by which what is predicted lies off what was seen, always as many of the same test.
     *
     * @param float $speed m/s
     *
     * @return list<float>
     */
    public function residuals(TableTest $test, float $speed): array
    {
        try {
            $measured = $this->measured($test, $speed);
        } catch (CoreError) {
            return array_fill(0, self::count($test), self::FAR);
        }
        $residuals = [];
        foreach ($test->ends as $ball => $end) {
            if ($end instanceof Pocket) {
                $residuals[] = ($measured->pocketed[$ball] ?? null) === $end ? 0.0 : self::OTHERWISE;
                $residuals[] = 0.0;
                continue;
            }
            $last = $measured->ends[$ball];
            $residuals[] = self::tamed(($last->x - $end->x) / $test->spot);
            $residuals[] = self::tamed(($last->y - $end->y) / $test->spot);
        }
        foreach ($test->cushions as $ball => $seen) {
            foreach ($this->off($seen, $measured, Ball::from($ball), $test->spot) as $off) {
                $residuals[] = self::tamed($off);
            }
        }
        if (null !== $test->seconds) {
            $residuals[] = self::tamed(($measured->seconds - $test->seconds) / $test->watch);
        }

        return $residuals;
    }

    /** Sum of their squares. */
    public function squares(TableTest $test, float $speed): float
    {
        $sum = 0.0;
        foreach ($this->residuals($test, $speed) as $off) {
            $sum += $off * $off;
        }

        return $sum;
    }

    /**
     * What a test would show; its layout is legal on any table of its size.
     *
     * @throws CoreError If it cannot be simulated
     */
    public function measured(TableTest $test, float $speed): Measured
    {
        ++$this->shots;
        $measurements = $this->measurements[spl_object_id($test)] ??= $this->simulator->measurements($test->layout);

        return $measurements->play($test->strike->withSpeed($speed));
    }

    /** How many residuals a test has. */
    public static function count(TableTest $test): int
    {
        return 2 * \count($test->ends)
            + array_sum(array_map(static fn (array $seen): int => \count($seen) + 1, $test->cushions))
            + (null === $test->seconds ? 0 : 1);
    }

    /** How far along a rail a spot lies, metres from its right or head end. */
    public static function along(Rail $rail, Spot $at): float
    {
        return $rail->isShort() ? $at->y : $at->x;
    }

    /**
     * Cushion points of a ball. A cushion that it does not reach counts by what is missing to it, one that it should not have reached by
     * how far it went from there: so neither jumps where a ball just gets there.
     *
     * @param list<array{Rail, float|null}> $seen
     *
     * @return list<float> one for each that was seen and one for those beyond
     */
    private function off(array $seen, Measured $measured, Ball $ball, float $deviation): array
    {
        $met = $measured->cushionsOf($ball);
        $last = $measured->ends[$ball->value];
        $off = [];
        $isLost = false;
        foreach ($seen as $i => [$rail, $along]) {
            $isLost = $isLost || ($met[$i][0] ?? null) !== $rail;
            $off[] = match (true) {
                $isLost => ($this->equipment->table->fromRail($rail, $last->x, $last->y) - $this->equipment->balls->radius) / $deviation,
                null === $along => 0.0,
                default => (self::along($rail, $met[$i][1]) - $along) / $deviation,
            };
        }
        $far = 0.0;
        $spots = [...array_column(\array_slice($met, \count($seen)), 1), $last];
        for ($i = 1; $i < \count($spots); ++$i) {
            $far += $spots[$i - 1]->distanceTo($spots[$i]);
        }

        return [...$off, $far / $deviation];
    }

    /** What is far off with the square root of what Huber's loss makes of it. */
    private static function tamed(float $off): float
    {
        $size = abs($off);

        return $size <= self::HUBER ? $off : ($off < 0.0 ? -1 : 1) * \sqrt(self::HUBER * (2 * $size - self::HUBER));
    }
}
