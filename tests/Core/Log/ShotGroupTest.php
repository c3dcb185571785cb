<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Log;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Log\ShotGroup;

final class ShotGroupTest extends TestCase
{
    /** Rows of every log since November 2026 hold these bits: a case that is added or moved must not give them another meaning. */
    public function testTheBitsThatRowsHoldKeepTheirMeaning(): void
    {
        $kept = [
            'short' => 1, 'long' => 2, 'straight' => 4, 'medium' => 8, 'thin' => 16, 'cutLeft' => 32, 'cutRight' => 64, 'soft' => 128,
            'firm' => 256, 'draw' => 512, 'follow' => 1024, 'side' => 2048, 'rail' => 4096, 'corner' => 8192, 'sidePocket' => 16384,
            'bank' => 32768, 'combination' => 65536,
        ];
        foreach ($kept as $value => $bit) {
            self::assertSame($bit, ShotGroup::from($value)->bit(), $value);
        }
        $bits = array_map(static fn (ShotGroup $group): int => $group->bit(), ShotGroup::cases());
        self::assertSame($bits, array_unique($bits));
    }
}
