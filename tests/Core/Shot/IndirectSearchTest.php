<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Shot;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\IndirectKind;
use ZigLane\Core\Shot\IndirectSearch;
use ZigLane\Core\Shot\IndirectShot;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Tests\Table;

/** Shots over balls and cushions: each set up so that one plain way exists, found by turning the cue and named from its contacts. */
final class IndirectSearchTest extends TestCase
{
    public function testACombinationInLineWithThePocketIsFound(): void
    {
        $found = self::search([0 => [1.6, 0.65], 4 => [2.2225, 0.9525], 9 => [2.302, 1.032]], [Ball::Four]);
        $way = self::way($found, Ball::Nine, Pocket::FootLeft, IndirectKind::Combination);

        self::assertSame([Ball::Four], $way->way->over);
        self::assertSame('indirect.combination', $way->way->fact()->kind);
        self::assertGreaterThan(0.3, $way->odds);
    }

    /** The natural angle off a half-ball hit (common practice: about thirty degrees) makes a ball that hangs there. */
    public function testACaromOffABallIsFound(): void
    {
        // Off a half-ball hit on the 3 the rolling cue ball turns by some thirty degrees, towards the 8 before the head left corner.
        $found = self::search([0 => [0.649, 0.42], 3 => [0.144, 0.8315], 8 => [0.075, 1.2]], [Ball::Three]);
        $way = self::way($found, Ball::Eight, Pocket::HeadLeft, IndirectKind::Carom);

        self::assertSame([Ball::Three], $way->way->over);
        self::assertEquals(new Fact('indirect.carom', ['rails' => [], 'over' => [Ball::Three]]), $way->way->fact());
    }

    /** A ball across the middle of the table, banked off the right rail to the left side pocket: mirror geometry within a ball's width. */
    public function testABankAcrossTheTableIsFoundNearTheMirrorLine(): void
    {
        $found = self::search([0 => [0.85, 0.95], 5 => [1.0, 0.5]], null);
        $way = self::way($found, Ball::Five, Pocket::SideLeft, IndirectKind::Bank);

        self::assertSame(['right'], array_map(static fn ($rail): string => $rail->value, $way->way->rails));
        $touch = $way->way->shot->outcome->cushions(Ball::Five)[0]->at;
        // Rail point that halves the way in the ratio of the two distances from it.
        $mirror = 1.0 + (1.27 - 1.0) * 0.5 / (0.5 + 1.27);
        self::assertEqualsWithDelta($mirror, $touch->x, 0.06);
    }

    public function testAHookedBallIsKickedAt(): void
    {
        // The 9 stands between the cue ball and the 1, which hangs before the foot right corner.
        $found = self::search([0 => [1.6, 0.3], 9 => [1.8, 0.25], 1 => [2.47, 0.075]], [Ball::One]);
        $way = self::way($found, Ball::One, Pocket::FootRight, IndirectKind::Kick);

        self::assertNotSame([], $way->way->rails);
        self::assertSame('indirect.kick', $way->way->fact()->kind);
    }

    /** What is taken from the list is the same shot again, also after it has been written to a file and read. */
    public function testAFoundShotIsPlayedAgainByItsDirection(): void
    {
        $rack = new Rack(Game::NineBall, Table::layout([0 => [0.85, 0.95], 5 => [1.0, 0.5]]));
        $found = (new IndirectSearch($rack))->find();
        self::assertNotSame([], $found);
        foreach ($found as $way) {
            $read = RackFile::parse((new RackFile($rack, 'bank', $way->way->shot->choice))->write())->shot;
            self::assertNotNull($read);
            self::assertEqualsWithDelta($way->way->shot->choice->direction ?? 0.0, $read->direction ?? 9.0, 1e-12);
            self::assertTrue((new ShotSolver($rack->equipment))->solve($rack->layout, $read)->goesOn());
        }
    }

    public function testOnlyLegalFirstContactsCountAndTheSameSeedGivesTheSame(): void
    {
        $spots = [0 => [1.6, 0.65], 4 => [2.2225, 0.9525], 9 => [2.302, 1.032], 2 => [0.6, 0.3]];
        foreach (self::search($spots, [Ball::Two]) as $way) {
            self::assertSame(Ball::Two, $way->way->over[0] ?? $way->way->shot->choice->ball);
        }
        self::assertEquals(self::search($spots, null), self::search($spots, null));
    }

    /**
     * @param array<int, array{float, float}> $spots
     * @param list<Ball>|null                 $first
     *
     * @return list<IndirectShot>
     */
    private static function search(array $spots, ?array $first): array
    {
        return (new IndirectSearch(new Rack(Game::NineBall, Table::layout($spots))))->find($first);
    }

    /** @param list<IndirectShot> $found */
    private static function way(array $found, Ball $ball, Pocket $pocket, IndirectKind $kind): IndirectShot
    {
        foreach ($found as $way) {
            if ($way->way->shot->choice->ball === $ball && $way->way->shot->choice->pocket === $pocket && $way->way->kind === $kind) {
                return $way;
            }
        }
        self::fail(\sprintf('no %s of the %s in %s', $kind->value, $ball->label(), $pocket->value));
    }
}
