<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Motion;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\EventKind;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\Outcome;
use ZigLane\Core\Motion\Phase;
use ZigLane\Core\Motion\SimulationLimit;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Motion\Tolerances;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;
use ZigLane\Tests\Chance;
use ZigLane\Tests\Table;
use ZigLane\Tests\Told;

/** What every shot must keep to, however many balls meet: no energy from nothing, no ball in another, always an end. */
final class ConservationTest extends TestCase
{
    #[DataProvider('seeds')]
    public function testEnergyNeverGrowsAndBallsEndWhereTheyCanLie(int $seed): void
    {
        $random = new Chance($seed);
        $table = new Table();
        $layout = $table->randomLayout($random, $random->int(2, 16), 0.3);
        $outcome = $table->simulator()->play($layout, self::randomStrike($random));

        self::assertEnergyFalls($table, $outcome);
        foreach ((new LayoutRules(new Equipment($table->profile, $table->balls)))->faults($outcome->final) as $fault) {
            self::fail($fault->getMessage());
        }
        self::assertSame($layout->count(), $outcome->final->count() + \count($outcome->pocketed));
    }

    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        for ($seed = 1; $seed <= 60; ++$seed) {
            yield "seed $seed" => [$seed];
        }
    }

    #[DataProvider('seeds')]
    public function testAMirroredShotRunsMirrored(int $seed): void
    {
        $random = new Chance(1000 + $seed);
        $table = new Table();
        $layout = $table->randomLayout($random, 3);
        $direction = $layout->spot(Ball::Cue)->directionTo($layout->spot(Ball::One)) + $random->float(-0.02, 0.02);
        $strike = static fn (float $sign): Strike => Strike::degrees(rad2deg($sign * $direction), 1.6, $sign * 0.2, 0.1, 3.0);
        $mirrored = Layout::empty();
        foreach ($layout->balls() as $ball) {
            $spot = $layout->spot($ball);
            $mirrored = $mirrored->with($ball, Spot::metres($spot->x, $table->profile->width() - $spot->y));
        }
        $a = $table->simulator()->play($layout, $strike(1.0));
        $b = $table->simulator()->play($mirrored, $strike(-1.0));

        // Rounding differs between the two, and may decide on a step of the cushion law: compare to half a millimetre up to the
        // second contact of balls, after which it may have grown.
        $contacts = 0;
        foreach ($a->events as $i => $event) {
            $contacts += EventKind::Ball === $event->kind ? 1 : 0;
            if ($contacts > 1) {
                break;
            }
            $twin = $b->events[$i];
            self::assertSame($event->kind, $twin->kind);
            self::assertEqualsWithDelta($event->time, $twin->time, 5e-4);
            self::assertEqualsWithDelta($event->at->x, $twin->at->x, 5e-4);
            self::assertEqualsWithDelta($table->profile->width() - $event->at->y, $twin->at->y, 5e-4);
        }
    }

    public function testAFreeSlideRunsBackThroughTheSameParabola(): void
    {
        // The path of a sliding ball is a parabola with constant acceleration: reversed in time it is retraced.
        $outcome = (new Table())->simulator()->play(Table::layout([0 => [0.6, 0.5]]), Strike::degrees(10.0, 2.0, 0.3, -0.2, 20.0));
        $slide = $outcome->trajectory(Ball::Cue)->segments[0];
        $end = $slide->at($slide->end());
        [$vx, $vy] = $slide->velocity($slide->end());
        foreach ([0.25, 0.5, 1.0] as $share) {
            $dt = $share * $slide->duration;
            $back = $slide->at($slide->end() - $dt);
            self::assertEqualsWithDelta($back->x, $end->x - $dt * $vx + 0.5 * $dt * $dt * $slide->ax, 1e-12);
            self::assertEqualsWithDelta($back->y, $end->y - $dt * $vy + 0.5 * $dt * $dt * $slide->ay, 1e-12);
        }
    }

    public function testAFrozenRowPassesTheBlowToItsLastBall(): void
    {
        $d = 2 * Table::R;
        $spots = [0 => [0.5, 0.6]];
        for ($i = 1; $i <= 6; ++$i) {
            $spots[$i] = [1.0 + ($i - 1) * $d, 0.6];
        }
        $outcome = (new Table())->simulator()->play(Table::layout($spots), Strike::degrees(0.0, 3.0, 0.0, -0.1));

        self::assertGreaterThan(2.0, $outcome->trajectory(Ball::Six)->speed(($outcome->firstContact()->time ?? 0) + 5e-3));
        self::assertEnergyFalls(new Table(), $outcome);
    }

    public function testABallPressedToTheRailByAFollowingBallComesToAnEnd(): void
    {
        $table = new Table();
        $y = Table::R;
        $layout = Table::layout([0 => [1.0, $y + 4.1 * Table::R], 1 => [1.0, $y]]);
        foreach ([0.2, 1.0, 4.0] as $speed) {
            $outcome = $table->simulator()->play($layout, Strike::degrees(-90.0, $speed, 0.0, 0.49));
            self::assertEnergyFalls($table, $outcome);
            self::assertLessThan(2000, \count($outcome->events));
        }
    }

    public function testATightRackStruckHardComesToAnEnd(): void
    {
        $d = 2 * Table::R;
        $layout = Layout::empty()->with(Ball::Cue, Spot::metres(0.6, 0.64));
        $number = 1;
        for ($row = 0; $row < 5; ++$row) {
            for ($k = 0; $k <= $row; ++$k) {
                $layout = $layout->with(
                    Ball::from($number++),
                    Spot::metres(1.905 + $row * $d * \sqrt(3) / 2, 0.635 + ($k - $row / 2) * $d),
                );
            }
        }
        $table = new Table();
        $outcome = $table->simulator()->play($layout, Strike::degrees(-0.2, 9.0));

        self::assertEnergyFalls($table, $outcome);
        self::assertSame(16, $outcome->final->count() + \count($outcome->pocketed));
        self::assertGreaterThan(10, \count(array_filter($outcome->trajectories, static fn ($trajectory): bool => $trajectory->moves())));
    }

    public function testANearTangentPassNeitherHangsNorTouches(): void
    {
        $simulator = (new Table())->simulator();
        foreach ([1e-3, 1e-6, 1e-9, 1e-12] as $gap) {
            $layout = Table::layout([0 => [0.5, 0.6], 1 => [1.2, 0.6 + 2 * Table::R + $gap]]);
            $outcome = $simulator->release($layout, [0 => [1.5, 0.0, 0.0, 1.5 / Table::R, 0.0]]);
            if ($gap > 1e-10) {
                self::assertNull($outcome->firstContact());
            }
            self::assertGreaterThan(0.0, $outcome->duration());
        }
    }

    public function testTheBoundOnEventsEndsWithANamedError(): void
    {
        $simulator = new EventSimulator(tolerances: new Tolerances(maxSteps: 5));

        self::assertStringContainsString(
            'stopped after 5 steps',
            Told::refusal(
                static fn (): Outcome => $simulator->play(Table::layout([0 => [0.5, 0.6], 1 => [1.2, 0.61]]), Strike::degrees(0.0, 3.0)),
                SimulationLimit::class,
            ),
        );
    }

    public function testTheSameShotGivesTheSameOutcomeToTheLastBit(): void
    {
        $random = new Chance(5);
        $table = new Table();
        $layout = $table->randomLayout($random, 10);
        $strike = self::randomStrike($random);
        $simulator = $table->simulator();

        self::assertEquals($simulator->play($layout, $strike), $simulator->play($layout, $strike));
        self::assertEquals($simulator->play($layout, $strike), $table->simulator()->play($layout, $strike));
    }

    public function testASoftBallToTheMiddleDropsAndAHardOneIntoTheJawComesOut(): void
    {
        $simulator = (new Table())->simulator();
        $towards = static fn (float $speed, float $aside): Outcome => $simulator->release(
            Table::layout([3 => [2.0, 0.73 + $aside]]),
            [3 => [$speed * \M_SQRT1_2, $speed * \M_SQRT1_2, -$speed * \M_SQRT1_2 / Table::R, $speed * \M_SQRT1_2 / Table::R, 0.0]],
        );

        self::assertSame(Pocket::FootLeft, $towards(1.0, 0.0)->pocketOf(Ball::Three));
        self::assertSame(Pocket::FootLeft, $towards(4.0, 0.0)->pocketOf(Ball::Three));
        self::assertNull($towards(4.0, 0.05)->pocketOf(Ball::Three));
    }

    public function testABallThatStopsOverTheHoleDrops(): void
    {
        // Just enough to reach the hole's edge and stop a little inside it.
        $speed = \sqrt(2 * 0.01 * 9.81 * 0.15);
        $outcome = (new Table())->simulator()->release(
            Table::layout([3 => [1.27, 0.12]]),
            [3 => [0.0, -$speed, $speed / Table::R, 0.0, 0.0]],
        );

        self::assertSame(Pocket::SideRight, $outcome->pocketOf(Ball::Three));
    }

    public function testACushionContactIsOnItsRail(): void
    {
        $outcome = (new Table())->simulator()->play(Table::layout([0 => [1.0, 0.9]]), Strike::degrees(70.0, 2.0));
        $cushions = $outcome->eventsOf(Ball::Cue, EventKind::Cushion);

        self::assertSame(Rail::Left, $cushions[0]->rail);
        self::assertEqualsWithDelta(1.27 - Table::R, $cushions[0]->at->y, 1e-9);
        self::assertSame(Rail::Right, $cushions[1]->rail);
    }

    private static function assertEnergyFalls(Table $table, Outcome $outcome): void
    {
        $before = \INF;
        $times = array_unique([
            ...array_map(static fn ($event): float => $event->time, $outcome->events),
            ...range(0.0, $outcome->duration(), max(1e-3, $outcome->duration() / 50)),
        ]);
        sort($times);
        foreach ($times as $time) {
            foreach ($outcome->trajectories as $trajectory) {
                if (Phase::Contact === $trajectory->phase($time + 1e-9)) {
                    // While a group is pressed together part of its energy is in the contacts.
                    continue 2;
                }
            }
            $energy = $table->energy($outcome, $time + 1e-9);
            self::assertLessThanOrEqual($before * (1 + 1e-9) + 1e-15, $energy, "energy grew at $time s");
            $before = $energy;
        }
    }

    private static function randomStrike(Chance $random): Strike
    {
        $offset = $random->float(0, 0.5);
        $hour = $random->float(0, 2 * \M_PI);

        return Strike::degrees(
            $random->float(0, 360),
            $random->float(0.2, 9.0),
            $offset * sin($hour),
            $offset * cos($hour),
            $random->float(0, 15),
        );
    }
}
