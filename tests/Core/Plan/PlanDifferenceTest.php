<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Plan;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Plan\Leg;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Plan\PlanDifference;
use ZigLane\Core\Plan\Risks;
use ZigLane\Core\Plan\Tally;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\CushionPoint;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Spot;
use ZigLane\Tests\Told;

/** Plans in the strip differ by what really differs. */
final class PlanDifferenceTest extends TestCase
{
    public function testEachPlanIsToldByTheFirstThingThatTellsItFromTheOthers(): void
    {
        $told = PlanDifference::told([
            self::plan(Pocket::SideLeft, [Rail::Foot, Rail::Left], 2.0),
            self::plan(Pocket::SideLeft, [Rail::Foot], 2.0),
            self::plan(Pocket::SideLeft, [Rail::Right], 2.0),
            self::plan(Pocket::FootLeft, [], 2.0),
        ]);

        self::assertSame(
            ['1 in SL, two cushions', '1 in SL, off the foot rail', '1 in SL, off the right rail', '1 in FL'],
            array_map(static fn (Plan $plan): string => null === $plan->differs ? '' : Told::of($plan->differs), $told),
        );
    }

    /** A speed is told only where it really differs: by a tenth or more; then what follows. */
    public function testNearlyTheSameSpeedIsNoDifference(): void
    {
        $kinds = static fn (Plan ...$plans): array => array_map(
            static fn (Plan $plan): ?string => $plan->differs?->kind,
            PlanDifference::told(array_values($plans)),
        );

        self::assertSame(
            ['differs.speed', 'differs.speed'],
            $kinds(self::plan(Pocket::SideLeft, [], 2.0), self::plan(Pocket::SideLeft, [], 2.4)),
        );
        self::assertSame(
            ['differs.then', 'differs.then'],
            $kinds(self::plan(Pocket::SideLeft, [], 2.0, Ball::Two), self::plan(Pocket::SideLeft, [], 2.05, Ball::Three)),
        );
        self::assertSame(
            ['differs.pot', 'differs.pot'],
            $kinds(self::plan(Pocket::SideLeft, [], 2.0), self::plan(Pocket::SideLeft, [], 2.05)),
        );
        self::assertEquals(
            new Fact('differs.pot', ['ball' => Ball::One, 'pocket' => Pocket::SideLeft, 'group' => null]),
            PlanDifference::told([self::plan(Pocket::SideLeft, [], 2.0)])[0]->differs,
        );
    }

    /** @param list<Rail> $rails */
    private static function plan(Pocket $pocket, array $rails, float $speed, Ball ...$then): Plan
    {
        $leg = static fn (int $number, Ball $ball): Leg => new Leg(
            $number,
            new ShotChoice($ball, $pocket, new Stroke(Tip::fractions(0.0, 0.2), $speed)),
            Layout::empty(),
            0.0,
            10.0,
            Spot::metres(1.0, 0.5),
            array_map(static fn (Rail $rail): CushionPoint => new CushionPoint($rail, Spot::metres(1.0, 0.5)), $rails),
            null,
            0.9,
            0.8,
            0.85,
            null,
            0,
            new Risks(),
            null,
            [],
            null,
            [],
        );

        return new Plan(
            new Rack(Game::EightBall, Layout::empty()),
            null,
            null,
            [$leg(1, Ball::One), ...array_map(static fn (Ball $ball): Leg => $leg(2, $ball), array_values($then))],
            null,
            new Tally(),
        );
    }
}
