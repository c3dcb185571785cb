<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\PositionPlay;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\PositionPlay\Fan;
use ZigLane\Core\PositionPlay\FanShot;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\LengthScale;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Equipment;
use ZigLane\Tests\Table;

final class FanTest extends TestCase
{
    public function testTheFanMirrorsWithTheTable(): void
    {
        $fan = static function (bool $mirrored): array {
            $y = static fn (float $y): float => $mirrored ? 1.27 - $y : $y;
            $fan = Fan::overTips(
                self::desk(),
                Table::layout([0 => [1.2, $y(0.6)], 1 => [1.9, $y(0.73)]]),
                new ShotChoice(Ball::One, $mirrored ? Pocket::FootRight : Pocket::FootLeft, new Stroke(Tip::centre(), 1.6)),
            );

            $ends = [];
            foreach ($fan->shots as $fanned) {
                $tip = $fanned->shot->choice->stroke->tip;
                $ends[$tip->offset() < 1e-9 ? 'centre' : $tip->clock()] = $fanned->shot->outcome->final;
            }

            return $ends;
        };
        $one = $fan(false);
        $other = $fan(true);

        self::assertCount(9, $one);
        foreach (['centre' => 'centre', '12:00' => '12:00', '3:00' => '9:00', '7:30' => '4:30'] as $label => $twin) {
            self::assertEqualsWithDelta($one[$label]->spot(Ball::Cue)->x, $other[$twin]->spot(Ball::Cue)->x, 1e-4);
            self::assertEqualsWithDelta($one[$label]->spot(Ball::Cue)->y, 1.27 - $other[$twin]->spot(Ball::Cue)->y, 1e-4);
        }
    }

    public function testFasterGoesFarther(): void
    {
        $fan = Fan::overSpeeds(
            self::desk(),
            Table::layout([0 => [1.2, 0.6], 1 => [1.9, 0.73]]),
            new ShotChoice(Ball::One, Pocket::FootLeft, new Stroke(Tip::centre(), 1.6)),
            new LengthScale(new Equipment()),
        );
        $runs = array_map(static fn (FanShot $fanned): float => $fanned->shot->outcome->trajectory(Ball::Cue)->length(), $fan->shots);

        self::assertGreaterThanOrEqual(4, \count($runs));
        foreach ($runs as $run) {
            self::assertGreaterThanOrEqual($runs[0], $run);
            self::assertLessThanOrEqual(end($runs), $run);
        }
    }

    private static function desk(): ShotSolver
    {
        return new ShotSolver();
    }
}
