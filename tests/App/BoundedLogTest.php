<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use Monolog\Handler\TestHandler;
use Monolog\Level;
use Monolog\LogRecord;
use PHPUnit\Framework\TestCase;
use ZigLane\App\State\BoundedLog;

final class BoundedLogTest extends TestCase
{
    /** A worker that says the same a million times (it has: 400 MB in 23 minutes) leaves sixty lines a minute, and a word. */
    public function testTheSameMessageIsWrittenSoOftenInAMinute(): void
    {
        $kept = new TestHandler();
        $log = new BoundedLog($kept, sys_get_temp_dir(), 'no-such-environment');
        for ($i = 0; $i < 1000; ++$i) {
            $log->handle(self::record('Undefined array key', '2026-12-02 10:00:'.($i % 60)));
        }
        $log->handle(self::record('Another one', '2026-12-02 10:00:59'));
        self::assertCount(62, $kept->getRecords());
        self::assertTrue($kept->hasWarningThatContains('came so often'));
        $log->handle(self::record('Undefined array key', '2026-12-02 10:01:00'));
        self::assertCount(63, $kept->getRecords());
    }

    public function testAFileThatHasItsSizeGrowsNoMore(): void
    {
        $folder = sys_get_temp_dir().'/lane-log-'.bin2hex(random_bytes(4));
        mkdir($folder);
        $file = $folder.'/prod-2026-12-02.log';
        $sparse = fopen($file, 'w');
        self::assertNotFalse($sparse);
        ftruncate($sparse, 60_000_000);
        fclose($sparse);
        $kept = new TestHandler();
        (new BoundedLog($kept, $folder, 'prod'))->handle(self::record('x', '2026-12-02 10:00:00'));
        (new BoundedLog($kept, $folder, 'prod'))->handle(self::record('x', '2026-12-03 10:00:00'));
        self::assertCount(1, $kept->getRecords());
        unlink($file);
        rmdir($folder);
    }

    private static function record(string $message, string $at): LogRecord
    {
        return new LogRecord(new \DateTimeImmutable($at), 'app', Level::Error, $message);
    }
}
