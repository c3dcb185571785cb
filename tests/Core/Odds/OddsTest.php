<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Odds;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Odds\Window;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\PositionPlay\Lane;
use ZigLane\Core\PositionPlay\Zone;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Cue;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;
use ZigLane\Tests\Chance;
use ZigLane\Tests\Table;

/** Odds: from simulated tries, and the fast form that zones are drawn with, held against them. */
final class OddsTest extends TestCase
{
    public function testWithoutErrorsEveryTryIsTheShot(): void
    {
        $shot = self::shot();
        $trials = Trials::of($shot, new ShotSolver(), new ExecutionErrors(0.0, 0.0, 0.0, 0.0), 20);

        self::assertSame([20, 20, 0, []], [$trials->made, $trials->clean, $trials->thick + $trials->thin, $trials->scratches]);
        foreach ($trials->landings as $landing) {
            self::assertEqualsWithDelta(0.0, $landing->distanceTo($shot->outcome->final->spot(Ball::Cue)), 1e-9);
        }
    }

    public function testTheSameSeedGivesTheSameOddsAndMoreErrorFewerPots(): void
    {
        $of = static fn (ExecutionErrors $errors, int $seed): Trials => Trials::of(self::shot(), new ShotSolver(), $errors, 200, $seed);
        $good = $of(new ExecutionErrors(aim: 0.05, tipSide: 0.5), 1);

        self::assertEquals($good, $of(new ExecutionErrors(aim: 0.05, tipSide: 0.5), 1));
        self::assertGreaterThan($of(new ExecutionErrors(aim: 0.4, tipSide: 3.0), 1)->made + 30, $good->made);
        self::assertSame(200, $good->made + $good->thick + $good->thin + $good->miscues);
    }

    /** Wilson's interval for 8 of 10: 0.490 to 0.943 (published tables). */
    public function testTheIntervalIsWilsons(): void
    {
        [$low, $high] = Trials::interval(8, 10);
        self::assertEqualsWithDelta(0.490, $low, 0.001);
        self::assertEqualsWithDelta(0.943, $high, 0.001);
        self::assertEqualsWithDelta(0.0, Trials::interval(0, 10)[0], 1e-12);
        self::assertEqualsWithDelta(1.0, Trials::interval(10, 10)[1], 1e-12);
    }

    public function testTheOutlineHoldsItsShare(): void
    {
        $trials = Trials::of(self::shot(), new ShotSolver(), new ExecutionErrors(), 200);
        foreach ([0.68, 0.95] as $share) {
            $outline = $trials->outline($share);
            $inside = array_filter($trials->landings, static fn (Spot $spot): bool => self::isInside($spot, $outline));
            self::assertGreaterThanOrEqual($share - 0.01, \count($inside) / \count($trials->landings));
        }
        self::assertLessThan(
            \count($trials->landings),
            \count(array_filter($trials->landings, static fn (Spot $spot): bool => self::isInside($spot, $trials->outline(0.68)))),
        );
    }

    public function testHooksAndStruckBallsAreCounted(): void
    {
        // The cue ball stops near where the 4 was; the 9 stands close behind a wall of balls.
        $layout = Table::layout([
            0 => [1.6, 0.9],
            4 => [2.1, 1.1],
            5 => [0.6, 0.5],
            6 => [0.6, 0.57],
            7 => [0.6, 0.43],
            8 => [0.6, 0.64],
            9 => [0.4, 0.5],
        ]);
        $shot = (new ShotSolver())->solve($layout, new ShotChoice(Ball::Four, Pocket::FootLeft, new Stroke(Tip::centre(), 1.2)));
        $trials = Trials::of($shot, new ShotSolver(), new ExecutionErrors(), 60, 1, Ball::Nine);

        self::assertGreaterThan(30, $trials->made);
        self::assertGreaterThan(0.5 * $trials->made, $trials->hooked);
        self::assertSame([], $trials->struck);
    }

    /** The edges of the window are where the ball just goes and just does not. */
    public function testTheWindowIsWhereThePotEnds(): void
    {
        $shot = self::shot();
        $simulator = new EventSimulator();
        $window = Window::of($shot, new ShotSolver());
        $goes = static fn (float $turn): bool => Pocket::FootLeft === $simulator->play(
            $shot->layout,
            $shot->strike->withDirection($shot->strike->direction + $turn),
        )->pocketOf(Ball::Four);

        self::assertGreaterThan(0.0005, $window->left);
        foreach ([$window->left, -$window->right] as $edge) {
            self::assertTrue($goes(0.999 * $edge));
            self::assertFalse($goes(1.01 * $edge));
        }
        self::assertGreaterThan(0.015, $window->atPocket[0]);
        self::assertLessThan(0.06, $window->atPocket[0]);
    }

