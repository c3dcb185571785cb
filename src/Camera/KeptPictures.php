<?php

declare(strict_types=1);

namespace ZigLane\App\Camera;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use ZigLane\App\Entity\KeptPicture;
use ZigLane\App\Entity\RackSheet;

/** The picture of a table that is kept with a sheet, where its owner wanted that. */
final readonly class KeptPictures
{
    private const QUALITY = 88;

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
