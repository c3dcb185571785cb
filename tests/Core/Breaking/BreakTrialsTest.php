<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Breaking;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Breaking\BreakSearch;
use ZigLane\Core\Breaking\BreakStroke;
use ZigLane\Core\Breaking\BreakTally;
use ZigLane\Core\Breaking\BreakTrials;
use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Rules\BreakShot;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Table\Equipment;

final class BreakTrialsTest extends TestCase
{
    public function testTheUsualBreakOfNineBallSendsTheWingBallHome(): void
    {
        $tally = self::played(Game::NineBall, BreakStroke::usual(Game::NineBall), 120);
        self::assertSame(120, $tally->breaks);
        // docs/break.md: half of them; from the middle nearly none.
        self::assertGreaterThan(36, $tally->wings);
        self::assertLessThan(0.5 * $tally->wings, self::played(Game::NineBall, new BreakStroke(2.0, 2.0, 0.0, 8.5), 120)->wings);
        self::assertSame($tally->made, array_sum($tally->pockets));
        self::assertLessThanOrEqual($tally->goesOn, $tally->shots);
        self::assertLessThanOrEqual($tally->shots + 0.5 * ($tally->goesOn - $tally->shots) + $tally->won, $tally->runOuts);
        self::assertCount(120 - $tally->scratches, $tally->spots['cue']);
        [$share, $from, $to] = $tally->share($tally->scratches);
        self::assertTrue($from <= $share && $share <= $to);
    }

    public function testASoftBreakIsNotLegalAndBringsNothing(): void
    {
        $tally = self::played(Game::EightBall, new BreakStroke(2.0, 2.0, 0.0, 1.5), 30);
        self::assertSame(30, $tally->illegal);
        self::assertSame(0.0, $tally->runOut());
    }

    public function testPartsComeToTheSameAsTheWhole(): void
    {
        $stroke = BreakStroke::usual(Game::NineBall);
        $parts = self::played(Game::NineBall, $stroke, 10);
        $parts->add((new BreakTrials(Game::NineBall, $stroke, new ExecutionErrors(), new ShotSolver()))->play(10, 10));
        $whole = self::played(Game::NineBall, $stroke, 20);
        self::assertSame([$whole->made, $whole->goesOn, $whole->spots], [$parts->made, $parts->goesOn, $parts->spots]);
        self::assertEqualsWithDelta($whole->runOuts, $parts->runOuts, 1e-12);
    }

    public function testABetterPlayerRunsOutMoreOften(): void
    {
        $presets = ExecutionErrors::presets();
        $stroke = BreakStroke::usual(Game::EightBall);
        $club = (new BreakTrials(Game::EightBall, $stroke, $presets['club player'], new ShotSolver()))->play(0, 80);
        $expert = (new BreakTrials(Game::EightBall, $stroke, $presets['expert'], new ShotSolver()))->play(0, 80);
        self::assertGreaterThan(2 * $club->runOut(), $expert->runOut());
    }

    /** The same stroke of the cue as the break that a sheet is made by. */
    public function testTheUsualStrokeIsThatOfABreakShot(): void
    {
        $equipment = new Equipment();
        foreach ([Game::NineBall, Game::TenBall, Game::EightBall] as $game) {
            $shot = BreakShot::play($game, $equipment, new ExecutionErrors(), new Randomness(1));
            $stroke = BreakStroke::usual($game);
            self::assertEqualsWithDelta($shot->meant->direction, $stroke->strike($equipment)->direction, 1e-9);
            self::assertSame($shot->meant->speed, $stroke->speed);
            self::assertEqualsWithDelta(0.0, $shot->rack->spot(Ball::Cue)->distanceTo($stroke->spot($equipment)), 1e-9);
        }
    }

    public function testNumbersThatAreNotAllowedAreTheNearestThatAre(): void
    {
        $usual = BreakStroke::usual(Game::NineBall);
        $read = BreakStroke::fromArray(['speed' => '99', 'long' => '7', 'aim' => 'x', 'side' => '-0.2'], $usual);
        self::assertSame([12.0, 2.0, 0.0, -0.2, 3.6], [$read->speed, $read->long, $read->aim, $read->side, $read->short]);
        $this->expectException(IllegalStroke::class);
        (new BreakStroke(2.0, 2.0, 0.0, 8.0, 0.4, 0.4))->strike(new Equipment());
    }

    public function testASearchFindsABreakThatIsAsGoodAsTheUsual(): void
    {
        $told = [];
        $search = new BreakSearch(Game::NineBall, ExecutionErrors::presets()['expert'], new ShotSolver(), fastest: 6.0);
        $found = $search->find(1, static function (float $share) use (&$told): void {
            $told[] = $share;
        });
        self::assertCount(4, $found);
        foreach ($found as [$stroke, $tally]) {
            self::assertLessThanOrEqual(6.0, $stroke->speed);
            self::assertSame(200, $tally->breaks);
        }
        self::assertSame(1.0, end($told));
        self::assertSame($told, array_values(array_unique($told)));
    }

    private static function played(Game $game, BreakStroke $stroke, int $breaks): BreakTally
    {
        return (new BreakTrials($game, $stroke, new ExecutionErrors(), new ShotSolver()))->play(0, $breaks);
    }
}
