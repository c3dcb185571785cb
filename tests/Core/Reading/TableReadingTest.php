<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Reading;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Error\IllegalLayout;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Spot;
use ZigLane\Core\PositionPlay\Fan;
use ZigLane\Core\PositionPlay\LandingSearch;
use ZigLane\Core\PositionPlay\SpotTarget;
use ZigLane\Core\PositionPlay\Zone;
use ZigLane\Core\PositionPlay\ZoneTarget;
use ZigLane\Core\Reading\BallReading;
use ZigLane\Core\Reading\TableReading;
use ZigLane\Core\Shot\RouteClearance;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\LengthScale;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\StrokeName;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Cue;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Pocket;
use ZigLane\Core\Table\TableProfile;
use ZigLane\Tests\Chance;
use ZigLane\Tests\Table;

/** What a player weighs about one shot: the names of strokes, the fan, strokes that land on a spot, the reading of the table. */
final class TableReadingTest extends TestCase
{
    /**
     * Common practice: what the strokes are called, on a cut shot half a metre away.
     *
     * @param non-empty-string $name
     */
    #[DataProvider('strokes')]
    public function testStrokesAreCalledWhatTheyDo(string $name, float $side, float $height, float $speed, float $aside, float $distance = 0.5): void
    {
        $layout = Table::layout([0 => [1.9 - $distance, 0.69 + $aside], 1 => [1.9, 0.73]]);
        $shot = self::desk()->solve($layout, new ShotChoice(Ball::One, Pocket::FootLeft, new Stroke(Tip::fractions($side, $height), $speed)));

        self::assertStringStartsWith($name, StrokeName::of($shot, new Equipment())->spoken());
    }

    /** @return iterable<string, array{0: non-empty-string, 1: float, 2: float, 3: float, 4: float, 5?: float}> */
    public static function strokes(): iterable
    {
        // The line from the 1 to the foot left pocket runs at 40 degrees: a cue ball on it is straight.
        yield 'draw' => ['draw', 0.0, -0.4, 3.0, 0.0];
        yield 'stun' => ['stun', 0.0, -0.12, 3.0, 0.0];
        yield 'follow' => ['follow', 0.0, 0.4, 2.0, 0.0];
        yield 'force follow' => ['force follow', 0.0, 0.49, 5.0, 0.0];
        yield 'stun run-through' => ['stun run-through', 0.0, 0.1, 3.0, 0.0];
        yield 'drag' => ['drag', 0.0, -0.3, 1.0, 0.0, 1.2];
    }

    public function testInsideAndOutsideSideAreOppositeAndMirrored(): void
    {
        $name = static function (float $side, bool $mirrored): string {
            $y = static fn (float $y): float => $mirrored ? 1.27 - $y : $y;
            $layout = Table::layout([0 => [1.2, $y(0.6)], 1 => [1.9, $y(0.73)]]);
            $shot = self::desk()->solve($layout, new ShotChoice(Ball::One, $mirrored ? Pocket::FootRight : Pocket::FootLeft, new Stroke(Tip::fractions($mirrored ? -$side : $side, 0.1), 2.0)));

            return StrokeName::of($shot, new Equipment())->spoken();
        };

        // Cut to the left: left side is inside.
        self::assertStringContainsString('inside', $name(-0.3, false));
        self::assertStringContainsString('outside', $name(0.3, false));
        self::assertSame($name(0.3, false), $name(0.3, true));
        self::assertSame($name(-0.3, false), $name(-0.3, true));
    }

    public function testTheFanMirrorsWithTheTable(): void
    {
        $fan = static function (bool $mirrored): array {
            $y = static fn (float $y): float => $mirrored ? 1.27 - $y : $y;
            $fan = Fan::overTips(self::desk(), Table::layout([0 => [1.2, $y(0.6)], 1 => [1.9, $y(0.73)]]), new ShotChoice(Ball::One, $mirrored ? Pocket::FootRight : Pocket::FootLeft, new Stroke(Tip::centre(), 1.6)));

            return array_map(static fn (array $way): Layout => $way[1]->outcome->final, array_column($fan->shots, null, 0));
        };
        $one = $fan(false);
        $other = $fan(true);

        self::assertCount(9, $one);
        foreach (['centre' => 'centre', '12:00' => '12:00', '3:00' => '9:00', '7:30' => '4:30'] as $label => $twin) {
            self::assertEqualsWithDelta($one[$label]->spot(Ball::Cue)->x, $other[$twin]->spot(Ball::Cue)->x, 1e-4);
            self::assertEqualsWithDelta($one[$label]->spot(Ball::Cue)->y, 1.27 - $other[$twin]->spot(Ball::Cue)->y, 1e-4);
        }
    }