    /**
     * The fast form against 400 simulated tries each, over random spots with up to four other balls. It is an estimate for
     * drawing: half within 3 points, nine in ten within 10 (docs/performance.md has the figures over 2,000 tries).
     */
    public function testTheFastChanceAgreesWithTrials(): void
    {
        $chance = new Chance(9);
        $simulator = new EventSimulator();
        $desk = new ShotSolver();
        $offs = [];
        while (\count($offs) < 60) {
            $layout = (new Table())->randomLayout($chance, $chance->int(2, 6));
            $line = self::line($layout, Ball::One, Pocket::cases()[$chance->int(0, 5)]);
            $cue = $layout->spot(Ball::Cue);
            $fast = $line?->chance($cue) ?? 0.0;
            if (null === $line || $fast < 0.02) {
                continue;
            }
            try {
                $shot = $desk->solve($layout, $line->choice($cue));
            } catch (CoreError) {
                continue;
            }
            $offs[] = abs($fast - Trials::of($shot, new ShotSolver(), new ExecutionErrors(), 400)->chance());
        }
        sort($offs);

        self::assertLessThan(0.04, $offs[30]);
        self::assertLessThan(0.12, $offs[54]);
    }

    /** A zone is symmetric where the table is, has no part behind a ball or on one, and shrinks with the odds. */
    public function testAZoneIsCutOutByOtherBallsAndMirrorsWithTheTable(): void
    {
        $layout = Table::layout([2 => [1.27, 0.635], 5 => [0.9, 0.635]]);
        $zone = static fn (Pocket $pocket): Zone => Zone::of(array_filter([self::line($layout, Ball::Two, $pocket)]), new Equipment());
        $right = $zone(Pocket::FootRight);
        $left = $zone(Pocket::FootLeft);

        self::assertEqualsWithDelta($right->area(0.6), $left->area(0.6), 0.02 * $right->area(0.6) + 0.005);
        self::assertGreaterThan(0.0, $right->area(0.6));
        self::assertGreaterThan($right->area(0.8), $right->area(0.6));
        self::assertSame(0.0, Zone::best($right->lines, Spot::metres(0.9, 0.635)));
        // Straight behind the 5 seen from the ghost ball of the foot left pocket nothing gets through.
        $ghost = $left->lines[0]->ghost;
        self::assertSame(0.0, Zone::best($left->lines, $ghost->towards($ghost->directionTo($layout->spot(Ball::Five)), 0.6)));
        self::assertNotSame([], $left->rings(0.6));
    }

    /** Its edges are where the shot just lands in the zone and just does not; its stops lie in the zone. */
    public function testALaneEndsWhereTheZoneOrThePotEnds(): void
    {
        $shot = self::shot();
        $lines = array_filter([self::line($shot->outcome->final, Ball::Nine, Pocket::HeadLeft)]);
        self::assertCount(1, $lines);
        $least = 0.9 * $lines[0]->chance($shot->outcome->final->spot(Ball::Cue));
        $lane = Lane::of($shot, $lines, $least, new ShotSolver());
        self::assertInstanceOf(Lane::class, $lane);
        $lands = static function (float $share) use ($shot, $lines, $least): bool {
            $outcome = (new EventSimulator())->play($shot->layout, $shot->strike->withSpeed($share * $shot->strike->speed));

            return Pocket::FootLeft === $outcome->pocketOf(Ball::Four)
                && !$outcome->isScratch()
                && Zone::best($lines, $outcome->final->spot(Ball::Cue)) >= $least;
        };
        self::assertTrue(null !== $lane->short || null !== $lane->long);
        foreach (array_filter(
            [[$lane->short, -$lane->slower], [$lane->long, $lane->harder]],
            static fn (array $edge): bool => null !== $edge[0],
        ) as [, $edge]) {
            self::assertTrue($lands(1 + 0.99 * $edge));
            self::assertFalse($lands(1 + $edge + 0.001 * ($edge <=> 0)));
        }
        foreach ($lane->stops as $stop) {
            self::assertGreaterThanOrEqual($least, Zone::best($lines, $stop));
        }
        self::assertGreaterThan(0.0, $lane->length());
        self::assertInstanceOf(Fact::class, Lane::of($shot, $lines, 1.01, new ShotSolver()));
    }

    public function testABallShutOffFromAPocketHasNoLine(): void
    {
        $layout = Table::layout([2 => [2.0, 0.8], 5 => [2.2, 0.985]]);

        self::assertNull(self::line($layout, Ball::Two, Pocket::FootLeft));
        self::assertNotNull(self::line($layout->without(Ball::Five), Ball::Two, Pocket::FootLeft));
    }

    private static function shot(): SolvedShot
    {
        $layout = Table::layout([0 => [0.9, 0.5], 4 => [1.7, 0.8], 9 => [0.4, 1.0]]);

        return (new ShotSolver())->solve(
            $layout,
            new ShotChoice(Ball::Four, Pocket::FootLeft, new Stroke(Tip::fractions(0.1, 0.1), 1.8, 1.0)),
        );
    }

    private static function line(Layout $layout, Ball $ball, Pocket $pocket): ?PotModel
    {
        return PotModel::find($layout, $ball, $pocket, new ShotSolver(), new ExecutionErrors());
    }

    /** @param list<Spot> $outline convex, counter-clockwise */
    private static function isInside(Spot $spot, array $outline): bool
    {
        foreach ($outline as $i => $from) {
            $to = $outline[($i + 1) % \count($outline)];
            if (($to->x - $from->x) * ($spot->y - $from->y) - ($to->y - $from->y) * ($spot->x - $from->x) < -1e-12) {
                return false;
            }
        }

        return true;
    }
}
