<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Decide;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Decide\Judged;
use ZigLane\Core\Decide\Options;
use ZigLane\Core\Decide\OptionSearch;
use ZigLane\Core\Decide\Refusal;
use ZigLane\Core\Decide\Way;
use ZigLane\Core\Decide\WayKind;
use ZigLane\Core\Decide\WayTally;
use ZigLane\Core\Format\OptionsFile;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Tests\Table;

/** Options of a position: found, tried in blocks, listed. */
final class OptionSearchTest extends TestCase
{
    private const SPOTS = [0 => [0.7, 0.35], 3 => [1.56, 1.06], 8 => [2.25, 0.32], 9 => [1.37, 0.16]];

    public function testTheSameSeedAndBlocksGiveTheSameListInAnyOrder(): void
    {
        [$one, $other] = [self::search(), self::search()];
        $kept = static fn (WayTally $tally): WayTally => WayTally::fromArray(
            (array) json_decode(json_encode($tally->toArray(), \JSON_THROW_ON_ERROR), true),
        );
        $done = [[0 => $one->block(0, 0), 1 => $one->block(0, 1)], [0 => $one->block(1, 0)]];
        $last = $kept($other->block(0, 1));
        $again = [[1 => $last, 0 => $kept($other->block(0, 0))], [0 => $kept($other->block(1, 0))]];

        self::assertSame((new OptionsFile($one->options($done)))->write(), (new OptionsFile($other->options($again)))->write());
    }

    public function testTriesOfBlocksAddUpAndTheDueEndWhenAllAreTried(): void
    {
        $search = self::search();
        $done = array_map(static fn (): array => [], $search->ways());
        $blocks = 0;
        while ([] !== $due = $search->due($done)) {
            [$way, $block] = $due[0];
            // Cheap ones: what is due does not hang on how deep they are.
            $done[$way][$block] = $search->block($way, $block, false);
            self::assertLessThan(OptionSearch::BLOCKS * \count($done) + 1, ++$blocks);
        }
        $options = $search->options($done);

        self::assertLessThanOrEqual(2 * OptionSearch::SHOWN, \count($options->list));
        self::assertSame(OptionSearch::BLOCK * OptionSearch::BLOCKS, $options->list[0]->tally->tries);
        foreach ($options->list as $judged) {
            [$low, $high] = $judged->tally->interval();
            self::assertLessThanOrEqual($judged->tally->mean(), $low);
            self::assertGreaterThanOrEqual($judged->tally->mean(), $high);
        }
    }

    /** An attack that wins 0.9 made and 0.2 missed against a safety of 0.55: worth the same at a pot chance of one half. */
    public function testTheBreakEvenPotChanceIsWhereAttackAndSafetyAreWorthTheSame(): void
    {
        $attack = new WayTally();
        [$attack->tries, $attack->made, $attack->worth, $attack->worthMade] = [100, 60, 60 * 0.9 + 40 * 0.2, 60 * 0.9];
        $safety = new WayTally();
        [$safety->tries, $safety->worth] = [100, 55.0];
        $rack = new Rack(Game::EightBall, Table::layout(self::SPOTS), group: Group::Solids);
        $options = static fn (WayTally $safety): Options => new Options($rack, new ExecutionErrors(), [
            new Judged(new Way(WayKind::Attack), $attack),
            new Judged(new Way(WayKind::Safety), $safety),
        ]);

        self::assertEqualsWithDelta(0.5, $options($safety)->breakEven(), 1e-12);
        $safety->worth = 95.0;
        self::assertNull($options($safety)->breakEven());
        $safety->worth = 10.0;
        self::assertSame(0.0, $options($safety)->breakEven());
        self::assertNull((new Options($rack, new ExecutionErrors(), [new Judged(new Way(WayKind::Attack), $attack)]))->breakEven());
    }

    /** With the ball in hand a safety is allowed, and pots are looked for from places where it may lie. */
    public function testWithTheBallInHandPlacesAreFound(): void
    {
        $rack = (new Rack(Game::NineBall, Table::layout([2 => [1.56, 1.06], 9 => [2.25, 0.32]])))->inHand(BallInHand::Kitchen);
        $options = (new OptionSearch($rack, $rack->player))->first();

        self::assertNotSame([], $options->list);
        foreach ($options->list as $judged) {
            self::assertNotNull($judged->way->place);
            self::assertLessThanOrEqual(0.25 * $rack->equipment->table->length + 1e-9, $judged->way->place->x);
        }
        self::assertNotNull($options->best(false));
    }

    #[DataProvider('nothing')]
    public function testWhatHasNothingToDecideIsRefused(Rack $rack, string $kind): void
    {
        self::assertSame($kind, Refusal::of($rack)?->fact()->kind);
    }

    /** @return iterable<string, array{Rack, string}> */
    public static function nothing(): iterable
    {
        yield 'a rack that is over' => [new Rack(Game::NineBall, Table::layout([0 => [1.0, 0.5]])), 'plan.noMoneyBall'];
        yield 'no cue ball' => [new Rack(Game::NineBall, Table::layout([9 => [1.0, 0.5]])), 'plan.noCueBall'];
        yield 'the last ball of straight pool' => [
            new Rack(Game::StraightPool, Table::layout([0 => [1.0, 0.5], 4 => [1.5, 0.5]])),
            'decide.lastOfRack',
        ];
    }

    public function testWithNoneOfTheOthersGroupLeftItIsSaid(): void
    {
        $rack = new Rack(Game::EightBall, Table::layout([0 => [1.0, 0.5], 3 => [1.5, 0.5], 8 => [2.0, 0.5]]), group: Group::Solids);

        self::assertNull(Refusal::of($rack));
        self::assertSame(['decide.noneOfHis'], array_map(static fn ($fact): string => $fact->kind, Refusal::notes($rack)));
    }

    private static function search(): OptionSearch
    {
        $player = new ExecutionErrors(...ExecutionErrors::PRESETS['club player']);

        return new OptionSearch(new Rack(Game::EightBall, Table::layout(self::SPOTS), player: $player, group: Group::Solids), $player, 7);
    }
}