    public function testFasterGoesFarther(): void
    {
        $fan = Fan::overSpeeds(self::desk(), Table::layout([0 => [1.2, 0.6], 1 => [1.9, 0.73]]), new ShotChoice(Ball::One, Pocket::FootLeft, new Stroke(Tip::centre(), 1.6)), new LengthScale(new Equipment(new TableProfile())));
        $runs = array_map(static fn (array $way): float => $way[1]->outcome->trajectory(Ball::Cue)->length(), $fan->shots);

        self::assertGreaterThanOrEqual(4, \count($runs));
        foreach ($runs as $run) {
            self::assertGreaterThanOrEqual($runs[0], $run);
            self::assertLessThanOrEqual(end($runs), $run);
        }
    }

    /** The stop of a stroke, asked for as a landing, gives a stroke that lands within five centimetres. */
    public function testALandingCanBeFoundAgain(): void
    {
        $chance = new Chance(31);
        $search = new LandingSearch(new ShotSolver(), new ExecutionErrors());
        $asked = 0;
        while ($asked < 8) {
            $layout = Table::layout([0 => [$chance->float(0.6, 1.3), $chance->float(0.3, 0.9)], 1 => [$chance->float(1.6, 2.1), $chance->float(0.6, 1.0)], 8 => [0.4, 0.2]]);
            try {
                $shot = self::desk()->solve($layout, new ShotChoice(Ball::One, Pocket::FootLeft, new Stroke(Tip::fractions($chance->float(-0.3, 0.3), $chance->float(-0.3, 0.3)), $chance->float(1.2, 3.0), 2.0)));
            } catch (CoreError) {
                continue;
            }
            if (!$shot->isMade() || null !== $shot->scratch() || [] !== $shot->disturbed()) {
                continue;
            }
            ++$asked;
            $target = $shot->outcome->final->spot(Ball::Cue);
            $landings = $search->find($layout, Ball::One, Pocket::FootLeft, new SpotTarget($target));
            self::assertNotSame([], $landings);
            self::assertLessThanOrEqual(0.05, $landings[0]->off);
            self::assertEqualsWithDelta($landings[0]->off, $landings[0]->shot->outcome->final->spot(Ball::Cue)->distanceTo($target), 1e-9);
            self::assertTrue($landings[0]->shot->isMade());
        }
    }

    public function testALandingOnABallIsRefusedAndAnUnreachableOneTellsTheNearest(): void
    {
        $layout = Table::layout([0 => [1.2, 0.6], 1 => [2.3, 1.1], 8 => [0.4, 0.2]]);
        $search = new LandingSearch(new ShotSolver(), new ExecutionErrors());
        $far = $search->find($layout, Ball::One, Pocket::FootLeft, new SpotTarget(Spot::metres(0.05, 0.05)));
        self::assertCount(1, $far);
        self::assertGreaterThan(LandingSearch::CLOSE, $far[0]->off);
        self::assertNotSame([], $search->failures());
        self::assertSame(max($search->failures()), array_values($search->failures())[0]);

        $this->expectException(IllegalLayout::class);
        $search->find($layout, Ball::One, Pocket::FootLeft, new SpotTarget(Spot::metres(0.4, 0.21)));
    }

    public function testTheTableIsRead(): void
    {
        $layout = Table::layout([0 => [1.2, 0.6], 1 => [2.3, 1.1], 2 => [0.8, Table::R], 3 => [2.0, 0.3], 4 => [2.0 + 2 * Table::R + 0.002, 0.3], 5 => [1.27, 1.262]]);
        $reading = TableReading::of($layout, new ShotSolver(), new ExecutionErrors());
        $of = static function (Ball $ball) use ($reading): BallReading {
            foreach ($reading->balls as $one) {
                if ($one->ball === $ball) {
                    return $one;
                }
            }
            self::fail($ball->spoken().' is not read.');
        };
        $one = $of(Ball::One);

        self::assertSame(['FL', false, false, []], [$one->best()->pocket->value, $one->isFrozen, $one->isHanging, $one->cluster]);
        self::assertTrue($of(Ball::Two)->isFrozen);
        self::assertSame([Ball::Four], $of(Ball::Three)->cluster);
        self::assertSame([Ball::Three], $of(Ball::Four)->cluster);
        self::assertTrue($of(Ball::Five)->isHanging);
        self::assertSame('SL', $of(Ball::Five)->best()->pocket->value);
        // The 3 is kept from the foot right pocket by the 4 beside it, and says by whom.
        $blocked = array_values(array_filter($of(Ball::Three)->pockets, static fn ($pocket): bool => Pocket::FootRight === $pocket->pocket))[0];
        self::assertContains(Ball::Four, $blocked->blockers);
        // Most trouble first.
        $open = array_map(static fn (BallReading $ball): int => $ball->openPockets(), $reading->balls);
        $rising = $open;
        sort($rising);
        self::assertSame($rising, $open);
    }

