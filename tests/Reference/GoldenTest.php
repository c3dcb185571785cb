<?php

declare(strict_types=1);

namespace ZigLane\Tests\Reference;

use PHPUnit\Framework\TestCase;

/**
 * Two hundred shots come out as they did when they were written down (benchmarks/golden.php): to the last bit on a kind of processor that
 * is known, and as the same shots on any other.
 */
final class GoldenTest extends TestCase
{
    /** Of shots on another kind of processor so many may go another way: balls that meet in groups double every last bit. */
    private const OTHERWISE = 10;

    public function testTwoHundredShotsComeOutAsTheyDid(): void
    {
        $root = \dirname(__DIR__, 2);
        $command = escapeshellarg(\PHP_BINARY).' -d pcov.enabled=0 '.escapeshellarg($root.'/benchmarks/golden.php');
        exec($command, $output, $code);
        self::assertSame(0, $code);
        /** @var array{kind: string, shots: list<array{hash: string, events: int, ends: array<int, array{float, float}>}>} $now */
        $now = json_decode((string) end($output), true, 16, \JSON_THROW_ON_ERROR);
        /** @var array{kinds: array<string, string>, shots: list<array{events: int, ends: array<int, array{float, float}>}>} $golden */
        $golden = json_decode((string) file_get_contents(__DIR__.'/golden/shots.json'), true, 16, \JSON_THROW_ON_ERROR);

        self::assertCount(200, $now['shots']);
        $kept = $golden['kinds'][$now['kind']] ?? null;
        if (null !== $kept) {
            self::assertSame($kept, implode(' ', array_column($now['shots'], 'hash')));

            return;
        }
        $others = 0;
        foreach ($now['shots'] as $i => $shot) {
            $same = \count($shot['ends']) === \count($golden['shots'][$i]['ends']);
            foreach ($same ? $shot['ends'] : [] as $number => [$x, $y]) {
                [$wasX, $wasY] = $golden['shots'][$i]['ends'][$number] ?? [\INF, \INF];
                $same = $same && hypot($x - $wasX, $y - $wasY) < 1e-4;
            }
            $others += $same ? 0 : 1;
        }
        self::assertLessThanOrEqual(self::OTHERWISE, $others, "this kind of processor ({$now['kind']}) is not among those written down");
    }
}
