<?php

declare(strict_types=1);

namespace ZigLane\App\Sharing;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Lesson;
use ZigLane\App\Entity\OwnDrill;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\Share;
use ZigLane\App\Entity\ShareKind;
use ZigLane\App\Entity\ShareLevel;
use ZigLane\App\Practice\DrillShelf;
use ZigLane\App\Repository\Groups;
use ZigLane\App\Repository\Lessons;
use ZigLane\App\Repository\RackSheetRepository;
use ZigLane\App\Repository\Shares;
use ZigLane\App\Repository\ShotLog;
use ZigLane\App\Sheet\SheetEditor;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Player\ExecutionErrors;

/** Shows things of an account to others, and takes them back. */
final readonly class ShareDesk
{
    private const MOST = 500;

    public function __construct(
        private Shares $shares,
        private Groups $groups,
        private RackSheetRepository $sheets,
        private DrillShelf $shelf,
        private Lessons $lessons,
        private ShotLog $log,
        private SheetEditor $editor,
        private EntityManagerInterface $manager,
        private ClockInterface $clock,
    ) {
    }

    /** Something of an account's own; null where there is none, or no more. */
    public function thing(Account $owner, ShareKind $kind, string $subject): ?SharedThing
    {
        switch ($kind) {
            case ShareKind::Sheet:
            case ShareKind::Plan:
                $sheet = $this->sheets->ownedBy($owner, $subject);

                return null === $sheet ? null : new SharedThing($kind, $subject, $sheet->getName(), sheet: $sheet);
            case ShareKind::Drill:
            case ShareKind::Card:
                try {
                    $drill = $this->shelf->drill($owner, $subject);
                } catch (NotFoundHttpException) {
                    return null;
                }

                return new SharedThing($kind, $subject, $drill->file->drill->name, drill: $drill);
            case ShareKind::Lesson:
                $lesson = $this->lessons->ownedBy($owner, $subject);

                return null === $lesson ? null : new SharedThing($kind, $subject, $lesson->getName(), lesson: $lesson);
            case ShareKind::Day:
                $day = Uuid::isValid($subject) ? $this->log->find(Uuid::fromString($subject)) : null;

                return $day?->getOwner() === $owner
                    ? new SharedThing($kind, $subject, trim($day->getPlayedOn()->format('Y-m-d').' '.$day->getPlace()), day: $day)
                    : null;
        }
    }

    /** By a link where there is no grantee. What was shared with him before is changed. */
    public function share(Account $owner, SharedThing $thing, ?Account $grantee, ShareLevel $level, ?\DateTimeImmutable $endsOn): Share
    {
        if (null === $grantee && ShareKind::Day === $thing->kind) {
            throw Refused::because('logByLink');
        }
        if (null !== $grantee && !$this->groups->areConnected($owner, $grantee)) {
            throw Refused::because('notConnected');
        }
        if (null !== $endsOn && $endsOn->format('Y-m-d') < $this->clock->now()->format('Y-m-d')) {
            throw Refused::because('shareEnded');
        }
        $share = null === $grantee ? null : $this->shares->between($owner, $grantee, $thing->kind, $thing->subject);
        if (null !== $share) {
            $share->change($level, $endsOn);
        } else {
            if (\count($this->shares->all($owner)) >= self::MOST) {
                throw Refused::because('tooManyShares', ['most' => self::MOST]);
            }
            $share = new Share($owner, $thing->kind, $thing->subject, $grantee, $level, $this->clock->now(), $endsOn);
            $this->manager->persist($share);
        }
        $this->manager->flush();

        return $share;
    }

    public function withdraw(Share $share): void
    {
        $share->withdraw($this->clock->now());
        $this->manager->flush();
    }

    /** What a share shows now; null where it is withdrawn or over, the thing is gone, or the two have parted. */
    public function shown(Share $share): ?SharedThing
    {
        $grantee = $share->getGrantee();
        $isOpen = $share->isOpen($this->clock->now()) && null === $share->getOwner()->getDeletedAt()
            && (null === $grantee || $this->groups->areConnected($share->getOwner(), $grantee));

        return $isOpen ? $this->thing($share->getOwner(), $share->getKind(), $share->getSubject()) : null;
    }

    /** The copy of what was shown is the reader's own, without its owner's errors: a sheet, a drill or a lesson. */
    public function copy(Account $reader, SharedThing $thing): RackSheet|OwnDrill|Lesson
    {
        if (null !== $thing->sheet) {
            return $this->editor->create(
                $reader, $thing->name, $thing->sheet->getRack()->withPlayer(new ExecutionErrors()), Uuid::v4(),
                $thing->sheet->getShot(), \array_slice($thing->sheet->getLegs(), 1),
            );
        }
        if (null !== $thing->drill) {
            return $this->shelf->keep($reader, $thing->drill->file);
        }
        if (null !== $thing->lesson) {
            $copy = new Lesson($reader, $thing->lesson->getFile(), $this->clock->now());
            $this->manager->persist($copy);
            $this->manager->flush();

            return $copy;
        }
        throw Refused::because('notToCopy');
    }
}
