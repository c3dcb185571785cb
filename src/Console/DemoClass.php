<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Answer;
use ZigLane\App\Entity\Assignment;
use ZigLane\App\Entity\LogFitJob;
use ZigLane\App\Entity\Membership;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\ShareKind;
use ZigLane\App\Entity\ShareLevel;
use ZigLane\App\Entity\ThreadKind;
use ZigLane\App\Log\LogImport;
use ZigLane\App\Message\FitLog;
use ZigLane\App\Message\ScoreAnswer;
use ZigLane\App\Practice\DrillShelf;
use ZigLane\App\Repository\RackSheetRepository;
use ZigLane\App\Sharing\ShareDesk;
use ZigLane\App\Sharing\ThreadDesk;
use ZigLane\App\Sheet\Planner;
use ZigLane\App\Sheet\PlanRequest;
use ZigLane\App\Sheet\SheetEditor;
use ZigLane\App\Teaching\GroupDesk;
use ZigLane\App\Teaching\LessonDesk;
use ZigLane\Core\Format\LessonFile;
use ZigLane\Core\Format\LessonItem;
use ZigLane\Core\Format\LogFile;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Teaching\Prediction;
use ZigLane\Core\Teaching\Question;

/** The demo player coaches: three pupils with six weeks of drills (tools/demo-pupils.php), a lesson, work that is set, comments. */
final readonly class DemoClass
{
    private const WORDS = [
        "# Three balls, one idea\n\nThe cue ball moves **least** where each shot leaves the next one nearly straight.\n\n"
            ."- Look at the *last* ball first: where must you be for it?\n- Then the one before: which side of its line?\n"
            .'- Only then the first shot.',
        'Ten balls, and only the ones that stop dead count. Do not go on before it feels dull.',
        'Where must the cue ball stop, so that the next ball is easy? Say it before you look at any plan.',
    ];

    public function __construct(
        private EntityManagerInterface $manager,
        private ClockInterface $clock,
        private GroupDesk $groups,
        private LessonDesk $lessons,
        private DrillShelf $shelf,
        private DemoPractice $practice,
        private SheetEditor $editor,
        private RackSheetRepository $sheets,
        private ShareDesk $shares,
        private ThreadDesk $threads,
        private Planner $planner,
        private LogImport $import,
        private MessageBusInterface $bus,
        #[Autowire('%kernel.project_dir%/demo')]
        private string $folder,
    ) {
    }

    /** @param bool $isScored whether the workers score what was predicted, and plan what is shown */
    public function teach(Account $coach, bool $isScored): void
    {
        $group = $this->groups->make($coach, 'Thursday evening');
        $all = json_decode((string) file_get_contents($this->folder.'/pupils.json'), true, 12, \JSON_THROW_ON_ERROR);
        $sheet = $this->sheets->ofOwner($coach, 100)[0] ?? null;
        $position = null;
        foreach ($this->sheets->ofOwner($coach, 100) as $one) {
            $position = str_contains($one->getName(), 'Last two') ? $one : $position;
        }
        $position ??= $sheet;
        $lesson = $this->lessons->keep($coach, new LessonFile('Three balls, one idea', [
            LessonItem::words(self::WORDS[0]),
            LessonItem::drill($this->shelf->drill($coach, 'dead-stop')->file, 0, self::WORDS[1]),
            ...(null === $position ? [] : [LessonItem::position($position->getRack(), Question::CueBall, self::WORDS[2])]),
        ]));
        $this->lessons->keep($coach, new LessonFile('Up and home', [
            LessonItem::words('Speed is a thing of the *arm*, not of the eye.'),
            LessonItem::drill($this->shelf->drill($coach, 'up-and-home')->file),
        ]));
        $number = 0;
        foreach (\is_array($all) ? $all : [] as $name => $sessions) {
            $pupil = $this->pupil((string) $name, \is_array($sessions) ? $sessions : []);
            $log = $this->folder.'/'.strtolower((string) $name).'.log.json';
            if (is_file($log)) {
                $this->logged($pupil, (string) file_get_contents($log), $isScored);
            }
            $sees = ['scores' => true, 'sheets' => 0 === $number, 'log' => 0 === $number, 'errors' => 0 === $number];
            $membership = $this->groups->join($group, $pupil, $sees);
            $assignment = $this->lessons->set(
                $lesson, $membership, $this->clock->now()->modify(
                    [2 => '+5 days', 1 => '-2 days', 0 => '+1 day'][$number] ?? '+3 days',
                )->setTime(0, 0),
                0 === $number ? 'You are nearly there: this time without looking at the plan first.' : '',
            );
            if (0 === $number) {
                $this->answered($assignment, $position, $isScored);
                $this->shown($pupil, $membership, $isScored);
            }
            ++$number;
        }
    }

    /** @param array<mixed> $sessions */
    private function pupil(string $name, array $sessions): Account
    {
        $pupil = new Account('demo-'.strtolower($name).'@zig-lane.invalid', $name, $this->clock->now()->modify('-43 days'));
        $this->manager->persist($pupil);
        $this->manager->flush();
        $last = min([42, ...$this->practice->record($pupil, $sessions, 18, 30)]);
        $pupil->isHere($this->clock->now()->modify("-$last days"));
        $this->manager->flush();

        return $pupil;
    }

    /** What he shot (tools/demo-log.php), and his errors found in it by a worker. */
    private function logged(Account $pupil, string $log, bool $isFitted): void
    {
        $this->import->take($pupil, LogFile::parse($log));
        if ($isFitted) {
            $fit = new LogFitJob($pupil, $pupil->getHalfLife(), $this->clock->now());
            $this->manager->persist($fit);
            $this->manager->flush();
            $this->bus->dispatch(new FitLog((string) $fit->getId(), (string) $pupil->getId()));
        }
    }

    private function answered(Assignment $assignment, ?RackSheet $position, bool $isScored): void
    {
        $rack = $position?->getRack();
        if (null === $rack) {
            return;
        }
        $said = new Prediction($rack->objectBalls()[0] ?? Ball::One, Pocket::FootLeft, Spot::diamonds(5.5, 1.5, $rack->equipment->table));
        $answer = new Answer($assignment, 2, $said->toArray(), $this->clock->now()->modify('-1 day'));
        $this->manager->persist($answer);
        $this->manager->flush();
        if ($isScored) {
            $this->bus->dispatch(new ScoreAnswer((string) $answer->getId(), (string) $assignment->getPupil()->getId()));
        }
    }

    /** A sheet of the pupil's, shown to his coach, with what the two said of it. */
    private function shown(Account $pupil, Membership $membership, bool $isPlanned): void
    {
        $coach = $membership->getGroup()->getCoach();
        $first = $this->sheets->ofOwner($coach, 1)[0] ?? null;
        if (null === $first) {
            return;
        }
        $sheet = $this->editor->create($pupil, 'Lost at the 7', $first->getRack(), Uuid::v4());
        if ($isPlanned) {
            $this->planner->ask($sheet, new PlanRequest(), false);
        }
        $thing = $this->shares->thing($pupil, ShareKind::Plan, (string) $sheet->getId());
        if (null !== $thing) {
            $this->shares->share($pupil, $thing, $coach, ShareLevel::Comment, null);
        }
        $this->threads->write($pupil, ThreadKind::Sheet, $sheet->getId(), 0, 'I never know which side of the 7 to be on here.', []);
        $this->threads->write(
            $coach, ThreadKind::Sheet, $sheet->getId(), 0,
            'Look at the 8 first. From up here you come across its line, and any speed does; from below you have an inch.',
            [['kind' => 'zone', 'points' => [[2.2, 2.6], [3.4, 2.3], [3.6, 3.2], [2.4, 3.5]]], ['kind' => 'arrow', 'points' => [[4.4, 1.4], [3.0, 2.8]]]],
        );
    }
}
