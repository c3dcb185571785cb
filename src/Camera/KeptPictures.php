<?php

declare(strict_types=1);

namespace ZigLane\App\Camera;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\KeptPicture;
use ZigLane\App\Entity\RackSheet;

/** The picture of a table that is kept with a sheet, where its owner wanted that. */
final readonly class KeptPictures
{
    private const QUALITY = 88;
    /** So many pictures of an account are kept, the latest; and of one who looks round. */
    private const MOST = 500;
    private const MOST_OF_VISITOR = 4;

    public function __construct(private EntityManagerInterface $manager, private ClockInterface $clock)
    {
    }

    public function of(RackSheet $sheet): ?KeptPicture
    {
        return $this->manager->find(KeptPicture::class, $sheet);
    }

    /** As it is looked at: drawn anew, without what was written beside it. In the place of one that is kept already. */
    public function keep(RackSheet $sheet, \GdImage $image): void
    {
        ob_start();
        imagejpeg($image, null, self::QUALITY);
        $jpeg = (string) ob_get_clean();
        $kept = $this->of($sheet);
        if (null === $kept) {
            $this->manager->persist(new KeptPicture($sheet, $jpeg, $this->clock->now()));
        } else {
            $kept->keep($jpeg, $this->clock->now());
        }
        $this->manager->flush();
        $this->throwOldAway($sheet->getOwner());
    }

    private function throwOldAway(Account $owner): void
    {
        $connection = $this->manager->getConnection();
        $old = $connection->fetchFirstColumn(
            'SELECT k.sheet_id FROM kept_picture k JOIN rack_sheet s ON s.id = k.sheet_id WHERE s.owner_id = ?'
            .' ORDER BY k.kept_at DESC, k.sheet_id DESC LIMIT 1000 OFFSET '.($owner->isDemo() ? self::MOST_OF_VISITOR : self::MOST),
            [$owner->getId()->toBinary()],
        );
        if ([] !== $old) {
            $connection->executeStatement('DELETE FROM kept_picture WHERE sheet_id IN (?)', [$old], [ArrayParameterType::BINARY]);
        }
    }

    public function throwAway(RackSheet $sheet): void
    {
        $kept = $this->of($sheet);
        if (null !== $kept) {
            $this->manager->remove($kept);
            $this->manager->flush();
        }
    }
}
