<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Breaking;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Breaking\BreakOffShot;
use ZigLane\Core\Breaking\BreakOffTally;
use ZigLane\Core\Breaking\BreakOffTrials;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\IllegalLayout;
use ZigLane\Core\Shot\ShotSolver;

/** The break shot of straight pool: what it says is what its shots come to. */
final class BreakOffTrialsTest extends TestCase
{
    /** @param list<Pocket> $pockets */
    #[DataProvider('lies')]
    public function testTheUsualBreakBallsAreMadeAndOpenTheRack(string $lie, array $pockets): void
    {
        $trials = $this->trials(BreakOffShot::fromArray([], $lie), 'expert');
        self::assertContains($trials->meant->choice->pocket, $pockets);
        self::assertNotNull($trials->meets());
        $tally = $trials->play(40);
        self::assertGreaterThan(24, $tally->good);
        self::assertLessThanOrEqual(min($tally->made, $tally->open), $tally->good);
        self::assertGreaterThan(5 * 40, $tally->opened);
    }

    /** @return iterable<string, array{string, list<Pocket>}> */
    public static function lies(): iterable
    {
        yield 'beside the rack' => ['beside', [Pocket::FootLeft]];
        yield 'behind it' => ['behind', [Pocket::FootRight, Pocket::FootLeft]];
        yield 'to the side pocket' => ['fromSide', [Pocket::SideLeft]];
    }

    public function testASoftOneMakesMoreBallsAndOpensLess(): void
    {
        $tallies = array_map(
            fn (float $speed): BreakOffTally => $this->trials(BreakOffShot::fromArray(['speed' => $speed]), 'club player')->play(60),
            [1.4, 6.5],
        );
        self::assertGreaterThan($tallies[1]->made, $tallies[0]->made);
        self::assertLessThan($tallies[1]->opened, $tallies[0]->opened);
        // What does not open sticks.
        $stuck = array_map(static fn (BreakOffTally $tally): int => array_sum($tally->stuck) + $tally->opened, $tallies);
        foreach ($stuck as $both) {
            self::assertEqualsWithDelta(14 * 60, $both, 14.0 * 6);
        }
    }

    public function testWhatCannotLieSoIsRefused(): void
    {
        foreach ([['long' => 6.4, 'short' => 2.0], ['long' => 6.15, 'short' => 3.0, 'pocket' => 'HR']] as $values) {
            try {
                $this->trials(BreakOffShot::fromArray($values), 'expert');
                self::fail('not refused');
            } catch (IllegalLayout $e) {
                self::assertSame(Ball::Fifteen, $e->ball);
            }
        }
        // Numbers from outside are brought inside, and what is no number is the usual.
        $shot = BreakOffShot::fromArray(['long' => 'x', 'short' => 99, 'speed' => -3, 'pocket' => 'no']);
        self::assertSame([6.15, 3.8, 1.0, null], [$shot->long, $shot->short, $shot->speed, $shot->pocket]);
    }

    private function trials(BreakOffShot $shot, string $player): BreakOffTrials
    {
        return new BreakOffTrials($shot, ExecutionErrors::presets()[$player], new ShotSolver());
    }
}
