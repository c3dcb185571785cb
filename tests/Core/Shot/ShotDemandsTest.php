<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Shot;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Player\ErrorGrowth;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\IndirectKind;
use ZigLane\Core\Shot\IndirectSearch;
use ZigLane\Core\Shot\IndirectShot;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotDemands;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Equipment;
use ZigLane\Tests\Table;

/** What a shot asks of a player, held against the geometry of mirrored tables and lines of centres. */
final class ShotDemandsTest extends TestCase
{
    public function testTheHandOnTheRailOrOverABallIsAwkward(): void
    {
        $solver = new ShotSolver();
        $choice = new ShotChoice(Ball::One, Pocket::FootLeft, new Stroke(Tip::centre(), 1.5, 2.0));
        foreach ([
            'in the open' => [[0 => [1.0, 0.5], 1 => [1.6, 0.8]], false],
            'fifteen centimetres before the head rail' => [[0 => [0.15, 0.3], 1 => [1.2, 0.7]], true],
            'a ball under the hand' => [[0 => [1.0, 0.5], 1 => [1.6, 0.8], 7 => [0.83, 0.42]], true],
            'a ball beside the hand' => [[0 => [1.0, 0.5], 1 => [1.6, 0.8], 7 => [0.75, 0.55]], false],
        ] as $name => [$spots, $expected]) {
            $layout = Table::layout($spots);
            $demands = ShotDemands::of($solver, $layout, $solver->aimed($layout, $choice), new ErrorGrowth());
            self::assertSame($expected, $demands->hasAwkwardBridge, $name);
            self::assertSame(0.0, $demands->judgement);
        }
    }

    /** A bank off one cushion: the angle misjudged there turns the ball's line by the share of its way that is still to go. */
    public function testABankIsMisjudgedByWhatIsLeftOfTheWay(): void
    {
        $layout = Table::layout([0 => [1.2, 0.3], 1 => [1.35, 0.7], 5 => [2.0, 0.9], 6 => [0.6, 0.9]]);
        $found = self::found($layout, IndirectKind::Bank, Ball::One);
        $shot = $found->way->shot;
        $demands = ShotDemands::ofSolved($shot, new Equipment(), new ErrorGrowth());

        $cushion = $shot->outcome->cushions(Ball::One)[0];
        $end = $shot->outcome->trajectory(Ball::One)->last();
        $start = $layout->spot(Ball::One);
        $share = $cushion->at->distanceTo($end) / ($start->distanceTo($cushion->at) + $cushion->at->distanceTo($end));
        // A turn of the cue ball's line turns the object ball's by distance over two radii times the cosine of the cut.
        $contact = $shot->outcome->firstContact();
        self::assertNotNull($contact);
        $cue = $layout->spot(Ball::Cue);
        $cut = $cue->directionTo($contact->at) - $contact->at->directionTo($start);
        $lever = $cue->distanceTo($contact->at) / (2 * Table::R * cos($cut));
        self::assertEqualsWithDelta(0.7 * $share / $lever, $demands->judgement, 0.05 * 0.7 * $share / $lever);
    }

    /** In a combination the line of centres is misjudged by half a degree: more of the cue's direction the shorter the ways. */
    public function testACombinationIsMisjudgedByItsLineOfCentres(): void
    {
        $layout = Table::layout([0 => [1.2, 0.6], 1 => [1.9, 0.95], 9 => [2.2, 1.1]]);
        $found = self::found($layout, IndirectKind::Combination, Ball::Nine);
        $demands = ShotDemands::ofSolved($found->way->shot, new Equipment(), new ErrorGrowth());
        self::assertGreaterThan(0.0, $demands->judgement);
        $first = $layout->spot(Ball::Cue)->distanceTo($layout->spot(Ball::One)) - 2 * Table::R;
        $second = $layout->spot(Ball::One)->distanceTo($layout->spot(Ball::Nine)) - 2 * Table::R;
        // All three lie nearly on a line: both cosines are about one.
        self::assertEqualsWithDelta(
            0.5 * (2 * Table::R / $second) * (2 * Table::R / $first),
            $demands->judgement,
            0.1 * $demands->judgement,
        );
        self::assertSame(0.0, ShotDemands::ofSolved($found->way->shot, new Equipment(), ErrorGrowth::none())->judgement);
    }

    private static function found(Layout $layout, IndirectKind $kind, Ball $ball): IndirectShot
    {
        $player = new ExecutionErrors(0.01, 0.01, 0.1, 0.1, ErrorGrowth::none());
        foreach ((new IndirectSearch(new Rack(Game::NineBall, $layout, player: $player)))->find() as $shot) {
            if ($kind === $shot->way->kind && $ball === $shot->way->shot->choice->ball) {
                return $shot;
            }
        }
        self::fail('No '.$kind->value.' of the '.$ball->label().' was found.');
    }
}
