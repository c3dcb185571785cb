<?php

declare(strict_types=1);

namespace ZigLane\Tests\Reference;

use PHPUnit\Framework\TestCase;

/**
 * The compiler inside PHP must not change a result: the same shots and breaks, with it and without, to the last bit. The
 * application runs with `function`, and with 0005 on a machine without AVX. `tracing` does not pass here on PHP 8.2, nor does 0205, which
 * is `function` made to do without AVX (docs/performance.md).
 */
final class SameBitsTest extends TestCase
{
    public function testResultsAreTheSameWithTheJitOnAndOff(): void
    {
        $hashes = [];
        /** @var string $used */
        $used = require \dirname(__DIR__, 2).'/config/jit.php';
        $modes = array_values(array_unique(['off', '0005', $used]));
        foreach ($modes as $jit) {
            $options = '-d pcov.enabled=0 -d opcache.enable_cli=1 -d opcache.jit_buffer_size=64M -d opcache.jit='.$jit;
            exec(
                \sprintf(
                    '%s %s %s',
                    escapeshellarg(\PHP_BINARY),
                    $options,
                    escapeshellarg(\dirname(__DIR__, 2).'/benchmarks/same-bits.php'),
                ),
                $output,
                $code,
            );
            self::assertSame(0, $code);
            $hashes[$jit] = end($output);
        }

        self::assertMatchesRegularExpression('/^[0-9a-f]{64} \d+ shots$/', (string) $hashes['off']);
        self::assertSame(array_fill_keys($modes, $hashes['off']), $hashes);
    }
}
