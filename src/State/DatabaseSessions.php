<?php

declare(strict_types=1);

namespace ZigLane\App\State;

use Doctrine\DBAL\Connection;
use Symfony\Component\HttpFoundation\Session\Storage\Handler\PdoSessionHandler;

/**
 * Sessions in the database, over the application's own connection and without locks, so that a slow answer does not hold up the next. One
 * that is only read is written at most every few minutes; one of nobody who is signed in is forgotten after an hour.
 */
final class DatabaseSessions extends PdoSessionHandler
{
    /** Seconds that a session may have been used without its row saying so. */
    private const UNTOLD = 300;
    private const OF_NOBODY = 3600;

    private function __construct(private readonly \PDO $own)
    {
        parent::__construct($own, ['lock_mode' => self::LOCK_NONE, 'ttl' => self::life(...)]);
    }

    /** @throws \Doctrine\DBAL\Exception\ConnectionException If the database does not answer */
    public static function in(Connection $connection): self
    {
        $native = $connection->getNativeConnection();
        \assert($native instanceof \PDO);

        return new self($native);
    }

    #[\Override]
    public function updateTimestamp(#[\SensitiveParameter] string $sessionId, string $data): bool
    {
        $this->own
            ->prepare('UPDATE sessions SET sess_lifetime = ?, sess_time = ? WHERE sess_id = ? AND sess_time < ?')
            ->execute([time() + self::life(), time(), $sessionId, time() - self::UNTOLD]);

        return true;
    }

    private static function life(): int
    {
        $attributes = $_SESSION['_sf2_attributes'] ?? null;

        return \is_array($attributes) && isset($attributes['_security_main']) ? OldSessions::IDLE : self::OF_NOBODY;
    }
}
