<?php

declare(strict_types=1);

namespace ZigLane\App\Sharing;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Comment;
use ZigLane\App\Entity\DrillSession;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\ShareKind;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Entity\ThreadKind;
use ZigLane\App\Repository\Comments;
use ZigLane\App\Repository\Groups;
use ZigLane\App\Repository\Shares;
use ZigLane\App\Words\Refused;

/**
 * Threads of comments. Who may read one: the owner of the sheet, the rack or the practice; the coach whom its owner lets see it; and to
 * whom a sheet is shown by name, who writes where he may comment. Asked at every request: who has left reads no more.
 */
final readonly class ThreadDesk
{
    private const MOST = 10_000;
    private const MOST_MARKS = 20;
    private const MOST_POINTS = 40;
    /** What a coach must be let see of each. */
    private const SIGHTS = ['sheet' => 'sheets', 'rack' => 'log', 'practice' => 'scores'];

    public function __construct(
        private Comments $comments,
        private Shares $shares,
        private Groups $groups,
        private ShareDesk $desk,
        private EntityManagerInterface $manager,
        private ClockInterface $clock,
    ) {
    }

    /**
     * What somebody may do with a thread.
     *
     * @return array{RackSheet|ShotRack|DrillSession, bool}|null the thing, and whether he may write; null where it does not exist for him
     */
    public function access(Account $reader, ThreadKind $thread, string $subject): ?array
    {
        if (!Uuid::isValid($subject)) {
            return null;
        }
        $class = match ($thread) {
            ThreadKind::Sheet => RackSheet::class,
            ThreadKind::Rack => ShotRack::class,
            ThreadKind::Practice => DrillSession::class,
        };
        $thing = $this->manager->find($class, Uuid::fromString($subject));
        if (null === $thing || (!$thing instanceof DrillSession && $thing->isDeleted())) {
            return null;
        }
        $owner = $thing->getOwner();
        if ($owner === $reader) {
            return [$thing, true];
        }
        if ($this->groups->sees($reader, $owner, self::SIGHTS[$thread->value])) {
            return [$thing, true];
        }
        $best = null;
        foreach ($thing instanceof RackSheet ? [ShareKind::Sheet, ShareKind::Plan] : [] as $kind) {
            $share = $this->shares->between($owner, $reader, $kind, $subject);
            if (null !== $share && null !== $this->desk->shown($share)) {
                $best = null === $best || $share->getLevel()->mayComment() ? $share->getLevel() : $best;
            }
        }

        return null === $best ? null : [$thing, $best->mayComment()];
    }

    /** @param array<mixed> $marks as the page sends them: kind and points in diamonds */
    public function write(Account $author, ThreadKind $thread, Uuid $subject, int $place, string $text, array $marks): Comment
    {
        $text = trim(str_replace("\r\n", "\n", mb_scrub($text)));
        $marks = self::marks($marks);
        if (('' === $text && [] === $marks) || mb_strlen($text) > Comment::MAX_TEXT) {
            throw Refused::because('comment', ['most' => Comment::MAX_TEXT]);
        }
        if ($this->comments->howMany($thread, $subject) >= self::MOST) {
            throw Refused::because('tooManyComments', ['most' => self::MOST]);
        }
        $comment = new Comment($thread, $subject, $author, max(0, min(500, $place)), $text, $marks, $this->clock->now());
        $this->manager->persist($comment);
        $this->manager->flush();
        $this->comments->see($author, $subject, $this->clock->now()->modify('+1 second'));

        return $comment;
    }

    public function remove(Comment $comment): void
    {
        $comment->remove($this->clock->now());
        $this->manager->flush();
    }

    /**
     * @param array<mixed> $marks
     *
     * @return list<array{kind: string, points: list<array{float, float}>}>
     */
    private static function marks(array $marks): array
    {
        $read = [];
        foreach (\array_slice(array_values($marks), 0, self::MOST_MARKS) as $mark) {
            $kind = \is_array($mark) ? $mark['kind'] ?? null : null;
            $least = ['spot' => 1, 'arrow' => 2, 'zone' => 3][\is_string($kind) ? $kind : ''] ?? null;
            $points = [];
            foreach (
                \is_array($mark) && \is_array($mark['points'] ?? null) ? \array_slice($mark['points'], 0, self::MOST_POINTS) : [] as $point
            ) {
                if (\is_array($point) && is_numeric($point[0] ?? null) && is_numeric($point[1] ?? null)) {
                    $points[] = [round(max(-0.5, min(8.5, (float) $point[0])), 3), round(max(-0.5, min(4.5, (float) $point[1])), 3)];
                }
            }
            if (null !== $least && \is_string($kind) && \count($points) >= $least) {
                $read[] = ['kind' => $kind, 'points' => $points];
            }
        }

        return $read;
    }
}
