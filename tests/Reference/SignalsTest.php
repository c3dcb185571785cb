<?php

declare(strict_types=1);

namespace ZigLane\Tests\Reference;

use PHPUnit\Framework\TestCase;

/**
 * Signals change no result (the short form of what bin/chaos does): neither as the console has them, dispatched between pieces of work, nor
 * with a handler that runs in the middle of compiled code, which it never does here but a package might bring about.
 */
final class SignalsTest extends TestCase
{
    public function testAThousandSignalsASecondChangeNoShot(): void
    {
        foreach (['', ' --async'] as $how) {
            exec(
                \sprintf('%s -d pcov.enabled=0 %s 40 2000 --shots%s 2>&1', escapeshellarg(\PHP_BINARY), escapeshellarg(
                    \dirname(__DIR__, 2).'/tools/machines/signals.php',
                ), $how),
                $output,
                $code,
            );
            $said = implode("\n", $output);
            self::assertSame(0, $code, $said);
            self::assertMatchesRegularExpression('/signals: [1-9]\d* sent, [1-9]\d* handled, 2400 shots: 0 differ, 0 failed/', $said);
        }
    }
}
