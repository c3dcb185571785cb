<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Rules;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Rules\Rerack;
use ZigLane\Core\Rules\Spotting;
use ZigLane\Core\Table\Equipment;
use ZigLane\Tests\Table;

/**
 * Straight pool between two racks, and balls that come back (WPA; from memory). Metres: head spot 0.635, centre 1.27, foot 1.905, all at
 * 0.635.
 */
final class RerackTest extends TestCase
{
    private const HEAD = [0.635, 0.635];
    private const CENTRE = [1.27, 0.635];

    /**
     * @param array{float, float}      $cue
     * @param array{float, float}|null $last  the fifteenth ball; null: it dropped with the fourteenth
     * @param array{float, float}|null $cueTo null: in hand
     * @param array{float, float}|null $to    null: racked
     */
    #[TestWith([[1.0, 0.3], [0.9, 0.9], [1.0, 0.3], [0.9, 0.9]], 'both stay')]
    #[TestWith([[1.0, 0.3], [1.70, 0.35], [1.0, 0.3], [1.70, 0.35]], 'a break ball beside the rack stays')]
    #[TestWith([[1.0, 0.3], [2.0, 0.65], [1.0, 0.3], self::HEAD], 'fifteenth in the rack')]
    #[TestWith([self::HEAD, [2.0, 0.65], self::HEAD, self::CENTRE], 'fifteenth in the rack, cue ball on the head spot')]
    #[TestWith([[1.95, 0.62], [2.05, 0.65], null, null], 'both in the rack')]
    #[TestWith([[1.95, 0.62], null, null, null], 'fifteenth pocketed, cue ball in the rack')]
    #[TestWith([[1.0, 0.3], null, [1.0, 0.3], null], 'fifteenth pocketed')]
    #[TestWith([[1.95, 0.62], [1.0, 0.3], null, [1.0, 0.3]], 'cue ball in the rack')]
    #[TestWith([[1.95, 0.62], [0.3, 0.9], self::HEAD, [0.3, 0.9]], 'cue ball in the rack, fifteenth behind the head string')]
    #[TestWith([[1.95, 0.62], self::HEAD, self::CENTRE, self::HEAD], 'cue ball in the rack, fifteenth on the head spot')]
    #[TestWith([[1.0, 0.3], self::HEAD, [1.0, 0.3], self::HEAD], 'fifteenth on the head spot')]
    public function testWhereTheBallsComeToLie(array $cue, ?array $last, ?array $cueTo, ?array $to): void
    {
        $rerack = Rerack::of(Table::layout([0 => $cue] + (null === $last ? [] : [7 => $last])), new Equipment());
        self::assertNotNull($rerack);

        self::assertSame(null === $cueTo ? BallInHand::Kitchen : BallInHand::None, $rerack->inHand);
        self::assertSame(null !== $cueTo, $rerack->layout->has(Ball::Cue));
        if (null !== $cueTo) {
            self::assertEqualsWithDelta($cueTo, [$rerack->layout->spot(Ball::Cue)->x, $rerack->layout->spot(Ball::Cue)->y], 1e-9);
        }
        self::assertSame(null === $to, $rerack->isWhole);
        self::assertSame(15, $rerack->layout->without(Ball::Cue)->count());
        if (null !== $to) {
            self::assertEqualsWithDelta($to, [$rerack->layout->spot(Ball::Seven)->x, $rerack->layout->spot(Ball::Seven)->y], 1e-9);
            self::assertNotNull(Racking::racked($rerack->layout, new Equipment()));
        }
        self::assertSame([], (new LayoutRules(new Equipment()))->faults($rerack->layout));
    }

    /** Overlapping the outline counts, also where no racked ball would be touched. */
    public function testABallThatOverlapsTheOutlineIsInTheRack(): void
    {
        [$apex, $right, $left] = Racking::outline(new Equipment());
        $rerack = static fn (float $x, float $y): ?Rerack => Rerack::of(Table::layout([0 => [1.0, 0.3], 7 => [$x, $y]]), new Equipment());
        // Beside the apex, which is not racked, and a hair past the line of the foot side.
        self::assertEqualsWithDelta(0.635, $rerack($apex->x + 0.01, $apex->y)?->layout->spot(Ball::Seven)->x, 1e-9);
        self::assertEqualsWithDelta(0.635, $rerack($right->x + 0.02, 0.5 * ($right->y + $left->y))?->layout->spot(Ball::Seven)->x, 1e-9);
        self::assertEqualsWithDelta($right->x + 0.03, $rerack($right->x + 0.03, 0.635)?->layout->spot(Ball::Seven)->x, 1e-9);
        self::assertNull(Rerack::of(Table::layout([0 => [1.0, 0.3], 4 => [0.5, 0.635], 5 => [0.7, 0.6]]), new Equipment()));
    }

    /** On the foot spot, or behind what lies there towards the foot rail, touching object balls but not the cue ball. */
    public function testBallsThatComeBackAreSpotted(): void
    {
        $foot = 1.905;
        self::assertEqualsWithDelta($foot, self::back([0 => [1.0, 0.3]], [Ball::Nine])->spot(Ball::Nine)->x, 1e-9);
        self::assertEqualsWithDelta(
            $foot + 2 * Table::R,
            self::back([0 => [1.0, 0.3], 3 => [$foot, 0.635]], [Ball::Nine])->spot(Ball::Nine)->x,
            1e-6,
        );
        self::assertGreaterThan($foot + 2 * Table::R + 0.0005, self::back([0 => [$foot, 0.635]], [Ball::Nine])->spot(Ball::Nine)->x);
        // Several in the order of their numbers, one behind the other.
        $two = self::back([0 => [1.0, 0.3]], [Ball::Ten, Ball::Two]);
        self::assertEqualsWithDelta($foot, $two->spot(Ball::Two)->x, 1e-9);
        self::assertEqualsWithDelta($foot + 2 * Table::R, $two->spot(Ball::Ten)->x, 1e-6);
        // No room up to the foot rail: towards the head.
        $row = [0 => [1.0, 0.3]];
        for ($i = 0; $i < 11; ++$i) {
            $row[1 + $i] = [$foot + $i * 2 * Table::R, 0.635];
        }
        self::assertEqualsWithDelta($foot - 2 * Table::R, self::back($row, [Ball::Fifteen])->spot(Ball::Fifteen)->x, 1e-6);
        self::assertSame([], (new LayoutRules(new Equipment()))->faults(self::back($row, [Ball::Fifteen])));
    }

    /**
     * @param array<int, array{float, float}> $spots
     * @param list<Ball>                      $balls
     */
    private static function back(array $spots, array $balls): Layout
    {
        return Spotting::back(Table::layout($spots), $balls, new Equipment());
    }
}
