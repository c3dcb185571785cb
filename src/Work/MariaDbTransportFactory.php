<?php

declare(strict_types=1);

namespace ZigLane\App\Work;

use Doctrine\DBAL\Connection;
use Doctrine\Persistence\ManagerRegistry;
use Psr\Clock\ClockInterface;
use Psr\EventDispatcher\EventDispatcherInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Messenger\Exception\InvalidArgumentException;
use Symfony\Component\Messenger\Transport\Serialization\SerializerInterface;
use Symfony\Component\Messenger\Transport\TransportFactoryInterface;
use Symfony\Component\Messenger\Transport\TransportInterface;

/**
 * Messages in the application's own MariaDB: `mariadb://CONNECTION?queue=NAME&redeliver=SECONDS`. Any other transport (AMQP,
 * Redis) takes its place by another DSN where its bridge is installed.
 *
 * @implements TransportFactoryInterface<MariaDbTransport>
 */
final readonly class MariaDbTransportFactory implements TransportFactoryInterface
{
    public function __construct(
        private ManagerRegistry $connections,
        private ClockInterface $clock,
        private FairShare $share,
        private EventDispatcherInterface $events,
        #[Autowire('%env(LANE_WORKER)%')] private string $worker,
    ) {
    }

    /** @param array<mixed> $options */
    public function createTransport(#[\SensitiveParameter] string $dsn, array $options, SerializerInterface $serializer): TransportInterface
    {
        $parts = parse_url($dsn);
        if (false === $parts || !isset($parts['host'])) {
            throw new InvalidArgumentException('The DSN of the MariaDB transport must be like mariadb://default?queue=work.');
        }
        parse_str($parts['query'] ?? '', $query);
        $queue = $query['queue'] ?? 'work';
        $redeliver = $query['redeliver'] ?? '900';
        if (!\is_string($queue) || !\is_string($redeliver) || (int) $redeliver < 1) {
            throw new InvalidArgumentException('The MariaDB transport takes a queue name and a number of seconds in redeliver.');
        }
        $connection = $this->connections->getConnection($parts['host']);
        \assert($connection instanceof Connection);

        return new MariaDbTransport(
            $connection,
            $serializer,
            $this->clock,
            $queue,
            (int) $redeliver,
            $this->share,
            $this->events,
            $this->worker,
        );
    }

    /** @param array<mixed> $options */
    public function supports(#[\SensitiveParameter] string $dsn, array $options): bool
    {
        return str_starts_with($dsn, 'mariadb://');
    }
}
