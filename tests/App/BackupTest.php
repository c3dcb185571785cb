<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\DriverManager;

/** What is backed up comes back whole in an empty instance. */
final class BackupTest extends AppTestCase
{
    private const PORT = 23496;

    public function testABackupRestoredIntoAnEmptyInstanceIsTheSame(): void
    {
        $root = \dirname(__DIR__, 2);
        $account = $this->signedIn('Zoë ” \' \\ 💥');
        $this->sheet($account);
        $file = sys_get_temp_dir().'/lane-backup-'.bin2hex(random_bytes(4)).'.sql.gz';
        $here = static::getContainer()->get(Connection::class);
        $port = $here->getParams()['port'] ?? 0;
        try {
            self::shell("LANE_MODE=test DB_PORT=$port $root/bin/backup $file");
            self::assertSame('0600', substr(\sprintf('%o', fileperms($file)), -4));
            $mode = 'LANE_MODE=restored DB_PORT='.self::PORT;
            self::shell("$mode $root/bin/restore $file");
            $there = DriverManager::getConnection([
                'driver' => 'pdo_mysql', 'host' => '127.0.0.1', 'port' => self::PORT, 'dbname' => 'zig_lane', 'user' => 'zig_lane', 'charset' => 'utf8mb4',
                'password' => trim((string) file_get_contents("$root/var/restored/password")),
            ]);
            $tables = array_diff(array_filter($here->fetchFirstColumn('SHOW TABLES'), is_string(...)), ['sessions', 'cache_items']);
            self::assertGreaterThan(10, \count($tables));
            foreach ($tables as $table) {
                self::assertSame(
                    $here->fetchNumeric("CHECKSUM TABLE $table")[1] ?? null,
                    $there->fetchNumeric("CHECKSUM TABLE $table")[1] ?? null,
                    $table,
                );
            }
            $name = $there->fetchOne('SELECT name FROM account WHERE id = ?', [$account->getId()->toBinary()]);
            self::assertSame($account->getName(), $name);
            self::assertFalse($there->fetchOne('SELECT 1 FROM sessions'));
            // It does not write over what players have, nor read what is not whole.
            self::assertStringContainsString('--replace', self::shell("$mode $root/bin/restore $file", 1));
            file_put_contents($file, substr((string) file_get_contents($file), 0, 3000));
            self::assertStringContainsString('not a whole backup', self::shell("$mode $root/bin/restore $file --replace", 1));
            $there->close();
        } finally {
            self::shell("LANE_MODE=restored $root/bin/stop", null);
            @unlink($file);
            exec('rm -rf '.escapeshellarg("$root/var/restored"));
        }
    }

    private static function shell(string $command, ?int $expected = 0): string
    {
        exec("$command 2>&1", $output, $code);
        $told = implode("\n", $output);
        if (null !== $expected) {
            self::assertSame($expected, $code, $told);
        }

        return $told;
    }
}
