<?php

declare(strict_types=1);

namespace ZigLane\App\Practice;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\DrillVersion;
use ZigLane\App\Entity\OwnDrill;
use ZigLane\App\Repository\OwnDrills;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Format\DrillFile;

/** The drills of an account: those of the library, and its own; copied, changed and taken in. */
final readonly class DrillShelf
{
    private const MOST = 500;

    public function __construct(
        private DrillLibrary $library,
        private OwnDrills $drills,
        private EntityManagerInterface $manager,
        private ClockInterface $clock,
    ) {
    }

    /** @return list<ShelvedDrill> own ones first */
    public function all(Account $account): array
    {
        $all = array_map(
            static fn (OwnDrill $drill): ShelvedDrill => new ShelvedDrill((string) $drill->getId(), $drill->getFile(), $drill),
            $this->drills->all($account),
        );
        foreach ($this->library->all() as $key => $file) {
            $all[] = new ShelvedDrill($key, $file);
        }

        return $all;
    }

    /** @throws NotFoundHttpException If there is none, or it is somebody else's */
    public function drill(Account $account, string $key): ShelvedDrill
    {
        $own = $this->drills->ownedBy($account, $key);
        $file = null === $own ? $this->library->find($key) : $own->getFile();

        return null === $file ? throw new NotFoundHttpException('There is no such drill.') : new ShelvedDrill($key, $file, $own);
    }

    public function keep(Account $account, DrillFile $file): OwnDrill
    {
        if (\count($this->drills->all($account)) >= self::MOST) {
            throw Refused::because('tooManyDrills', ['most' => self::MOST]);
        }
        $drill = new OwnDrill($account, $file, $this->clock->now());
        $this->manager->persist($drill);
        $this->manager->flush();

        return $drill;
    }

    public function change(OwnDrill $drill, DrillFile $file): void
    {
        $drill->change($file);
        $this->manager->flush();
    }

    public function delete(OwnDrill $drill): void
    {
        $this->manager->remove($drill);
        $this->manager->flush();
    }

    /** The drill as it is now, to be played or scored: the same file is kept once. */
    public function version(DrillFile $file): DrillVersion
    {
        $version = $this->manager->find(DrillVersion::class, $file->hash());
        if (null === $version) {
            // Whoever comes first keeps it.
            $this->manager->getConnection()->executeStatement(
                'INSERT IGNORE INTO drill_version (hash, file) VALUES (?, ?)',
                [$file->hash(), $file->write()],
            );
            $version = $this->manager->find(DrillVersion::class, $file->hash());
        }

        return $version ?? throw new \LogicException('A version that was kept is gone.');
    }
}
