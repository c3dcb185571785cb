<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Fit;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Fit\ErrorFit;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Shot\ShotSolver;

/** A player's errors from his own results: what known errors give in the tests must give errors that do the same in them. */
final class ErrorFitTest extends TestCase
{
    #[DataProvider('players')]
    public function testTheErrorsFoundGiveTheResultsAgain(float $aim, float $speed, float $tip): void
    {
        $fit = new ErrorFit(new ShotSolver());
        $player = new ExecutionErrors($aim, $speed, $tip, $tip);
        [$made, $lag, $drift] = [$fit->made($player), $fit->lag($player), $fit->drift($player)];
        $found = $fit->fit($made, $lag, $drift);

        self::assertEqualsWithDelta($made, $fit->made($found), 0.5);
        self::assertEqualsWithDelta($lag, $fit->lag($found), 0.15 * $lag + 0.01);
        self::assertEqualsWithDelta($drift, $fit->drift($found), 0.2 * $drift + 0.005);
        self::assertEqualsWithDelta($speed, $found->speed, 0.35 * $speed);
    }

    /** @return iterable<array{float, float, float}> */
    public static function players(): iterable
    {
        yield [0.06, 0.06, 1.5];
        yield [0.03, 0.03, 0.7];
        yield [0.12, 0.10, 2.2];
    }

    public function testABetterPlayerDoesBetterInEveryTest(): void
    {
        $fit = new ErrorFit(new ShotSolver());
        $results = array_map(static function (array $preset) use ($fit): array {
            $player = new ExecutionErrors(...$preset);

            return [-$fit->made($player), $fit->lag($player), $fit->drift($player)];
        }, array_values(ExecutionErrors::PRESETS));
        for ($i = 1; $i < \count($results); ++$i) {
            foreach ([0, 1, 2] as $test) {
                self::assertLessThan($results[$i - 1][$test], $results[$i][$test]);
            }
        }
    }
}
