<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use Doctrine\DBAL\Connection;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use ZigLane\App\Entity\Account;
use ZigLane\Core\Shot\ShotSolver;

/**
 * What is computed while a page waits for it: for so long at the most, of one account one at a time, and without holding the session, so
 * that nobody keeps the site from others, nor his own next redraw from himself. The lock is the database's: it holds on every machine, and
 * goes when the process does.
 */
final readonly class OneLook
{
    /** Seconds of computing. */
    private const MOST = 1.0;
    /** How long a newer request waits for the older one to end, seconds. */
    private const WAIT = 1;

    public function __construct(private Connection $connection)
    {
    }

    /**
     * @template T
     *
     * @param \Closure(ShotSolver): T $compute
     *
     * @return T
     *
     * @throws TooManyRequestsHttpException If another of this account's is still under way
     */
    public function of(Request $request, Account $account, ShotSolver $solver, \Closure $compute): mixed
    {
        if ($request->hasSession()) {
            $request->getSession()->save();
        }
        $name = 'lane-look-'.$account->getId();
        if (1 !== (int) $this->scalar('SELECT GET_LOCK(?, ?)', [$name, self::WAIT])) {
            throw new TooManyRequestsHttpException(1, 'Another look of yours is still being worked out. Ask again in a second.');
        }
        $from = self::seconds();
        $solver->simulator->stopWhen(static fn (): bool => self::seconds() - $from > self::MOST);
        try {
            return $compute($solver);
        } finally {
            $solver->simulator->stopWhen(null);
            $this->scalar('SELECT RELEASE_LOCK(?)', [$name]);
        }
    }

    /** Computed by this process so far, not waited. */
    private static function seconds(): float
    {
        /** @var array<string, int>|false $usage */
        $usage = getrusage();
        if (false === $usage) {
            return 0.0;
        }

        return $usage['ru_utime.tv_sec'] + $usage['ru_stime.tv_sec'] + 1e-6 * ($usage['ru_utime.tv_usec'] + $usage['ru_stime.tv_usec']);
    }

    /** @param list<mixed> $values */
    private function scalar(string $sql, array $values): string
    {
        $value = $this->connection->fetchOne($sql, $values);

        return \is_scalar($value) ? (string) $value : '';
    }
}
