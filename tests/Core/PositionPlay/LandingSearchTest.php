<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\PositionPlay;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\IllegalLayout;
use ZigLane\Core\PositionPlay\Landing;
use ZigLane\Core\PositionPlay\LandingSearch;
use ZigLane\Core\PositionPlay\SpotTarget;
use ZigLane\Core\PositionPlay\Zone;
use ZigLane\Core\PositionPlay\ZoneTarget;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Cue;
use ZigLane\Core\Table\Spot;
use ZigLane\Tests\Chance;
use ZigLane\Tests\Table;

final class LandingSearchTest extends TestCase
{
    /** The stop of a stroke, asked for as a landing, gives a stroke that lands within five centimetres. */
    public function testALandingCanBeFoundAgain(): void
    {
        $chance = new Chance(31);
        $search = new LandingSearch(new ShotSolver(), new ExecutionErrors());
        $asked = 0;
        while ($asked < 8) {
            $layout = Table::layout([
                0 => [$chance->float(0.6, 1.3), $chance->float(0.3, 0.9)],
                1 => [$chance->float(1.6, 2.1), $chance->float(0.6, 1.0)],
                8 => [0.4, 0.2],
            ]);
            try {
                $shot = self::desk()->solve(
                    $layout,
                    new ShotChoice(
                        Ball::One,
                        Pocket::FootLeft,
                        new Stroke(Tip::fractions($chance->float(-0.3, 0.3), $chance->float(-0.3, 0.3)), $chance->float(1.2, 3.0), 2.0),
                    ),
                );
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
        $far = $search->find($layout, Ball::One, Pocket::FootLeft, new SpotTarget(Spot::metres(0.1, 0.6)));
        self::assertCount(1, $far);
        self::assertGreaterThan(LandingSearch::CLOSE, $far[0]->off);
        self::assertNotSame([], $search->failures());
        self::assertSame(max(array_column($search->failures(), 1)), $search->failures()[0][1]);

        $this->expectException(IllegalLayout::class);
        $search->find($layout, Ball::One, Pocket::FootLeft, new SpotTarget(Spot::metres(0.4, 0.21)));
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
            self::assertTrue(self::desk()->solve(
                $layout,
                new ShotChoice(Ball::Four, Pocket::FootLeft, new Stroke(Tip::centre(), 1.3), $side),
            )->isMade());
            $target = self::desk()->solve(
                $layout,
                new ShotChoice(Ball::Four, Pocket::FootLeft, new Stroke(Tip::fractions(0.0, 0.3), 1.7), $side),
            )->outcome->final->spot(Ball::Cue);
            $found = $search->find($layout, Ball::Four, Pocket::FootLeft, new SpotTarget($target), 0.0, [$side]);
            self::assertLessThan(LandingSearch::CLOSE, $found[0]->off);
            self::assertSame($side, $found[0]->shot->choice->aside);
        }
    }

    /** A landing may be a zone: strokes are found that stop in it, those deeper inside before those at its edge on each route. */
    public function testAZoneCanBeLandedIn(): void
    {
        $layout = Table::layout([0 => [0.9, 0.5], 4 => [1.5, 0.9], 5 => [2.1, 0.35]]);
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
        self::assertSame(
            \count($found),
            \count(array_unique(array_map(static fn (Landing $landing): string => Landing::keyOf($landing->route), $found))),
        );

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
            $target = self::desk()->solve(
                $layout,
                new ShotChoice(Ball::Four, Pocket::FootLeft, new Stroke(Tip::fractions($side, $height), $speed)),
            )->outcome->final->spot(Ball::Cue);
            $level = [];
            foreach ($search->find($layout, Ball::Four, Pocket::FootLeft, new SpotTarget($target), 0.0) as $landing) {
                $level[Landing::keyOf($landing->route)] = $landing->there;
            }
            foreach ($search->find($layout, Ball::Four, Pocket::FootLeft, new SpotTarget($target), 0.0, [0.0], [8.0, 18.0]) as $landing) {
                $elevation = $landing->shot->choice->stroke->elevation;
                self::assertContains($elevation, [0.0, 8.0, 18.0]);
                if (isset($level[Landing::keyOf($landing->route)])) {
                    self::assertGreaterThanOrEqual(
                        $level[Landing::keyOf($landing->route)] + ($elevation > 0.0 ? 0.1 - 1e-9 : 0.0),
                        $landing->there,
                    );
                    ++$compared;
                }
            }
        }
        self::assertGreaterThan(1, $compared);
    }

    private static function desk(): ShotSolver
    {
        return new ShotSolver();
    }
}
