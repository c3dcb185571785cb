<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Decide;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Decide\Judged;
use ZigLane\Core\Decide\Options;
use ZigLane\Core\Decide\OptionSearch;
use ZigLane\Core\Decide\PositionValue;
use ZigLane\Core\Decide\Situation;
use ZigLane\Core\Decide\Way;
use ZigLane\Core\Decide\WayKind;
use ZigLane\Core\Decide\WayTally;
use ZigLane\Core\Decide\WayTrials;
use ZigLane\Core\Decide\Why;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Player\Demands;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Standing;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Tests\Table;

/** Positions of which players agree what is right: common practice, no source. */
final class KnownPositionsTest extends TestCase
{
    /** The other's ball hangs in a pocket: no safety is safe, and a fair pot is shot. */
    public function testWithAHangingBallOfTheOtherAFairPotIsShot(): void
    {
        $options = self::options(Game::EightBall, [0 => [1.2, 0.5], 3 => [2.0, 0.9], 8 => [1.9, 0.3], 11 => [0.035, 1.235]]);

        self::assertSame(WayKind::Attack, $options->list[0]->way->kind);
        self::assertGreaterThan(0.3, $options->list[0]->tally->share($options->list[0]->tally->made));
    }

    /** A wall of balls, and the ball on thin before the far rail: the cue ball goes back behind the wall. */
    public function testBehindAWallOfBallsTheCueBallIsHidden(): void
    {
        $options = self::options(Game::NineBall, [
            0 => [0.5, 0.63], 2 => [2.0, 0.62], 5 => [0.75, 0.35], 6 => [0.75, 0.43], 7 => [0.75, 0.75], 8 => [0.75, 0.83],
            9 => [0.75, 0.91],
        ]);
        $safety = self::best($options, false);

        self::assertSame($safety, $options->list[0]);
        self::assertGreaterThan(0.3, $safety->hook());
        self::assertContains('decide.hides', self::reasons($safety));
    }

    /** A soft full hit from close by: the cue ball stays behind the other balls, which are named with what becomes of one's own. */
    public function testWhatHidesTheCueBallIsNamed(): void
    {
        $options = self::options(Game::EightBall, [
            0 => [1.2, 0.5], 3 => [2.0, 0.9], 5 => [0.4, 0.9], 8 => [1.9, 0.3], 11 => [0.8, 1.0], 12 => [1.6, 0.9],
        ]);
        $told = array_merge(...array_map(static fn (Judged $one): array => $one->reasons, $options->list));
        $behind = $open = [];
        foreach ($told as $fact) {
            array_push($behind, ...('decide.behind' === $fact->kind ? (array) $fact->values['balls'] : []));
            $count = 'decide.ownOpen' === $fact->kind ? $fact->values['count'] : null;
            $open[] = \is_int($count) ? $count : 0;
        }

        self::assertContains(Ball::Eight, $behind);
        self::assertSame(3, max([0, ...$open]), 'the 8 among them');
    }

    /** What he would shoot is told of a safety that hides nothing; of the last ball, whether it lies open. */
    public function testASafetyInTheOpenSaysWhatHeWouldShoot(): void
    {
        $options = self::options(Game::EightBall, [0 => [1.2, 0.5], 8 => [1.9, 0.3], 11 => [0.8, 1.0], 12 => [1.6, 0.9]]);
        $safeties = array_filter($options->list, static fn (Judged $one): bool => WayKind::Safety === $one->way->kind);
        $told = array_merge(...array_map(self::reasons(...), array_values($safeties)));

        self::assertNotSame([], array_intersect(['decide.hisBest', 'decide.nothingStraight'], $told));
        self::assertNotSame([], array_intersect(['decide.lastOpen', 'decide.lastShut'], $told));
    }

    /** A safety that pots a ball passes the turn only where it was called: that is said. */
    public function testASafetyThatPotsABallIsToBeCalled(): void
    {
        $layout = Table::layout([0 => [2.0, 0.75], 3 => [2.3, 1.04], 8 => [0.5, 0.3], 11 => [0.8, 1.0]]);
        $rack = new Rack(Game::EightBall, $layout, group: Group::Solids);
        $solver = new ShotSolver();
        $value = new PositionValue($rack, [$rack->player, $rack->player], $solver);
        $situation = Situation::of($rack);
        $trials = new WayTrials($situation, $rack, $value, $solver);
        $shot = $solver->aimed($rack->layout, new ShotChoice(Ball::Three, Pocket::FootLeft, new Stroke(Tip::fractions(0.0, -0.35), 1.5)));
        $errors = (new ExecutionErrors(0.01, 0.01, 0.1, 0.1))->in($shot->strike, new Demands());
        $way = new Way(WayKind::Safety, $shot->choice, $shot->strike, $errors);
        $judged = new Judged($way, $trials->tally($way, 10, 1), $trials->meant($way)[0] ?? null);

        self::assertGreaterThan(5, $judged->tally->dropped);
        self::assertContains('decide.callIt', array_map(
            static fn (Fact $fact): string => $fact->kind,
            (new Why($rack, $situation, $value))->of($judged),
        ));
    }

