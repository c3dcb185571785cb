<?php

declare(strict_types=1);

namespace ZigLane\App\Teaching;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Assignment;
use ZigLane\App\Entity\Lesson;
use ZigLane\App\Entity\Membership;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Practice\DrillShelf;
use ZigLane\App\Repository\Lessons;
use ZigLane\App\Repository\PlanJobRepository;
use ZigLane\App\Repository\RackSheetRepository;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Format\LessonFile;
use ZigLane\Core\Format\LessonItem;
use ZigLane\Core\Teaching\ItemKind;
use ZigLane\Core\Teaching\Question;

/** Lessons of a coach: written, put together of drills, positions and runs, and set to pupils. */
final readonly class LessonDesk
{
    private const MOST = 300;
    private const MOST_SET = 200;

    public function __construct(
        private Lessons $lessons,
        private DrillShelf $shelf,
        private RackSheetRepository $sheets,
        private PlanJobRepository $jobs,
        private EntityManagerInterface $manager,
        private ClockInterface $clock,
    ) {
    }

    public function keep(Account $owner, LessonFile $file): Lesson
    {
        if (\count($this->lessons->all($owner)) >= self::MOST) {
            throw Refused::because('tooManyLessons', ['most' => self::MOST]);
        }
        $lesson = new Lesson($owner, $file, $this->clock->now());
        $this->manager->persist($lesson);
        $this->manager->flush();

        return $lesson;
    }

    public function change(Lesson $lesson, LessonFile $file): void
    {
        $lesson->change($file, $this->clock->now());
        $this->manager->flush();
    }

    public static function name(string $name): string
    {
        $name = trim(mb_scrub($name));

        return '' !== $name && mb_strlen($name) <= LessonFile::MAX_NAME
            ? $name
            : throw Refused::because('lessonName', ['most' => LessonFile::MAX_NAME]);
    }

    /** One more thing: of a kind, with words, and where it is one a drill of his shelf or a sheet of his. */
    public function add(Lesson $lesson, ItemKind $kind, string $text, string $of, ?Question $question): void
    {
        $file = $lesson->getFile();
        if (\count($file->items) >= LessonFile::MAX_ITEMS) {
            throw Refused::because('lessonFull', ['most' => LessonFile::MAX_ITEMS]);
        }
        $text = self::text($text);
        $item = match ($kind) {
            ItemKind::Text => '' === trim($text) ? throw Refused::because('noText') : LessonItem::words($text),
            ItemKind::Drill => LessonItem::drill($this->shelf->drill($lesson->getOwner(), $of)->file, 0, $text),
            ItemKind::Position => LessonItem::position($this->sheet($lesson, $of)->getRack(), $question ?? Question::Plan, $text),
            ItemKind::Plan => LessonItem::run(
                $this->jobs->latestOf($this->sheet($lesson, $of))?->getPlan() ?? throw Refused::because('noPlanYet'),
                $text,
            ),
        };
        $this->change($lesson, $file->withItems([...$file->items, $item->named(bin2hex(random_bytes(6)))]));
    }

    /** Other words of a thing; or it goes up, down or away. */
    public function edit(Lesson $lesson, string $id, string $what, string $text): void
    {
        $file = $lesson->getFile();
        $items = $file->items;
        $number = $file->place($id) ?? throw Refused::because('noItem');
        $item = $items[$number];
        switch ($what) {
            case 'text':
                $items[$number] = $item->withText(self::text($text));
                break;
            case 'up':
            case 'down':
                $other = $number + ('up' === $what ? -1 : 1);
                if (isset($items[$other])) {
                    [$items[$number], $items[$other]] = [$items[$other], $item];
                }
                break;
            case 'away':
                array_splice($items, $number, 1);
                break;
            default:
                throw Refused::because('noItem');
        }
        $this->change($lesson, $file->withItems(array_values($items)));
    }

    public function delete(Lesson $lesson, bool $isGone): void
    {
        $isGone ? $lesson->delete($this->clock->now()) : $lesson->restore();
        $this->manager->flush();
    }

    /** @return Assignment the lesson as it is now, to be done by a day */
    public function set(Lesson $lesson, Membership $membership, ?\DateTimeImmutable $dueOn, string $note): Assignment
    {
        $file = $lesson->getFile();
        if ([] === $file->items) {
            throw Refused::because('emptyLesson');
        }
        if (!$membership->isThere() || $membership->getGroup()->getCoach() !== $lesson->getOwner()) {
            throw Refused::because('notConnected');
        }
        $open = $this->manager->getRepository(Assignment::class)->count(
            ['membership' => $membership, 'doneAt' => null, 'withdrawnAt' => null],
        );
        if ($open >= self::MOST_SET) {
            throw Refused::because('tooManySet', ['most' => self::MOST_SET]);
        }
        $assignment = new Assignment($membership, $file, $dueOn, mb_substr(trim(mb_scrub($note)), 0, 500), $this->clock->now());
        $this->manager->persist($assignment);
        $this->manager->flush();

        return $assignment;
    }

    public function finish(Assignment $assignment, bool $isDone): void
    {
        $assignment->finish($isDone ? $this->clock->now() : null);
        $this->manager->flush();
    }

    public function withdraw(Assignment $assignment): void
    {
        $assignment->withdraw($this->clock->now());
        $this->manager->flush();
    }

    private function sheet(Lesson $lesson, string $id): RackSheet
    {
        return $this->sheets->ownedBy($lesson->getOwner(), $id) ?? throw Refused::because('noSheet');
    }

    private static function text(string $text): string
    {
        $text = str_replace("\r\n", "\n", mb_scrub($text));

        return mb_strlen($text) <= LessonFile::MAX_TEXT ? $text : throw Refused::because('lessonText', ['most' => LessonFile::MAX_TEXT]);
    }
}
