<?php

declare(strict_types=1);

namespace ZigLane\Tests;

use ZigLane\Core\Calibration\Base;
use ZigLane\Core\Calibration\Parameter;
use ZigLane\Core\Calibration\Prediction;
use ZigLane\Core\Calibration\TableFit;
use ZigLane\Core\Calibration\TableFitter;
use ZigLane\Core\Calibration\TableTest;
use ZigLane\Core\Calibration\UsualTests;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/** A table whose constants are known and which is tested with a tape and a stopwatch that err. */
final class SimulatedTable
{
    /** Between these the truth lies, about evenly. */
    private const RANGES = [
        'roll' => [0.0075, 0.0135], 'slide' => [0.15, 0.26], 'spinDecay' => [5.0, 15.0], 'cushionRestitution' => [0.82, 0.95],
        'cushionFriction' => [0.2, 0.65], 'ballRestitution' => [0.92, 0.985], 'ballFriction' => [0.9, 2.0],
    ];
    private const SPOT = 0.02;
    private const WATCH = 0.1;

    /** @var array<string, float> by Parameter */
    public readonly array $truth;
    private readonly Equipment $equipment;
    private readonly EventSimulator $simulator;

    /** @param float $slope degrees, in a direction that is drawn */
    public function __construct(private readonly Chance $chance, float $slope = 0.0)
    {
        $truth = [];
        foreach (self::RANGES as $name => [$least, $most]) {
            $truth[$name] = $chance->float($least, $most);
        }
        if ($slope > 0.0) {
            $towards = $chance->float(0.0, 2 * \M_PI);
            $truth += [Parameter::SlopeLong->value => $slope * cos($towards), Parameter::SlopeShort->value => $slope * sin($towards)];
        }
        $this->truth = $truth;
        $this->equipment = self::base()->with($truth);
        $this->simulator = new EventSimulator($this->equipment);
    }

    public static function base(): Base
    {
        return new Base(new Equipment(), Parameter::usualOnes());
    }

    /** @return list<TableTest> each of the usual tests so many times */
    public function usualTests(int $times = 3): array
    {
        $tests = [];
        foreach (UsualTests::cases() as $usual) {
            for ($i = 0; $i < $times; ++$i) {
                $strike = $usual->strike();
                $tests[] = $this->seen(
                    $usual->layout($this->equipment->table),
                    $strike->withSpeed($strike->speed * $this->chance->float(0.85, 1.15)),
                    $usual->wantsCushions(),
                    $usual->wantsSeconds(),
                    $usual->value,
                );
            }
        }

        return $tests;
    }

    /** @return list<TableTest> shots of any kind on layouts of one or two balls */
    public function randomTests(int $count): array
    {
        $tests = [];
        while (\count($tests) < $count) {
            [$layout, $strike] = $this->anyShot();
            $outcome = $this->simulator->play($layout, $strike);
            if ([] === $outcome->pocketed) {
                $tests[] = $this->seen($layout, $strike, $this->chance->float(0, 1) < 0.6 ? true : null, $this->chance->float(0, 1) < 0.6);
            }
        }

        return $tests;
    }

    /** @param list<TableTest> $tests */
    public function fit(array $tests): TableFit
    {
        return (new TableFitter(self::base(), $tests))->fit();
    }

    /** @return array{float, float} median distance of predicted ends from the true ones, metres: on a fitted table, and on the usual one */
    public function freshShots(Equipment $fitted, int $count): array
    {
        $off = [[], []];
        while (\count($off[0]) < $count) {
            [$layout, $strike] = $this->anyShot();
            $true = $this->simulator->play($layout, $strike);
            if ([] !== $true->pocketed) {
                continue;
            }
            foreach ([$fitted, new Equipment()] as $i => $table) {
                $outcome = (new EventSimulator($table))->play($layout, $strike);
                $off[$i][] = $outcome->trajectory(Ball::Cue)->last()->distanceTo($true->trajectory(Ball::Cue)->last());
            }
        }

        return [self::median($off[0]), self::median($off[1])];
    }

    /** @return array{Layout, Strike} */
    private function anyShot(): array
    {
        $chance = $this->chance;
        $layout = Layout::empty()->with(Ball::Cue, Spot::metres($chance->float(0.3, 2.2), $chance->float(0.2, 1.05)));
        $direction = $chance->float(0.0, 360.0);
        if ($chance->float(0, 1) < 0.5) {
            $cue = $layout->spot(Ball::Cue);
            do {
                $spot = Spot::metres($chance->float(0.2, 2.3), $chance->float(0.15, 1.1));
            } while ($spot->distanceTo($cue) < 0.3 || $spot->distanceTo($cue) > 1.2);
            $layout = $layout->with(Ball::One, $spot);
            $direction = rad2deg($cue->directionTo($spot) + asin(0.057 / $spot->distanceTo($cue)) * $chance->float(-0.6, 0.6));
        }
        $speed = exp($chance->float(log(0.6), log(3.0)));

        return [$layout, Strike::degrees($direction, $speed, $chance->float(-0.35, 0.35), $chance->float(-0.3, 0.35), 2.0)];
    }

    /** @param bool|null $hasCushions whether cushion points are measured; null: cushions are not noted at all */
    private function seen(Layout $layout, Strike $strike, ?bool $hasCushions, bool $hasSeconds, string $name = ''): TableTest
    {
        $measured = $this->simulator->measurements($layout)->play($strike);
        $ends = $cushions = [];
        foreach ($layout->balls() as $ball) {
            $spot = $measured->ends[$ball->value];
            $ends[$ball->value] = $measured->pocketed[$ball->value]
                ?? Spot::metres($spot->x + self::SPOT * $this->chance->normal(), $spot->y + self::SPOT * $this->chance->normal());
            if (null !== $hasCushions && $ends[$ball->value] instanceof Spot) {
                $cushions[$ball->value] = array_map(
                    fn (array $met): array => [
                        $met[0],
                        $hasCushions ? Prediction::along(...$met) + self::SPOT * $this->chance->normal() : null,
                    ],
                    $measured->cushionsOf($ball),
                );
            }
        }
        $seconds = $hasSeconds ? $measured->seconds + self::WATCH * $this->chance->normal() : null;

        return new TableTest($layout, $strike, false, $ends, $cushions, $seconds, self::SPOT, self::WATCH, $name);
    }

    /** @param list<float> $numbers */
    private static function median(array $numbers): float
    {
        sort($numbers);

        return $numbers[intdiv(\count($numbers), 2)];
    }
}
