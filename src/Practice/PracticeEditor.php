<?php

declare(strict_types=1);

namespace ZigLane\App\Practice;

use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\DrillSession;
use ZigLane\App\Entity\DrillTry;
use ZigLane\App\Repository\DrillSessions;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Practice\SetUp;

/** Every change of a drill's session: each is one transaction, and an entry that comes twice counts once. */
final readonly class PracticeEditor
{
    private const MAX_NAME = 40;
    private const PLAYERS = 4;
    private const LATER = 12;
    /** Tries of a training at the most. */
    private const MOST = 1000;

    public function __construct(
        private EntityManagerInterface $manager,
        private DrillSessions $sessions,
        private DrillShelf $shelf,
        private ClockInterface $clock,
        private PracticeLog $learned,
    ) {
    }

    /**
     * A session begins; one that was begun with this id before is that one.
     *
     * @param list<string> $others the other players' names
     * @param list<string> $later  keys of the drills that follow
     *
     * @throws CoreError If the balls cannot be set up
     */
    public function begin(
        Account $owner,
        Uuid $id,
        ShelvedDrill $drill,
        int $level,
        bool $isScored,
        array $others = [],
        array $later = [],
    ): DrillSession {
        $begun = $this->sessions->ownedBy($owner, (string) $id);
        if (null !== $begun) {
            return $begun;
        }
        $level = max(0, min(\count($drill->file->drill->levels), $level));
        $seed = random_int(1, 0x3FFFFFFF);
        (new SetUp($drill->file->at($level), $owner->getEquipment()))->attempt($seed);
        $names = [];
        foreach ($others as $name) {
            $name = mb_substr(trim(mb_scrub($name)), 0, self::MAX_NAME);
            if ('' !== $name && \count($names) < self::PLAYERS - 1) {
                $names[] = $name;
            }
        }
        $players = [] === $names ? [] : [$owner->getName(), ...$names];
        $version = $this->shelf->version($drill->file);
        $session = new DrillSession($id, $owner, $version, $drill->key, $level, $isScored, $players, $seed, $this->clock->now());
        $session->followedBy(\array_slice(array_values(array_filter(
            $later,
            static fn (string $key): bool => 1 === preg_match('/^[a-z0-9-]{1,60}$/', $key),
        )), 0, self::LATER));
        $this->manager->persist($session);
        $this->manager->flush();

        return $session;
    }

    /**
     * A session that was played on another day, from a file.
     *
     * @param list<array{bool, array<int|string, array{float, float}>|null}> $tries whether each was done; where balls lay then, diamonds
     */
    public function record(Account $owner, ShelvedDrill $drill, \DateTimeImmutable $at, array $tries): DrillSession
    {
        $session = new DrillSession(Uuid::v7(), $owner, $this->shelf->version($drill->file), $drill->key, 0, true, [], 1, $at);
        $this->manager->persist($session);
        $played = [];
        foreach ($tries as $i => [$isDone, $after]) {
            $played[] = new DrillTry(Uuid::v7(), $session, $i + 1, 0, $isDone, null, null, $after, $at);
            $this->manager->persist($played[$i]);
        }
        $own = (new PlayedSession($session, $played))->series[0];
        $session->stand($own->score(), $own->tries, $at->modify('+'.$drill->file->drill->minutes.' minutes'));
        $this->manager->flush();

        return $session;
    }

    /**
     * @return bool false where this entry has been taken before
     *
     * @throws ConflictHttpException If it does not follow from what was entered
     */
    public function add(DrillSession $session, TryEntry $entry): bool
    {
        return $this->changed($session, function () use ($session, $entry): bool {
            $known = $this->sessions->try($entry->id);
            if (null !== $known) {
                return $known->getSession() === $session ? false : throw self::conflict('This entry belongs to another session.');
            }
            $tries = $this->sessions->tries($session);
            $last = [] === $tries ? null : $tries[\count($tries) - 1]->getId();
            if ((string) $last !== (string) $entry->previous) {
                throw self::conflict('This drill was played on another device meanwhile. Reload and enter it again where it belongs.');
            }
            $played = new PlayedSession($session, $tries);
            if (null !== $session->getEndedAt() || $played->isOver() || \count($tries) >= self::MOST) {
                throw self::conflict('This session has ended. Begin another.');
            }
            $try = new DrillTry(
                $entry->id, $session, \count($tries) + 1, $played->player(), $entry->isDone, $entry->made, $entry->opened, $entry->after,
                $this->clock->now(),
            );
            $this->manager->persist($try);
            $this->learned->add($session, $try);
            $this->stand($session, [...$tries, $try], false);

            return true;
        });
    }

    public function undo(DrillSession $session, string $id): void
    {
        $this->changed($session, function () use ($session, $id): void {
            $tries = $this->sessions->tries($session);
            $last = array_pop($tries);
            if (null !== $last && (string) $last->getId() === $id) {
                $this->manager->remove($last);
                $this->learned->undo($last);
                $this->stand($session, $tries, false);
            }
        });
    }

    public function end(DrillSession $session): void
    {
        $this->changed($session, fn () => $this->stand($session, $this->sessions->tries($session), true));
    }

    public function delete(DrillSession $session): void
    {
        $this->manager->remove($session);
        $this->manager->flush();
    }

    private static function conflict(string $message): ConflictHttpException
    {
        return new ConflictHttpException($message);
    }

    /** @param list<DrillTry> $tries */
    private function stand(DrillSession $session, array $tries, bool $ends): void
    {
        $played = new PlayedSession($session, $tries);
        $own = $played->series[0];
        $session->stand(
            $session->isScored() ? $own->score() : (float) $own->whole,
            $own->tries,
            $ends || $played->isOver() ? $this->clock->now() : null,
        );
    }

    /**
     * @template T
     *
     * @param \Closure(): T $change
     *
     * @return T
     */
    private function changed(DrillSession $session, \Closure $change): mixed
    {
        return $this->manager->wrapInTransaction(function () use ($session, $change): mixed {
            $this->manager->lock($session, LockMode::PESSIMISTIC_WRITE);
            $this->manager->refresh($session);

            return $change();
        });
    }
}
