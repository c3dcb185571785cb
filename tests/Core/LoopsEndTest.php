<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core;

use PHPUnit\Framework\Attributes\CoversNothing;
use PHPUnit\Framework\TestCase;

/** A loop that does not count says in the line above it why it ends; one that cannot say so gets a bound. */
#[CoversNothing]
final class LoopsEndTest extends TestCase
{
    public function testEveryLoopOfTheCoreSaysWhyItEnds(): void
    {
        $loops = 0;
        $unsaid = [];
        $folder = \dirname(__DIR__, 2).'/core';
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator($folder, \FilesystemIterator::SKIP_DOTS)) as $file) {
            \assert($file instanceof \SplFileInfo);
            $lines = file($file->getPathname(), \FILE_IGNORE_NEW_LINES) ?: [];
            foreach ($lines as $i => $line) {
                $isCounted = 1 === preg_match('/^\s*for \(.*; (?:\$\w+|\+\+\$\w+) [<>]=? [^;]+; (?:\+\+|--)?\$/', $line);
                if ($isCounted || 1 !== preg_match('/^\s*(while \(|do \{|for \()/', $line)) {
                    continue;
                }
                ++$loops;
                if (!str_contains($lines[$i - 1].$lines[$i + 1], '// Ends: ')) {
                    $unsaid[] = \sprintf('%s:%d %s', substr($file->getPathname(), \strlen($folder) + 1), $i + 1, trim($line));
                }
            }
        }
        self::assertGreaterThan(20, $loops);
        self::assertSame([], $unsaid);
    }
}
