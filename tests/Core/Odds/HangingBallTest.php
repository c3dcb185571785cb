<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Odds;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Plan\Planning;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/** A ball that hangs in the jaws, past the line of the noses, is the easiest pot there is. */
final class HangingBallTest extends TestCase
{
    /** @return iterable<string, array{Pocket, float, float}> */
    public static function hanging(): iterable
    {
        yield 'at the mouth of a corner' => [Pocket::FootRight, 0.0, 0.0];
        yield 'a centimetre past it' => [Pocket::FootRight, 0.01, 0.0];
        yield 'two centimetres past it, beside the middle' => [Pocket::FootRight, 0.02, 0.01];
        yield 'just before it, beside the middle' => [Pocket::FootRight, -0.002, -0.012];
        yield 'at the mouth of a side' => [Pocket::SideRight, 0.0, 0.0];
    }

    #[DataProvider('hanging')]
    public function testItIsAimedPottedAndPlanned(Pocket $pocket, float $depth, float $across): void
    {
        $equipment = new Equipment();
        $geometry = $equipment->geometry->at($pocket);
        $mouth = $geometry->mouth();
        $layout = Layout::empty()
            ->with(Ball::Cue, Spot::metres(1.2, 0.7))
            ->with(Ball::Nine, Spot::metres(
                $mouth->x + $depth * $geometry->axisX - $across * $geometry->axisY,
                $mouth->y + $depth * $geometry->axisY + $across * $geometry->axisX,
            ));
        $solver = new ShotSolver($equipment);
        $player = new ExecutionErrors(...ExecutionErrors::PRESETS['club player']);
        $shot = $solver->solve($layout, new ShotChoice(Ball::Nine, $pocket, new Stroke(Tip::fractions(0.0, 0.2), 1.5, 2.0)));
        self::assertSame($pocket, $shot->outcome->pocketOf(Ball::Nine));
        $tries = Trials::of($shot, $solver, $player, 150)->chance();
        self::assertGreaterThan(0.9, $tries);
        $line = PotModel::find($layout, Ball::Nine, $pocket, $solver, $player);
        self::assertNotNull($line);
        self::assertEqualsWithDelta($tries, $line->chance($layout->spot(Ball::Cue)), 0.08);
        $planning = new Planning(new Rack(Game::NineBall, $layout, player: $player));
        $planning->step();
        $plan = $planning->plans(null, 1, 0)[0] ?? null;
        self::assertNotNull($plan);
        self::assertSame($pocket, $plan->legs[0]->choice->pocket);
        self::assertGreaterThan(0.85, $plan->legs[0]->make);
    }
}
