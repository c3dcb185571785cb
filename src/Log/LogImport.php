<?php

declare(strict_types=1);

namespace ZigLane\App\Log;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Outing;
use ZigLane\App\Entity\Shot;
use ZigLane\App\Entity\ShotRack;
use ZigLane\Core\Log\Log;
use ZigLane\Core\Log\LoggedRack;
use ZigLane\Core\Log\Outing as LoggedOuting;
use ZigLane\Core\Position\IllegalLayout;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Rack;

/**
 * Takes a log file into a player's log. What it calls things is made into ids that belong to this player and file names alone, so that the
 * same file taken twice counts once, and a file of another player makes shots of its own.
 */
final readonly class LogImport
{
    public function __construct(private EntityManagerInterface $manager, private ClockInterface $clock)
    {
    }

    /**
     * All of it or nothing.
     *
     * @param int $firstOuting the place in the file of the first outing, and of the first rack in it, where this is a piece of a file
     *
     * @return array{int, int, array<string, Uuid>} shots taken, those that were there already, and the racks by their ids in the log
     */
    public function take(Account $owner, Log $log, int $firstOuting = 0, int $firstRack = 0): array
    {
        $ownerId = $owner->getId();
        $taken = $known = 0;
        $racks = [];
        $this->manager->wrapInTransaction(function () use ($ownerId, $log, $firstOuting, $firstRack, &$taken, &$known, &$racks): void {
            foreach ($log->outings as $o => $outing) {
                $owner = $this->manager->getReference(Account::class, $ownerId);
                \assert($owner instanceof Account);
                $kept = $this->outing($owner, $outing);
                foreach ($outing->racks as $r => $rack) {
                    $id = $this->id($owner, 'rack', $outing->id, $rack->id, (string) ($firstOuting + $o), (string) ($firstRack + $r));
                    $into = $this->manager->find(ShotRack::class, $id) ?? $this->rack($id, $owner, $kept, $outing, $rack, $log);
                    $racks[$rack->id] = $id;
                    [$new, $old] = $this->shots($into, $rack, $outing->id);
                    $taken += $new;
                    $known += $old;
                }
            }
        });

        return [$taken, $known, $racks];
    }

    private function outing(Account $owner, LoggedOuting $outing): Outing
    {
        // A day and a place are one outing, whichever file they come from.
        $known = $this->manager->getRepository(Outing::class)->findOneBy([
            'owner' => $owner, 'playedOn' => $outing->date->setTime(0, 0), 'place' => mb_substr($outing->place, 0, 120),
        ]);
        if (null !== $known) {
            return $known;
        }
        $made = new Outing($owner, $outing->date->setTime(0, 0), mb_substr($outing->place, 0, 120), $outing->notes);
        $this->manager->persist($made);
        $this->manager->flush();

        return $made;
    }

    private function rack(Uuid $id, Account $owner, Outing $into, LoggedOuting $outing, LoggedRack $rack, Log $log): ShotRack
    {
        try {
            $start = new Rack($rack->game, $rack->start, $outing->equipment, $log->player, $rack->ballInHand);
        } catch (IllegalLayout) {
            // Noted a little into each other: the shots keep their spots, the rack is without a start.
            $start = new Rack($rack->game, Layout::empty(), $outing->equipment, $log->player, $rack->ballInHand);
        }
        $first = $rack->shots[0] ?? null;
        $made = new ShotRack($id, $owner, $into, null, $rack->kind, $start, $first->at ?? $outing->date);
        $made->endBy($rack->end);
        $made->count($rack->balls, $rack->racks);
        $this->manager->persist($made);

        return $made;
    }

    /** @return array{int, int} */
    private function shots(ShotRack $into, LoggedRack $rack, string $outing): array
    {
        $taken = $known = 0;
        foreach ($rack->shots as $i => $shot) {
            $id = $this->id($into->getOwner(), 'shot', $outing, $rack->id, $shot->id, (string) $i);
            if (null !== $this->manager->find(Shot::class, $id)) {
                ++$known;
                continue;
            }
            $this->manager->persist(new Shot($id, $into, $i + 1, $shot, $this->clock->now()));
            ++$taken;
        }

        return [$taken, $known];
    }

    private function id(Account $owner, string ...$names): Uuid
    {
        return Uuid::v5($owner->getId(), implode("\n", $names));
    }
}
