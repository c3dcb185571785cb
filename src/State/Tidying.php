<?php

declare(strict_types=1);

namespace ZigLane\App\State;

use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\Messenger\Event\WorkerStartedEvent;
use ZigLane\App\Account\AccountCloser;
use ZigLane\App\Account\DemoVisit;
use ZigLane\App\Entity\Followed;
use ZigLane\App\Repository\PlanJobRepository;
use ZigLane\App\Work\FairShare;

/**
 * What has had its time goes, whenever a worker starts (each of them does once an hour): sessions, limits, shares, plans of racks that are
 * over.
 */
#[AsEventListener]
final readonly class Tidying
{
    public function __construct(
        private Connection $connection,
        private FairShare $share,
        private PlanJobRepository $jobs,
        private ClockInterface $clock,
        private AccountCloser $closer,
        private DemoVisit $visit,
    ) {
    }

    public function __invoke(WorkerStartedEvent $event): void
    {
        $this->tidy();
    }

    public function tidy(): void
    {
        $now = $this->clock->now()->getTimestamp();
        $this->connection->executeStatement('DELETE FROM sessions WHERE sess_lifetime < ?', [$now]);
        $this->connection->executeStatement(
            'DELETE FROM cache_items WHERE item_lifetime IS NOT NULL AND item_time + item_lifetime < ?',
            [$now],
        );
        $this->connection->executeStatement('DELETE FROM looks_asked WHERE at < UTC_TIMESTAMP() - INTERVAL 1 HOUR');
        $this->connection->executeStatement('DELETE FROM given_up WHERE at < ?', [$this->before(30 * 86400)]);
        $this->share->forget();
        $this->jobs->forgetOver();
        // Devices whose session has ended by itself, words that are over, legs that nobody shows.
        $this->connection->executeStatement('DELETE FROM signed_in WHERE used_at < ?', [$this->before(OldSessions::IDLE)]);
        $this->connection->executeStatement('DELETE FROM letter WHERE ends_at < ?', [$this->before(86400)]);
        $this->connection->executeStatement('DELETE FROM followed WHERE at < ?', [$this->before(Followed::LONG)]);
        $this->closer->purge();
        $this->visit->forgetOld();
    }

    private function before(int $seconds): string
    {
        return $this->clock->now()->modify("-$seconds seconds")->format('Y-m-d H:i:s');
    }
}
