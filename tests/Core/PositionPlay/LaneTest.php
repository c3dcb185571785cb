<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\PositionPlay;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\PositionPlay\Lane;
use ZigLane\Core\PositionPlay\Zone;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

final class LaneTest extends TestCase
{
    private const LEAST = 0.6;

    /**
     * Random shots: every speed inside a lane pots the ball, keeps the cue ball on the table and lands in the zone, also between the steps
     * in which its edges are looked for; just past a found edge one does not.
     */
    public function testNothingGoesWrongInsideALane(): void
    {
        $solver = new ShotSolver();
        $lanes = $past = $wrong = $looked = 0;
        for ($seed = 1; $seed <= 260 && $lanes < 24; ++$seed) {
            $shot = self::shot(new Randomness($seed), $solver);
            $lines = null === $shot ? [] : PotModel::findAll($shot->layout, Ball::Nine, Pocket::cases(), $solver, new ExecutionErrors());
            $lane = null === $shot || [] === $lines ? null : Lane::of($shot, $lines, self::LEAST, $solver);
            if (!$lane instanceof Lane) {
                continue;
            }
            ++$lanes;
            $rollouts = $solver->simulator->rollouts($shot->layout);
            $lands = static function (float $share) use ($rollouts, $shot, $lines): bool {
                $ending = $rollouts->play($shot->strike->withSpeed($share * $shot->strike->speed));

                return $ending->pocketOf(Ball::Three) === $shot->choice->pocket
                    && !$ending->isScratch()
                    && [] === $ending->struckBut(Ball::Three)
                    && Zone::best($lines, $ending->final->spot(Ball::Cue)) >= self::LEAST;
            };
            for ($step = 0; $step <= 160; ++$step) {
                ++$looked;
                $wrong += $lands(1 - $lane->slower + $step / 160 * ($lane->slower + $lane->harder)) ? 0 : 1;
            }
            $past += null === $lane->long || !$lands(1 + $lane->harder + 0.0004) ? 1 : 0;
        }
        self::assertGreaterThan(20, $lanes);
        // An island narrower than a thirtieth of a percent may be stepped over: one in two thousand at most.
        self::assertLessThanOrEqual(intdiv($looked, 2000) + 1, $wrong);
        self::assertSame($lanes, $past);
    }

    private static function shot(Randomness $random, ShotSolver $solver): ?\ZigLane\Core\Shot\SolvedShot
    {
        $spot = static fn (): Spot => Spot::metres(0.1 + 2.3 * $random->share(), 0.1 + 1.05 * $random->share());
        $layout = Layout::empty()->with(Ball::Cue, $spot())->with(Ball::Three, $spot())->with(Ball::Nine, $spot());
        if ([] !== (new LayoutRules(new Equipment()))->faults($layout)) {
            return null;
        }
        foreach (Pocket::cases() as $pocket) {
            try {
                $stroke = new Stroke(
                    Tip::fractions(0.2 * (2 * $random->share() - 1), 0.3 * $random->share()),
                    1.4 + 1.6 * $random->share(),
                );
                $shot = $solver->solve($layout, new ShotChoice(Ball::Three, $pocket, $stroke));
            } catch (CoreError) {
                continue;
            }
            if ($shot->goesOn()) {
                return $shot;
            }
        }

        return null;
    }
}
