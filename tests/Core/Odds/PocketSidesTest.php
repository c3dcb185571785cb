<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Odds;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\EventKind;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Odds\PocketSides;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Tests\Table;

/** Where a pocket takes a ball: what is offered as a side of the pocket, or rail first, drops when it is played. */
final class PocketSidesTest extends TestCase
{
    public function testAlongARailTheBallMayGoOffItFirst(): void
    {
        $sides = self::sides([0 => [1.0, 0.31], 1 => [1.6, 0.06]], 1.2);
        $rail = $sides->railFirst();
        $straight = $sides->straight();
        self::assertNotNull($rail);
        self::assertNotNull($straight);
        self::assertSame(Rail::Right, $rail['rail']);
        // The rail lies to the right of the line to the foot right pocket.
        self::assertLessThanOrEqual($straight['from'], $rail['to']);

        foreach ([0.25, 0.5, 0.75] as $share) {
            $shot = self::solved([0 => [1.0, 0.31], 1 => [1.6, 0.06]], 1.2, $rail['from'] + $share * ($rail['to'] - $rail['from']));
            self::assertTrue($shot->isMade());
            $met = array_values(array_filter(
                $shot->outcome->eventsOf(Ball::One),
                static fn ($event): bool => EventKind::Cushion === $event->kind || EventKind::Jaw === $event->kind,
            ));
            self::assertSame(EventKind::Cushion, $met[0]->kind);
            self::assertSame(Rail::Right, $met[0]->rail);
        }
    }

    public function testASofterBallIsTakenFromFartherAside(): void
    {
        $spots = [0 => [1.0, 0.31], 1 => [1.6, 0.06]];
        $soft = self::sides($spots, 1.2)->railFirst();
        $hard = self::sides($spots, 2.5)->railFirst();
        self::assertNotNull($soft);
        self::assertNotNull($hard);
        self::assertLessThan($hard['from'] - 0.01, $soft['from']);
    }

    public function testInTheOpenItGoesStraightOrNotAtAllAndAsFarToBothSides(): void
    {
        // On the diagonal of the corner.
        $sides = self::sides([0 => [1.3, 0.76], 1 => [1.9, 0.64]], 1.2);
        $straight = $sides->straight();
        self::assertNotNull($straight);
        self::assertNull($sides->railFirst());
        self::assertEqualsWithDelta(0.0, $straight['from'] + $straight['to'], 0.009);
        self::assertGreaterThan(0.04, $straight['to'] - $straight['from']);
    }

    /** @param array<int, array{float, float}> $spots */
    private static function sides(array $spots, float $speed): PocketSides
    {
        return PocketSides::of(self::solved($spots, $speed, 0.0), new ShotSolver());
    }

    /** @param array<int, array{float, float}> $spots */
    private static function solved(array $spots, float $speed, float $aside): SolvedShot
    {
        return (new ShotSolver())->solve(
            Table::layout($spots),
            new ShotChoice(Ball::One, Pocket::FootRight, new Stroke(Tip::fractions(0.0, 0.2), $speed, 2.0), $aside),
        );
    }
}