    /** Cheating the pocket opens landings: asked for with the sides, they are aimed at a side and still land and pot. */
    public function testSidesOfThePocketOpenLandings(): void
    {
        $layout = Table::layout([0 => [1.4, 0.635], 4 => [1.9, 0.8]]);
        $search = new LandingSearch(new ShotSolver(), new ExecutionErrors());
        $sides = $search->sides($layout, Ball::Four, Pocket::FootLeft);
        self::assertCount(2, $sides);
        self::assertLessThan(0.0, min($sides));
        self::assertGreaterThan(0.0, max($sides));
        foreach ($sides as $side) {
            self::assertTrue(self::desk()->solve($layout, new ShotChoice(Ball::Four, Pocket::FootLeft, new Stroke(Tip::centre(), 1.3), $side))->isMade());
            $target = self::desk()->solve($layout, new ShotChoice(Ball::Four, Pocket::FootLeft, new Stroke(Tip::fractions(0.0, 0.3), 1.7), $side))->outcome->final->spot(Ball::Cue);
            $found = $search->find($layout, Ball::Four, Pocket::FootLeft, new SpotTarget($target), 0.0, [$side]);
            self::assertLessThan(LandingSearch::CLOSE, $found[0]->off);
            self::assertSame($side, $found[0]->shot->choice->aside);
        }
    }

    /** A landing may be a zone: strokes are found that stop in it, those deeper inside before those at its edge on each route. */
    public function testAZoneCanBeLandedIn(): void
    {
        $layout = Table::layout([0 => [0.9, 0.5], 4 => [1.5, 0.9], 5 => [2.1, 0.35]]);
        $simulator = new EventSimulator();
        $line = PotModel::find($layout->without(Ball::Four), Ball::Five, Pocket::FootRight, new ShotSolver(), new ExecutionErrors());
        self::assertNotNull($line);
        $search = new LandingSearch(new ShotSolver(), new ExecutionErrors());
        $found = $search->find($layout, Ball::Four, Pocket::FootLeft, new ZoneTarget([$line], 0.6));
        self::assertNotSame([], $found);
        foreach ($found as $landing) {
            self::assertGreaterThanOrEqual(0.6, Zone::best([$line], $landing->shot->outcome->final->spot(Ball::Cue)));
            self::assertGreaterThan(0.0, $landing->there);
            self::assertLessThanOrEqual($landing->made, $landing->there);
            self::assertGreaterThan(0.2, $landing->clear);
        }
        self::assertSame(\count($found), \count(array_unique(array_column($found, 'route'))));

        // A zone that nothing reaches: the nearest alone, outside.
        $none = $search->find($layout, Ball::Four, Pocket::FootLeft, new ZoneTarget([$line], 1.01));
        self::assertCount(1, $none);
        self::assertGreaterThan(1.0, $none[0]->off);
    }

    /** A raised cue is tried where it is asked for, and takes the place of a level one only where it gains. */
    public function testARaisedCueMustGainSomething(): void
    {
        $layout = Table::layout([0 => [1.4, 0.635], 4 => [1.9, 0.8]]);
        $search = new LandingSearch(new ShotSolver(), new ExecutionErrors());
        $compared = 0;
        foreach ([[0.0, 0.3, 1.7], [0.3, 0.0, 2.2]] as [$side, $height, $speed]) {
            $target = self::desk()->solve($layout, new ShotChoice(Ball::Four, Pocket::FootLeft, new Stroke(Tip::fractions($side, $height), $speed)))->outcome->final->spot(Ball::Cue);
            $level = [];
            foreach ($search->find($layout, Ball::Four, Pocket::FootLeft, new SpotTarget($target), 0.0) as $landing) {
                $level[$landing->route] = $landing->there;
            }
            foreach ($search->find($layout, Ball::Four, Pocket::FootLeft, new SpotTarget($target), 0.0, [0.0], [8.0, 18.0]) as $landing) {
                $elevation = $landing->shot->choice->stroke->elevation;
                self::assertContains($elevation, [0.0, 8.0, 18.0]);
                if (isset($level[$landing->route])) {
                    self::assertGreaterThanOrEqual($level[$landing->route] + ($elevation > 0.0 ? 0.1 - 1e-9 : 0.0), $landing->there);
                    ++$compared;
                }
            }
        }
        self::assertGreaterThan(1, $compared);
    }

    public function testBallsBesideTheRouteAreToldWithTheirGap(): void
    {
        // Straight along the middle: the 5 stands 80 mm from the line's middle, the 6 far away, the 4 is the called ball.
        $layout = Table::layout([0 => [0.5, 0.635], 4 => [1.9, 0.635], 5 => [1.0, 0.715], 6 => [1.2, 0.2]]);
        $shot = self::desk()->solve($layout, new ShotChoice(Ball::Four, Pocket::FootLeft, new Stroke(Tip::centre(), 1.5)));
        $passed = RouteClearance::of($shot, new BallSet())->passed;

        self::assertSame([Ball::Five], array_column($passed, 0));
        // The cue ball runs to the ghost ball, a little to one side of the straight line.
        $ghost = $shot->aim->ghost->at;
        $line = $layout->spot(Ball::Cue)->directionTo($ghost);
        $across = abs(cos($line) * (0.715 - 0.635) - sin($line) * (1.0 - 0.5));
        self::assertEqualsWithDelta($across - 2 * Table::R, $passed[0][1], 0.002);
    }

    private static function desk(): ShotSolver
    {
        return new ShotSolver();
    }
}
