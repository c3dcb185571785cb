<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Practice;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Format\DrillFile;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Practice\Attempt;
use ZigLane\Core\Practice\Drill;
use ZigLane\Core\Practice\Judge;
use ZigLane\Core\Practice\Par;
use ZigLane\Core\Practice\ParRuns;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Tests\Table;

final class ParTest extends TestCase
{
    /** A drill of one straight pot is ten times the odds of that shot. */
    public function testTheParOfOnePotAgreesWithTheOddsOfTheShot(): void
    {
        $player = self::player('beginner');
        $drill = self::drill('{"task": "pot", "ball": "1", "pocket": "FL", "places": {"cue": [4, 2], "1": [6, 3]}, "tries": 10}');
        $solver = new ShotSolver();
        $runs = new ParRuns($drill, $solver, $player);
        $choice = $runs->first()?->choice;
        self::assertNotNull($choice);
        $layout = Table::layout([0 => [1.27, 0.635], 1 => [1.905, 0.9525]]);
        $odds = Trials::of($solver->solve($layout, $choice), $solver, $player, 2000)->chance();
        $par = $runs->play(400);

        self::assertEqualsWithDelta(10 * $odds, $par->mean(), 4 * \sqrt(10 * $odds * (1 - $odds) / 400) + 10 * 0.03);
        self::assertSame(400, $par->runs());
        self::assertNull($par->why);
    }

    public function testParFallsWithWorseErrors(): void
    {
        foreach ([
            '{"task": "pot", "ball": "1", "pocket": "FL", "places": {"cue": [4.5, 1.6], "1": [6.6, 3.1]}, "done": 0, "tries": 10,
                "targets": [{"kind": "area", "area": {"rings": {"at": [4, 2], "of": [[0.35, 3], [0.8, 2], [1.4, 1]]}}}]}',
            '{"task": "lag", "places": {"cue": [1, 2]}, "done": 0, "targets": [{"kind": "area", "area": {"band": [3.5, 4.5]}}]}',
            '{"task": "hit", "ball": "1", "places": {"cue": [2, 2], "1": [6, 2]}, "done": 1, "goesOn": true, "tries": 20,
                "targets": [{"kind": "area", "points": 0, "area": {"half": "head"}},
                    {"kind": "area", "points": 0, "ball": "1", "area": {"half": "foot"}}]}',
        ] as $json) {
            $means = [];
            foreach (['beginner', 'club player', 'expert'] as $level) {
                $means[] = (new ParRuns(self::drill($json), new ShotSolver(), self::player($level)))->play(60)->mean();
            }
            self::assertTrue($means[0] < $means[1] && $means[1] < $means[2], implode(' ', $means));
        }
    }

    public function testTheSameSeedGivesTheSameScoresInBlocksOfAnyOrder(): void
    {
        $drill = self::drill('{"task": "pot", "ball": "1", "places": {"cue": {"in": {"box": [1, 1, 3, 3]}}, "1": [6, 2]}, "tries": 5}');
        $runs = static fn (): ParRuns => new ParRuns($drill, new ShotSolver(), self::player('club player'), 7);
        [$one, $other] = [$runs(), $runs()];
        [$last, $first] = [$other->block(1), $other->block(0)];

        self::assertSame([$one->block(0), $one->block(1)], [$first, $last]);
    }

    /** What nobody can make has par 0, and says why. */
    public function testADrillThatNobodyCanMakeSaysWhy(): void
    {
        $shut = self::drill('{"task": "pot", "ball": "1", "pocket": "HR", "places": {"cue": [4, 2], "1": [6, 3]}}');
        $par = (new ParRuns($shut, new ShotSolver(), self::player('expert')))->play(20);
        self::assertSame([0.0, 'noStroke'], [$par->mean(), $par->why]);
        $far = self::drill('{"task": "lag", "places": {"cue": [1, 2]}, "done": 0, "cushions": 9, "targets": [{"kind": "area", "area": {"band": [3, 4]}}]}');
        self::assertSame('never', (new ParRuns($far, new ShotSolver(), self::player('expert')))->play(20)->why);
    }

    public function testACountInARowEndsWithTheFirstThatFails(): void
    {
        $drill = self::drill('{"task": "lag", "places": {"cue": [1, 2]}, "done": 1, "untilMiss": true, "tries": 20,
            "targets": [{"kind": "past", "points": 0}]}');
        $judge = new Judge($drill, new ShotSolver(), self::player('club player'));
        $stopped = static fn (float $x): Layout => Table::layout([0 => [$x, 0.6]]);

        self::assertSame(1.0, $judge->scored(new Attempt(Layout::empty()), true, $stopped(0.4))->points);
        self::assertSame(1.0, $judge->scored(new Attempt(Layout::empty(), 2, 0, 1.0), true, $stopped(0.4))->points);
        $short = $judge->scored(new Attempt(Layout::empty(), 2, 0, 3.0), true, $stopped(0.4));
        self::assertSame([0.0, true, false], [$short->points, $short->isDone, $short->isWhole]);
    }

    public function testAHiddenCueBallAndANextBallAreScored(): void
    {
        $hide = self::drill('{"task": "hit", "ball": "1", "places": {"cue": [4, 1], "1": [5, 3], "2": [3, 2]}, "done": 0,
            "targets": [{"kind": "hidden", "ball": "1"}]}');
        $judge = new Judge($hide, new ShotSolver(), self::player('club player'));
        $after = static fn (float $x, float $y): Layout => Table::layout([0 => [$x, $y], 1 => [2.0, 0.6], 2 => [1.0, 0.6]]);
        self::assertSame(1.0, $judge->scored(new Attempt(Layout::empty()), true, $after(0.9, 0.6))->points);
        self::assertSame(0.0, $judge->scored(new Attempt(Layout::empty()), true, $after(0.9, 1.1))->points);

        $next = self::drill('{"task": "pot", "ball": "1", "places": {"cue": [4, 1], "1": [5, 3], "2": [7, 3.5]}, "done": 0,
            "targets": [{"kind": "zone", "ball": "2", "pocket": "FL", "odds": 0.8}]}');
        $judge = new Judge($next, new ShotSolver(), self::player('club player'));
        $after = static fn (float $x, float $y): Layout => Table::layout([0 => [$x, $y], 2 => [2.2225, 1.11125]]);
        self::assertSame(1.0, $judge->scored(new Attempt(Layout::empty()), true, $after(1.9, 0.95))->points);
        self::assertSame(0.0, $judge->scored(new Attempt(Layout::empty()), true, $after(2.4, 1.2))->points, 'from the wrong side');
        self::assertSame(0.0, $judge->scored(new Attempt(Layout::empty()), false, $after(1.9, 0.95))->points, 'not made');
    }

    public function testARankIsTheShareThatScoredLess(): void
    {
        $par = Par::sum([['3' => 10, '5' => 20], ['5' => 20, '10' => 50]], 5.0);

        self::assertSame(['3' => 10, '5' => 40, '10' => 50], $par->scores);
        self::assertSame([0.0, 0.3, 0.5, 1.0], array_map($par->rank(...), [2.0, 5.0, 7.0, 11.0]));
        self::assertSame(0.9, $par->passShare());
        self::assertEqualsWithDelta(7.3, $par->mean(), 1e-9);
    }

    private static function drill(string $json): Drill
    {
        return DrillFile::parse('{"format": "zig-lane/drill", "version": 1, "name": "Drill", "skill": "pot",'.substr($json, 1))->drill;
    }

    private static function player(string $level): ExecutionErrors
    {
        return new ExecutionErrors(...ExecutionErrors::PRESETS[$level]);
    }
}
