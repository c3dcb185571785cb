<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use Doctrine\DBAL\Connection;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use ZigLane\App\Entity\Account;
use ZigLane\App\Work\ProcessorTime;
use ZigLane\Core\Shot\ShotSolver;

/**
 * What is computed while a page waits for it: for so long at the most, of one account one at a time and few that wait, and without holding
 * the session, so that nobody keeps the site from others, nor his own next redraw from himself. A newer look of the same page ends the
 * older one. The locks are the database's: they hold on every machine, and go when the process does.
 */
final readonly class OneLook
{
    /** Seconds of computing. */
    private const MOST = 1.0;
    /** Seconds between questions whether a newer look was asked for. */
    private const ASKED = 0.05;
    /** How long one waits for another to end, seconds. */
    private const WAIT = 3;
    /** How many of an account may wait beside the one that is worked out: a page asks for as many at once. */
    private const WAITING = 2;
    /** Looks that all visitors of the demo together have under way. */
    private const OF_DEMO = 3;

    public function __construct(private Connection $connection)
    {
    }

    /**
     * @template T
     *
     * @param \Closure(ShotSolver): T $compute
     * @param float                   $most    seconds
     *
     * @return T
     *
     * @throws TooManyRequestsHttpException If more of this account's wait than may, or another is still under way after a while
     */
    public function of(Request $request, Account $account, ShotSolver $solver, \Closure $compute, float $most = self::MOST): mixed
    {
        $view = $this->view($request);
        if ($request->hasSession()) {
            $request->getSession()->save();
        }
        $isNewest = $this->newest($view);
        $place = $this->place($account, $view);
        $waiting = $this->taken($place.'-waits-', self::WAITING) ?? $this->refuse();
        $isMine = $this->lock($place, self::WAIT);
        $this->release($waiting);
        if (!$isMine) {
            $this->refuse();
        }
        $from = ProcessorTime::seconds();
        $solver->simulator->stopWhen(static fn (): bool => ProcessorTime::seconds() - $from > $most || !$isNewest());
        try {
            return $compute($solver);
        } finally {
            $solver->simulator->stopWhen(null);
            $this->release($place);
        }
    }

    /** Whose look at what this is: a newer one of the same takes its place. */
    private function view(Request $request): string
    {
        $session = $request->hasSession() ? $request->getSession()->getId() : '';

        $look = $request->query->getString('look').$request->query->getInt('more');

        return substr(hash('sha256', $session.$request->getPathInfo().$look), 0, 24);
    }

    /** @return \Closure(): bool whether no newer look of the same has been asked for since, of any process; asked every now and then */
    private function newest(string $view): \Closure
    {
        $this->connection->executeStatement(
            'INSERT INTO looks_asked (view, number, at) VALUES (?, LAST_INSERT_ID(1), UTC_TIMESTAMP())'
            .' ON DUPLICATE KEY UPDATE number = LAST_INSERT_ID(number + 1), at = UTC_TIMESTAMP()',
            [$view],
        );
        $mine = $this->scalar('SELECT LAST_INSERT_ID()', []);
        [$asked, $answer] = [microtime(true), true];

        return function () use ($view, $mine, &$asked, &$answer): bool {
            $now = microtime(true);
            if ($answer && $now - $asked > self::ASKED) {
                $asked = $now;
                $answer = $this->scalar('SELECT number FROM looks_asked WHERE view = ?', [$view]) === $mine;
            }

            return $answer;
        };
    }

    private function place(Account $account, string $view): string
    {
        $name = 'lane-look-'.$account->getId();

        return $account->isDemo() ? 'lane-look-demo-'.hexdec($view[0]) % self::OF_DEMO : $name;
    }

    /** The name of one of so many locks that was free; null where none was. */
    private function taken(string $name, int $count): ?string
    {
        for ($i = 0; $i < $count; ++$i) {
            if ($this->lock($name.$i, 0)) {
                return $name.$i;
            }
        }

        return null;
    }

    private function refuse(): never
    {
        throw new TooManyRequestsHttpException(1, 'Other looks of yours are still being worked out. Ask again in a second.');
    }

    private function lock(string $name, int $seconds): bool
    {
        return 1 === (int) $this->scalar('SELECT GET_LOCK(?, ?)', [$name, $seconds]);
    }

    private function release(string $name): void
    {
        $this->scalar('SELECT RELEASE_LOCK(?)', [$name]);
    }

    /** @param list<mixed> $values */
    private function scalar(string $sql, array $values): string
    {
        $value = $this->connection->fetchOne($sql, $values);

        return \is_scalar($value) ? (string) $value : '';
    }
}
