<?php

declare(strict_types=1);

namespace ZigLane\Tests\Reference;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\EventKind;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\Outcome;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/**
 * A cue ball of another weight than the others: the textbook's collision of two unequal masses, and what is conserved in any (closed
 * forms). Restitution e, masses m and k m: the ball struck leaves with (1 + e) k / (1 + k) of the speed, the other keeps (k - e) / (1 + k).
 */
final class CueBallWeightTest extends TestCase
{
    #[DataProvider('weights')]
    public function testAFullHitIsTheTextbooks(float $weight): void
    {
        [$before, $after] = self::speeds($this->played($weight, [[0.8, 0.6]], 3.0));
        $e = 0.97;
        self::assertEqualsWithDelta((1 + $e) * $weight / (1 + $weight), $after[1][0] / $before, 1e-6);
        self::assertEqualsWithDelta(($weight - $e) / (1 + $weight), $after[0][0] / $before, 1e-6);
    }

    /** Two frozen balls behind the first, by the compliant stage: momentum is kept whatever they do to each other. */
    #[DataProvider('weights')]
    public function testMomentumIsKeptWhenSeveralAreStruckAtOnce(float $weight): void
    {
        $d = (new BallSet())->diameter();
        [$along, $aside] = [0.8 + $d * cos(0.6), $d * sin(0.6)];
        $outcome = $this->played($weight, [[0.8, 0.6], [$along, 0.6 + $aside], [$along, 0.6 - $aside]], 3.0);
        [$before, $after] = self::speeds($outcome);
        $along = $weight * $after[0][0];
        for ($i = 1; $i < 4; ++$i) {
            $along += $after[$i][0];
        }
        // The cloth takes a little while they touch: a millisecond at 0.2 g.
        self::assertEqualsWithDelta(1.0, $along / ($weight * $before), 5e-3);
        self::assertEqualsWithDelta(0.0, ($after[0][1] * $weight + $after[1][1] + $after[2][1] + $after[3][1]) / $before, 2e-3);
    }

    /** A stun shot, by hand: the heavier of two goes on, the lighter comes back. */
    public function testAHeavyCueBallFollowsAndALightOneComesBack(): void
    {
        $ends = [];
        foreach ([0.9, 1.0, 1.1] as $weight) {
            $ends[] = $this->played($weight, [[0.9, 0.6]], 1.5)->final->spot(Ball::Cue)->x;
        }
        self::assertLessThan($ends[1], $ends[0]);
        self::assertLessThan($ends[2], $ends[1]);
    }

    /** The quick model of pots goes on saying what the simulated shots do. */
    #[DataProvider('weights')]
    public function testTheChanceOfAPotIsThatOfTheSimulatedShots(float $weight): void
    {
        $equipment = new Equipment(balls: new BallSet(cueBallWeight: $weight));
        $layout = Layout::empty()->with(Ball::Cue, Spot::metres(0.8, 0.5))->with(Ball::One, Spot::metres(1.7, 0.8));
        $solver = new ShotSolver($equipment);
        $errors = ExecutionErrors::presets()['club'] ?? array_values(ExecutionErrors::presets())[1];
        $model = PotModel::findAll($layout, Ball::One, [Pocket::FootLeft], $solver, $errors)[0];
        $cue = $layout->spot(Ball::Cue);
        $shot = $solver->solve($layout, $model->choice($cue));
        $rollouts = (new EventSimulator($equipment))->rollouts($layout);
        $random = new Randomness(5);
        $made = 0;
        for ($i = 0; $i < 1500; ++$i) {
            $ending = $rollouts->play($errors->in($shot->strike)->disturb($shot->strike, $random, $equipment->balls->radius));
            $made += Pocket::FootLeft === $ending->pocketOf(Ball::One) ? 1 : 0;
        }
        self::assertEqualsWithDelta($made / 1500, $model->chance($cue), 0.06);
    }

    /** @return iterable<string, array{float}> */
    public static function weights(): iterable
    {
        yield 'light' => [0.85];
        yield 'equal' => [1.0];
        yield 'heavy' => [1.2];
    }

    /**
     * A stroke along the table from 0.5, 0.6, into balls.
     *
     * @param list<array{float, float}> $spots metres
     */
    private function played(float $weight, array $spots, float $speed): Outcome
    {
        $layout = Layout::empty()->with(Ball::Cue, Spot::metres(0.5, 0.6));
        foreach ($spots as $i => [$x, $y]) {
            $layout = $layout->with(Ball::from($i + 1), Spot::metres($x, $y));
        }

        $equipment = new Equipment(balls: new BallSet(cueBallWeight: $weight));

        return (new EventSimulator($equipment))->play($layout, Strike::degrees(0.0, $speed));
    }

    /** @return array{float, array<int, array{float, float}>} the cue ball's speed before the contact, and velocities of all after it */
    private static function speeds(Outcome $outcome): array
    {
        $contact = $outcome->firstContact();
        \assert(null !== $contact);
        $last = $contact->time;
        foreach ($outcome->events as $event) {
            if (EventKind::Ball === $event->kind && $event->time < $contact->time + 0.004) {
                $last = $event->time;
            }
        }
        $cue = $outcome->trajectory(Ball::Cue);
        // Where several are struck at once the first contact is noted a step or two after they began to touch.
        $just = $contact->time - (\count($outcome->trajectories) > 2 ? 1e-4 : 1e-7);
        $before = $cue->segmentAt($just)->velocity($just)[0];
        $after = [];
        foreach ($outcome->trajectories as $number => $path) {
            $time = max($last, $contact->time) + (\count($outcome->trajectories) > 2 ? 0.003 : 1e-6);
            $after[$number] = $path->segmentAt($time)->velocity($time);
        }

        return [$before, $after];
    }
}
