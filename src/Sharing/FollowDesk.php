<?php

declare(strict_types=1);

namespace ZigLane\App\Sharing;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use ZigLane\App\Entity\Followed;
use ZigLane\App\Entity\RackSheet;

/** Two people look at one sheet and see the same leg: whoever shows it writes it down, the others ask. */
final readonly class FollowDesk
{
    public function __construct(private EntityManagerInterface $manager, private ClockInterface $clock)
    {
    }

    /** The leg that is shown now; null where nobody shows one. */
    public function leg(RackSheet $sheet): ?int
    {
        $followed = $this->manager->find(Followed::class, $sheet);

        return null !== $followed && $this->clock->now()->getTimestamp() - $followed->getAt()->getTimestamp() < Followed::LONG
            ? $followed->getLeg()
            : null;
    }

    /** Shows a leg, or with null none any more. */
    public function show(RackSheet $sheet, ?int $leg): void
    {
        // A statement of its own: it comes with every step, also twice at once.
        $connection = $this->manager->getConnection();
        $id = $sheet->getId()->toBinary();
        if (null === $leg) {
            $connection->executeStatement('DELETE FROM followed WHERE sheet_id = ?', [$id]);

            return;
        }
        $connection->executeStatement(
            'INSERT INTO followed (sheet_id, leg, at) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE leg = VALUES(leg), at = VALUES(at)',
            [$id, max(1, min(200, $leg)), $this->clock->now()->format('Y-m-d H:i:s')],
        );
    }
}
