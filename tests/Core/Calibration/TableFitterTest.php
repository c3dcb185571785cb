<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Calibration;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Calibration\Base;
use ZigLane\Core\Calibration\Parameter;
use ZigLane\Core\Calibration\TableFitter;
use ZigLane\Core\Calibration\TableTest;
use ZigLane\Core\Calibration\UsualTests;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\OutOfTime;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;
use ZigLane\Tests\Chance;
use ZigLane\Tests\SimulatedTable;

/** What tests of a table teach, on tables whose truth is known. The proof over many tables is benchmarks/table-tests.php. */
final class TableFitterTest extends TestCase
{
    /** Few: what is tested here is not how fine the intervals are. */
    private const BUDGET = 40_000;

    public function testTheUsualTestsFindATableOnWhichShotsEndWhereTheyDo(): void
    {
        $table = new SimulatedTable(new Chance(77));
        $fit = (new TableFitter(SimulatedTable::base(), $table->usualTests(1), budget: self::BUDGET))->fit();
        [$fitted, $usual] = $table->freshShots($fit->equipment, 20);
        self::assertLessThan(0.5 * $usual, $fitted);
        foreach (['roll', 'cushionRestitution'] as $name) {
            $number = $fit->numbers[$name] ?? null;
            self::assertNotNull($number);
            self::assertLessThan($number->interval[1], $number->interval[0]);
            // Twice as wide: such an interval is missed once in a thousand.
            $half = $number->interval[1] - $number->interval[0];
            self::assertEqualsWithDelta($table->truth[$name], $number->value, $half);
        }
        self::assertSame([], $fit->contradicts);
        self::assertCount(12, $fit->speeds);
    }

    public function testARollAloneTeachesTheClothAndNothingElse(): void
    {
        $table = new SimulatedTable(new Chance(5));
        $rolls = \array_slice($table->usualTests(), 0, 3);
        $fit = (new TableFitter(SimulatedTable::base(), $rolls, budget: self::BUDGET))->fit();
        self::assertSame(['roll'], array_keys($fit->numbers));
        self::assertContains(Parameter::CushionRestitution, $fit->left);
        self::assertSame((new Equipment())->table->cushionRestitution, $fit->equipment->table->cushionRestitution);
        self::assertLessThan(0.3, $fit->alike[0][0]);
    }

    /** Of a ball that rolls from the start: distance d in time t, constant deceleration, so mu = 2 d / (g t^2). */
    public function testARollAgainstTheClosedForm(): void
    {
        $layout = Layout::empty()->with(Ball::Cue, Spot::metres(0.3, 0.6));
        [$distance, $seconds] = [1.5, 5.2];
        $strike = Strike::degrees(0.0, 1.0, 0.0, 0.4);
        $test = new TableTest($layout, $strike, false, [0 => Spot::metres(0.3 + $distance, 0.6)], [0 => []], $seconds, 0.001, 0.005);
        $fit = (new TableFitter(new Base(new Equipment(), [Parameter::Roll]), [$test], budget: 20_000))->fit();
        $roll = 2 * $distance / (9.81 * $seconds ** 2);
        self::assertEqualsWithDelta($roll, $fit->numbers['roll']->value, 0.01 * $roll);
        self::assertEqualsWithDelta(2 * $distance / $seconds, $fit->speeds[0], 0.01);
    }

    public function testATestThatContradictsTheOthersIsNamed(): void
    {
        $table = new SimulatedTable(new Chance(21));
        $tests = \array_slice($table->usualTests(), 0, 6);
        $bad = $tests[4];
        $tests[4] = new TableTest(
            $bad->layout, $bad->strike, false, $bad->ends, $bad->cushions, 1.6 * (float) $bad->seconds, $bad->spot, $bad->watch,
        );
        $fit = (new TableFitter(SimulatedTable::base(), array_values($tests), budget: self::BUDGET))->fit();
        self::assertSame(4, array_key_first($fit->contradicts));
    }

    public function testATableThatIsNotLevelIsFound(): void
    {
        $table = new SimulatedTable(new Chance(9), 0.15);
        $tests = array_values(array_filter(
            $table->usualTests(2),
            static fn (TableTest $test): bool => \in_array($test->name, ['roll', 'along', 'across', 'lag'], true),
        ));
        $fit = (new TableFitter(SimulatedTable::base(), $tests, budget: self::BUDGET))->fit();
        self::assertEqualsWithDelta(0.15, $fit->equipment->table->slope, 0.04);
        foreach ([Parameter::SlopeLong, Parameter::SlopeShort] as $part) {
            self::assertEqualsWithDelta($table->truth[$part->value], $fit->numbers[$part->value]->value, 0.05);
        }
    }

    public function testAFitThatIsNoLongerWantedEnds(): void
    {
        $told = 0;
        $goesOn = static function () use (&$told): bool {
            return ++$told < 3;
        };
        $tests = (new SimulatedTable(new Chance(1)))->usualTests(1);
        $this->expectException(OutOfTime::class);
        (new TableFitter(SimulatedTable::base(), $tests, $goesOn))->fit();
    }

    /** The usual tests can be shot on any usual table: no ball drops, with up to a sixth more or less speed. */
    public function testTheUsualTestsStayOnTheTable(): void
    {
        foreach (UsualTests::cases() as $usual) {
            foreach ([0.85, 1.0, 1.15] as $share) {
                $equipment = new Equipment();
                $strike = $usual->strike()->withSpeed($share * $usual->strike()->speed);
                $outcome = (new EventSimulator($equipment))->play($usual->layout($equipment->table), $strike);
                self::assertSame([], $outcome->pocketed, $usual->value);
            }
            self::assertNotSame([], $usual->teaches());
        }
    }
}
