<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Plan;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Plan\LegalHits;
use ZigLane\Core\Plan\PlanSearch;
use ZigLane\Core\Player\ErrorGrowth;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Referee;
use ZigLane\Core\Rules\Turn;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Tests\Table;

final class LegalHitsTest extends TestCase
{
    /**
     * The cue ball is walled in; no ball can be made, but the 1 can be kicked at. The chance is that of other tries with the same errors.
     */
    public function testWhereNothingGoesTheLegalHitsAreTold(): void
    {
        $player = new ExecutionErrors(0.05, 0.05, 1.0, 1.0, new ErrorGrowth(kick: 0.0));
        $rack = new Rack(Game::NineBall, self::hidden(), player: $player);
        $hits = LegalHits::of($rack);
        self::assertNotSame([], $hits);
        self::assertSame(Ball::One, $hits[0]->ball);
        self::assertNotSame([], $hits[0]->cushions);
        $solver = new ShotSolver();
        $rollouts = $solver->simulator->rollouts($rack->layout);
        $random = new Randomness(77);
        $referee = Referee::of($rack);
        $legal = 0;
        for ($i = 0; $i < 400; ++$i) {
            try {
                $ending = $rollouts->play($player->in($hits[0]->strike)->disturb($hits[0]->strike, $random, Table::R));
            } catch (CoreError) {
                continue;
            }
            $verdict = $referee->judge($rack->layout, Turn::first($rack), $ending, Ball::One, Pocket::FootLeft, $hits[0]->strike);
            $legal += $verdict->isFoul() ? 0 : 1;
        }
        self::assertEqualsWithDelta($legal / 400, $hits[0]->chance, 4 * \sqrt(0.25 / 100));
        // As it is meant it is legal.
        $meant = Ending::of($solver->simulator->play($rack->layout, $hits[0]->strike));
        self::assertSame(Ball::One, $meant->first);
    }

    public function testNothingToPlanIsNeverTheLastWord(): void
    {
        $search = new PlanSearch(new Rack(Game::NineBall, self::hidden()));
        self::assertSame([], $search->candidates());
        self::assertSame('plan.nothingBut', $search->nothing()->fact()->kind);
        $why = static fn (Game $game, \ZigLane\Core\Position\Layout $layout): ?string => PlanSearch::refusal(new Rack($game, $layout))
            ?->fact()->kind;
        self::assertSame('plan.noCueBall', $why(Game::NineBall, Table::layout([1 => [1.0, 0.6], 9 => [2.0, 0.6]])));
        self::assertSame('plan.noMoneyBall', $why(Game::NineBall, Table::layout([0 => [0.5, 0.5], 1 => [1.0, 0.6]])));
        self::assertSame('plan.noMoneyBall', $why(Game::EightBall, Table::layout([0 => [0.5, 0.5], 1 => [1.0, 0.6]])));
        self::assertSame('plan.nothing', $why(Game::StraightPool, Table::layout([0 => [0.5, 0.5]])));
        self::assertNull($why(Game::TenBall, Table::layout([0 => [0.5, 0.5], 10 => [1.0, 0.6]])));
    }

    private static function hidden(): \ZigLane\Core\Position\Layout
    {
        return Table::layout([
            0 => [0.3, 0.3], 2 => [0.36, 0.36], 3 => [0.38, 0.26], 4 => [0.3, 0.40],
            1 => [2.2, 0.635], 9 => [2.1, 1.0], 8 => [2.1, 0.55], 7 => [2.14, 0.7],
        ]);
    }
}
