<?php

declare(strict_types=1);

namespace ZigLane\App\Account;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Letter;
use ZigLane\App\Entity\SignedIn;

/** On which devices somebody is signed in: each session knows its row, and is over where that is gone. */
final readonly class Devices
{
    public const KEY = '_lane_device';
    /** Seconds that a row may lag behind its use. */
    private const UNTOLD = 300;
    private const SYSTEMS = ['iPhone' => 'iPhone', 'iPad' => 'iPad', 'Android' => 'Android', 'Windows' => 'Windows', 'Mac OS' => 'Mac', 'Linux' => 'Linux'];
    private const BROWSERS = ['Firefox' => 'Firefox', 'Edg' => 'Edge', 'Chrom' => 'Chrome', 'Safari' => 'Safari'];

    public function __construct(private EntityManagerInterface $manager, private ClockInterface $clock)
    {
    }

    /** Notes that this session is used; false where it was ended from elsewhere. */
    public function isKnown(Request $request, Account $account): bool
    {
        $session = $request->getSession();
        // Somebody else's who was signed in before in the same browser is not his.
        $id = self::idOf($request, $account);
        $connection = $this->manager->getConnection();
        $now = $this->clock->now();
        if (null === $id) {
            $id = Uuid::v4();
            $session->set(self::KEY, $id.' '.$account->getId());
            $connection->executeStatement(
                'INSERT INTO signed_in (id, account_id, device, since, used_at) VALUES (?, ?, ?, ?, ?)',
                [
                    $id->toBinary(), $account->getId()->toBinary(), self::device((string) $request->headers->get('User-Agent')),
                    $now->format('Y-m-d H:i:s'), $now->format('Y-m-d H:i:s'),
                ],
            );
            $this->seen($account, $now);

            return true;
        }
        $used = $connection->fetchOne(
            'SELECT used_at FROM signed_in WHERE id = ? AND account_id = ?',
            [$id->toBinary(), $account->getId()->toBinary()],
        );
        if (!\is_string($used)) {
            return false;
        }
        if ($now->getTimestamp() - (new \DateTimeImmutable($used))->getTimestamp() > self::UNTOLD) {
            $connection->executeStatement(
                'UPDATE signed_in SET used_at = ? WHERE id = ?',
                [$now->format('Y-m-d H:i:s'), $id->toBinary()],
            );
            $this->seen($account, $now);
        }

        return true;
    }

    /** Which device this session is; null where it has none of this account yet. */
    public static function idOf(Request $request, Account $account): ?Uuid
    {
        $kept = $request->getSession()->get(self::KEY);
        [$id, $of] = \is_string($kept) ? [...explode(' ', $kept, 2), ''] : ['', ''];

        return Uuid::isValid($id) && $of === (string) $account->getId() ? Uuid::fromString($id) : null;
    }

    /** @return list<SignedIn> the one used last first */
    public function of(Account $account): array
    {
        return $this->manager->getRepository(SignedIn::class)->findBy(['account' => $account], ['usedAt' => 'DESC'], 100);
    }

    public function end(Account $account, string $id): void
    {
        if (Uuid::isValid($id)) {
            $this->manager->getConnection()->executeStatement(
                'DELETE FROM signed_in WHERE id = ? AND account_id = ?',
                [Uuid::fromString($id)->toBinary(), $account->getId()->toBinary()],
            );
        }
    }

    /**
     * Everywhere; but for one, where that is named. Letters end with the sessions: who asked for one could be who is shut out. Only the
     * owner's way back from an address that he did not choose stays.
     */
    public function endAll(Account $account, ?Uuid $but = null): void
    {
        $this->manager->getConnection()->executeStatement(
            'UPDATE letter SET used_at = ? WHERE account_id = ? AND purpose <> ? AND used_at IS NULL',
            [$this->clock->now()->format('Y-m-d H:i:s'), $account->getId()->toBinary(), Letter::BACK],
        );
        $this->manager->getConnection()->executeStatement(
            'DELETE FROM signed_in WHERE account_id = ? AND id <> ?',
            [$account->getId()->toBinary(), $but?->toBinary() ?? ''],
        );
    }

    private function seen(Account $account, \DateTimeImmutable $now): void
    {
        if ($account->getSeenOn()?->format('Y-m-d') !== $now->format('Y-m-d')) {
            $this->manager->getConnection()->executeStatement(
                'UPDATE account SET seen_on = ? WHERE id = ?',
                [$now->format('Y-m-d'), $account->getId()->toBinary()],
            );
        }
    }

    /** Browser and system, and nothing more of what the browser says of itself. */
    private static function device(string $agent): string
    {
        return trim(self::named($agent, self::BROWSERS).', '.self::named($agent, self::SYSTEMS), ', ') ?: 'A browser';
    }

    /** @param array<string, string> $names by what is looked for */
    private static function named(string $agent, array $names): string
    {
        foreach ($names as $part => $name) {
            if (str_contains($agent, $part)) {
                return $name;
            }
        }

        return '';
    }
}
