<?php

declare(strict_types=1);

namespace ZigLane\App\State;

use Doctrine\DBAL\Connection;
use Psr\Cache\CacheItemPoolInterface;
use Symfony\Component\Cache\Adapter\DoctrineDbalAdapter;
use Symfony\Component\Cache\Adapter\RedisAdapter;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpFoundation\Session\Storage\Handler\SessionHandlerFactory;

/**
 * Where sessions and limits are kept: in the database, or in Redis where STATE_DSN names one. Never in files, which other machines of
 * the same site would not see.
 */
final readonly class StateStore
{
    public function __construct(private Connection $connection, #[Autowire('%env(STATE_DSN)%')] private string $dsn)
    {
    }

    public function sessions(): \SessionHandlerInterface
    {
        return '' === $this->dsn ? DatabaseSessions::in($this->connection) : SessionHandlerFactory::createHandler($this->dsn);
    }

    public function limits(): CacheItemPoolInterface
    {
        return $this->cache('limits', 0);
    }

    /** Figures that were worked out for pages: for a quarter of an hour, the same in every pool of PHP and on every machine. */
    public function looks(): CacheItemPoolInterface
    {
        return $this->cache('looks', 900);
    }

    private function cache(string $namespace, int $lifetime): CacheItemPoolInterface
    {
        return '' === $this->dsn
            ? new DoctrineDbalAdapter($this->connection, $namespace, $lifetime)
            : new RedisAdapter(RedisAdapter::createConnection($this->dsn, ['lazy' => true]), $namespace, $lifetime);
    }
}
