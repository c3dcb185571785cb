<?php

declare(strict_types=1);

namespace ZigLane\App\Log;

use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Outing;
use ZigLane\App\Entity\OwnTable;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\Shot;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Message\EraseRack;
use ZigLane\App\Repository\ShotLog;
use ZigLane\App\Sheet\Planner;
use ZigLane\App\Sheet\Trash;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Log\Continuation;
use ZigLane\Core\Log\LoggedShot;
use ZigLane\Core\Log\RackKind;
use ZigLane\Core\Log\RackResult;
use ZigLane\Core\Log\ShotKind;
use ZigLane\Core\Log\ShotResult;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;

/**
 * Every change of a log: each is one transaction. An entry that comes twice counts once; one that does not follow from what is logged is
 * refused, so that of two phones at one rack neither overwrites the other.
 */
final readonly class LogEditor
{
    public function __construct(
        private EntityManagerInterface $manager,
        private ShotLog $log,
        private PlanAtTable $plans,
        private Planner $planner,
        private ClockInterface $clock,
        private Trash $trash,
    ) {
    }

    /** A rack begins; one that was begun with this id before is that one. */
    public function begin(Account $owner, Uuid $id, Rack $rack, RackKind $kind, ?RackSheet $sheet = null, ?string $plan = null): ShotRack
    {
        $begun = $this->log->deletedOrNot($owner, (string) $id);
        if (null !== $begun) {
            return $begun;
        }
        $shotRack = new ShotRack($id, $owner, $this->outing($owner), $sheet, $kind, $rack, $this->clock->now());
        $shotRack->follow($plan);
        $this->manager->persist($shotRack);
        $this->manager->flush();

        return $shotRack;
    }

    /** On which of the owner's tables an outing is played; null: on none of them. */
    public function playedOn(Outing $outing, ?OwnTable $table): void
    {
        $outing->on($table);
        $this->manager->flush();
    }

    /** Where an outing is played; what was noted before stays where nothing is said. */
    public function playedAt(Outing $outing, string $place): void
    {
        $place = mb_substr(trim(mb_scrub($place)), 0, 120);
        if ('' !== $place && $place !== $outing->getPlace()) {
            $outing->note($place, $outing->getNotes());
            $this->manager->flush();
        }
    }

    /** The owner's outing of today, or a new one. */
    private function outing(Account $owner): Outing
    {
        $day = $owner->today($this->clock->now());
        $outing = $this->log->outingOn($owner, $day);
        if (null === $outing) {
            $outing = new Outing($owner, $day);
            $this->manager->persist($outing);
        }

        return $outing;
    }

    /**
     * A shot of a rack.
     *
     * @return bool false where this entry has been taken before
     *
     * @throws CoreError             If it cannot have come of the shot
     * @throws ConflictHttpException If it does not follow from what is logged
     */
    public function add(ShotRack $rack, ShotEntry $entry): bool
    {
        return $this->changed($rack, function () use ($rack, $entry): bool {
            $known = $this->log->shot($entry->id);
            if (null !== $known) {
                return $known->getRack() === $rack ? false : throw self::conflict('This entry belongs to another rack.');
            }
            $shots = $this->log->shots($rack);
            $last = [] === $shots ? null : $shots[\count($shots) - 1]->getId();
            if ((string) $last !== (string) $entry->previous) {
                throw self::conflict(
                    'This rack was logged on another device meanwhile.'
                    .' What you entered here is kept: reload and enter it again where it belongs.',
                );
            }
            if (null !== $rack->getEnd() && RackKind::Tries !== $rack->getKind()) {
                throw self::conflict('This rack has ended. Take it up again to log more shots.');
            }
            $before = $this->before($rack, $entry);
            $shot = $this->shot($rack, $entry, $before);
            $next = Continuation::of($before, $entry->ball, $entry->kind, $shot->result);
            $this->manager->persist(new Shot($entry->id, $rack, \count($shots) + 1, $shot, $this->clock->now()));
            if (RackKind::Tries !== $rack->getKind()) {
                $rack->lies($next->rack);
                $rack->endBy($next->isOver ? $next->end : null);
            }

            return true;
        });
    }

    /** Takes the last shot back, if it is that one. */
    public function undo(ShotRack $rack, string $id): void
    {
        $this->changed($rack, function () use ($rack, $id): void {
            $shots = $this->log->shots($rack);
            $last = array_pop($shots);
            if (null === $last || (string) $last->getId() !== $id) {
                return;
            }
            $this->manager->remove($last);
            $rack->endBy(null);
            if (RackKind::Tries !== $rack->getKind()) {
                $rack->lies($this->replayed($rack, $shots));
            }
        });
    }

    /** The rack is over for the player; null takes it up again. */
    public function end(ShotRack $rack, ?RackResult $end): void
    {
        $this->changed($rack, static fn () => $rack->endBy($end));
    }

    /** Only the result of a rack or run: as much as the player has patience for. */
    public function result(Account $owner, Uuid $id, Rack $rack, ?RackResult $end, ?int $balls, ?int $racks): ShotRack
    {
        $shotRack = $this->begin($owner, $id, $rack, RackKind::Practice);
        $shotRack->count($balls, $racks);
        $shotRack->endBy($end ?? RackResult::Left);
        $this->manager->flush();

        return $shotRack;
    }

    /**
     * A break by itself: what fell, whether there was a shot after it, and where the cue ball and the first ball stopped.
     *
     * @param list<Ball> $fell
     * @param bool|null  $isWing whether the ball on the wing went to its corner
     */
    public function broke(
        Account $owner, Uuid $id, Game $game, array $fell, bool $isScratch, ?bool $hasShot, ?bool $isWing,
        Layout $after,
    ): ShotRack {
        $rack = $this->begin($owner, $id, new Rack($game, Layout::empty()), RackKind::Practice);
        if (0 !== $this->log->shotsOf($rack)) {
            return $rack;
        }
        $result = new ShotResult($isWing, null, $isScratch, null, $isScratch, false, $hasShot, $after, fell: $fell);
        $shot = new LoggedShot(
            (string) $id, $this->clock->now(), ShotKind::Break, $rack->getStart()->equipment, Layout::empty(), null, null, null, null, null,
            null, null, null, $result,
        );
        $this->manager->persist(new Shot(Uuid::v5($id, 'break'), $rack, 1, $shot, $this->clock->now()));
        $rack->endBy(RackResult::Left);
        $this->manager->flush();

        return $rack;
    }

    public function delete(ShotRack $rack): void
    {
        $this->trash->put($rack, new EraseRack((string) $rack->getId()));
    }

    public function restore(ShotRack $rack): void
    {
        $this->trash->restore($rack);
    }

    /** The rest of a rack is planned anew from how it lies, unless that is under way. */
    public function plan(ShotRack $rack): void
    {
        $this->plans->ask($rack, $this->planner, $this->log->shotsOf($rack));
    }

    /** How the rack lay before this shot: with ball in hand, where the cue ball was placed. */
    private function before(ShotRack $rack, ShotEntry $entry): Rack
    {
        $now = RackKind::Tries === $rack->getKind() ? $rack->getStart() : $rack->getNow();
        if (null === $entry->cue) {
            return $now;
        }

        return $now->inHand(BallInHand::None)->withLayout($now->layout->with(Ball::Cue, $entry->cue));
    }

    private function shot(ShotRack $rack, ShotEntry $entry, Rack $before): LoggedShot
    {
        return (new EntryReader($before, $this->plans->legOf($rack, $entry)))->logged($entry);
    }

    /** @param list<Shot> $shots */
    private function replayed(ShotRack $rack, array $shots): Rack
    {
        $now = $rack->getStart();
        foreach ($shots as $shot) {
            $logged = $shot->logged();
            try {
                $before = $now->inHand(BallInHand::None)->withLayout($logged->before);
                $now = Continuation::of($before, $logged->ball, $logged->kind, $logged->result)->rack;
            } catch (CoreError|InvalidFile) {
                return $now;
            }
        }

        return $now;
    }

    /**
     * @template T
     *
     * @param \Closure(): T $change
     *
     * @return T
     */
    private function changed(ShotRack $rack, \Closure $change): mixed
    {
        return $this->manager->wrapInTransaction(function () use ($rack, $change): mixed {
            // One after the other, whoever writes.
            $this->manager->lock($rack, LockMode::PESSIMISTIC_WRITE);
            $this->manager->refresh($rack);

            return $change();
        });
    }

    private static function conflict(string $message): ConflictHttpException
    {
        return new ConflictHttpException($message);
    }
}