    /** A ball frozen to the rail with nothing to pot and nothing behind: only a safety answers. */
    public function testAFrozenBallWithoutAPocketIsAnsweredBySafetiesAlone(): void
    {
        $options = self::options(Game::NineBall, [
            0 => [0.6, 0.64], 1 => [1.7, Table::R], 2 => [1.755, 0.06], 3 => [1.645, 0.06], 9 => [0.4, 1.1],
        ]);

        self::assertSame(WayKind::Safety, $options->list[0]->way->kind);
        $attack = $options->best(true)?->tally;
        self::assertLessThan(0.15, null === $attack ? 0.0 : $attack->share($attack->made));
    }

    /** Two balls in the open: a rolling half-ball hit parts them evenly, cue ball and ball to far ends. */
    public function testARollingHalfBallHitPartsBothBallsEvenly(): void
    {
        $rack = new Rack(Game::NineBall, Table::layout([0 => [0.5, 0.635], 9 => [1.0, 0.635]]));
        $solver = new ShotSolver();
        $situation = Situation::of($rack);
        $value = new PositionValue($rack, [$rack->player, $rack->player], $solver);
        $trials = new WayTrials($situation, $rack, $value, $solver);
        $way = new Way(WayKind::Safety, null, Strike::degrees(rad2deg(asin(Table::R / 0.5)), 1.1, 0.0, 0.4, 2.0));
        $played = $trials->meant($way);
        self::assertNotNull($played);
        $reasons = self::reasons(new Judged($way, new WayTally(), $played[0], (new Why($rack, $situation, $value))->of(
            new Judged($way, new WayTally(), $played[0]),
        )));

        self::assertContains('decide.splits', $reasons);
    }

    /** With the other on two fouls, a hook is worth more; on two fouls oneself, a hidden ball is worth less. */
    public function testTwoFoulsOnChangeWhatAHookIsWorth(): void
    {
        $wall = [
            0 => [0.5, 0.63], 7 => [2.0, 0.62], 8 => [0.75, 0.75], 9 => [0.75, 0.45],
        ];
        $none = self::options(Game::NineBall, $wall);
        $his = self::options(Game::NineBall, $wall, standing: new Standing(0, 2));

        self::assertGreaterThan(self::best($none, false)->tally->mean(), self::best($his, false)->tally->mean());
        self::assertGreaterThanOrEqual(self::best($none, false)->hook() ?? 0.0, self::best($his, false)->hook() ?? 0.0);
    }

    /** A push-out goes where the other gains nothing by choosing: he faces about an even rack. */
    public function testAPushOutIsEven(): void
    {
        $options = self::options(Game::NineBall, [
            0 => [0.2, 0.2], 1 => [2.2, 1.0], 5 => [0.5, 0.35], 6 => [0.35, 0.5], 7 => [1.4, 0.7], 9 => [1.1, 0.3],
        ], standing: new Standing(mayPush: true));
        $pushes = array_values(array_filter($options->list, static fn (Judged $one): bool => WayKind::PushOut === $one->way->kind));

        self::assertNotSame([], $pushes);
        self::assertEqualsWithDelta(0.5, $pushes[0]->tally->mean(), 0.08);
        self::assertGreaterThan(0.9, $pushes[0]->tally->share($pushes[0]->tally->legal));
    }

    /** Of a position that is poor for the shooter the answer to a push-out is to give it back, and of an easy one to shoot. */
    public function testTheAnswerToAPushOutIsTheBetterSide(): void
    {
        $poor = self::options(Game::NineBall, [
            0 => [0.2, 0.2], 8 => [2.2, 1.0], 5 => [0.5, 0.35], 6 => [0.35, 0.5], 9 => [1.1, 0.3],
        ], standing: new Standing(mayPass: true));
        $easy = self::options(Game::NineBall, [0 => [1.9, 0.9], 8 => [2.3, 1.1], 9 => [1.1, 0.3]], standing: new Standing(mayPass: true));

        self::assertNotSame(WayKind::Pass, $easy->list[0]->way->kind);
        self::assertContains(WayKind::Pass, array_map(static fn (Judged $one): WayKind => $one->way->kind, $poor->list));
    }

    /** @param array<int, array{float, float}> $spots metres */
    private static function options(Game $game, array $spots, string $level = 'club player', Standing $standing = new Standing()): Options
    {
        $player = new ExecutionErrors(...ExecutionErrors::PRESETS[$level]);
        $rack = (new Rack($game, Table::layout($spots), player: $player, group: Game::EightBall === $game ? Group::Solids : null))
            ->withStanding($standing);

        return (new OptionSearch($rack, $player))->first();
    }

    private static function best(Options $options, bool $isAttack): Judged
    {
        $best = $options->best($isAttack);
        self::assertNotNull($best);

        return $best;
    }

    /** @return list<string> */
    private static function reasons(Judged $judged): array
    {
        return array_map(static fn (Fact $fact): string => $fact->kind, $judged->reasons);
    }
}
