<?php

declare(strict_types=1);

namespace ZigLane\Tests\Reference;

use PHPUnit\Framework\TestCase;

/** The compiler inside PHP must not change a result: the same shots and breaks, with it and without, to the last bit. */
final class SameBitsTest extends TestCase
{
    public function testResultsAreTheSameWithTheJitOnAndOff(): void
    {
        $hashes = [];
        foreach (['off' => ['opcache.jit=off'], 'tracing' => ['opcache.jit=tracing'], 'function' => ['opcache.jit=function']] as $name => $settings) {
            $options = implode(' ', array_map(static fn (string $setting): string => '-d '.$setting, ['pcov.enabled=0', 'opcache.enable_cli=1', 'opcache.jit_buffer_size=64M', ...$settings]));
            exec(\sprintf('%s %s %s', escapeshellarg(\PHP_BINARY), $options, escapeshellarg(\dirname(__DIR__, 2).'/benchmarks/same-bits.php')), $output, $code);
            self::assertSame(0, $code);
            $hashes[$name] = end($output);
        }

        self::assertMatchesRegularExpression('/^[0-9a-f]{64} \d+ shots$/', (string) $hashes['off']);
        self::assertSame(['off' => $hashes['off'], 'tracing' => $hashes['off'], 'function' => $hashes['off']], $hashes);
    }
}
