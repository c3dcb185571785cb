<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Teaching;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Plan\Planning;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Teaching\Prediction;
use ZigLane\Core\Teaching\PredictionScore;
use ZigLane\Tests\Table;

/** What a prediction loses against the plan is what simulated replays of both say. */
final class PredictionScoreTest extends TestCase
{
    /**
     * The 1 hangs in a foot corner, the 9 in the other: from the far head corner the 9 is hard, from the middle
     * easy.
     */
    public function testTheRightSpotLosesNothingAndTheWrongOneMuch(): void
    {
        $rack = $this->rack();
        // What the plan itself does, said by somebody.
        $plan = Planning::within($rack, 2.0)[0][0];
        $leg = $plan->legs[0];
        self::assertNotNull($leg->landing);
        $good = PredictionScore::of($rack, new Prediction($leg->choice->ball, $leg->choice->pocket, $leg->landing), 60);
        $bad = PredictionScore::of($rack, $this->said($rack, 0.3, 3.6), 60);
        self::assertNotNull($good->lost);
        self::assertNotNull($bad->lost);
        self::assertLessThan(0.12, $good->lost);
        self::assertGreaterThan($good->lost, $bad->lost);
        // It is the difference of the two chances, with the error of that many pairs.
        self::assertEqualsWithDelta($bad->best - (float) $bad->chance, $bad->lost, 1e-9);
        self::assertLessThan(0.08, (float) $bad->error);
        self::assertSame(60, $bad->tries);
    }

    public function testABallThatIsNotOnIsNotPlayable(): void
    {
        $rack = $this->rack();
        $score = PredictionScore::of($rack, new Prediction(Ball::Nine, Pocket::FootRight), 10);
        self::assertNull($score->lost);
        self::assertNull($score->stroke);
        self::assertGreaterThan(0.3, $score->best);
    }

    public function testWhatIsNoAnswerToThisRackIsNone(): void
    {
        $rack = $this->rack();
        foreach ([
            new Prediction(Ball::Two, Pocket::FootLeft), new Prediction(Ball::One, Pocket::FootLeft, Spot::metres(3.0, 0.5)),
            new Prediction(
                Ball::One,
                Pocket::FootLeft,
                null,
                [Ball::Nine, Ball::One],
            ), new Prediction(Ball::One, Pocket::FootLeft, null, [Ball::One, Ball::One]),
            new Prediction(Ball::Cue, Pocket::FootLeft),
        ] as $i => $said) {
            self::assertFalse($said->isOf($rack), "no. $i");
        }
        $said = new Prediction(Ball::One, Pocket::FootLeft, Spot::metres(1.5, 0.5), [Ball::One, Ball::Nine]);
        self::assertTrue($said->isOf($rack));
        self::assertEquals($said, Prediction::fromArray($said->toArray()));
    }

    private function rack(): Rack
    {
        $layout = Table::layout([0 => [1.6, 0.9], 1 => [2.3, 1.15], 9 => [2.35, 0.12]]);

        return new Rack(Game::NineBall, $layout, player: ExecutionErrors::presets()['club player']);
    }

    private function said(Rack $rack, float $long, float $short): Prediction
    {
        return new Prediction(Ball::One, Pocket::FootLeft, Spot::diamonds($long, $short, $rack->equipment->table));
    }
}
