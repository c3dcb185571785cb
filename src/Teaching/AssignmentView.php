<?php

declare(strict_types=1);

namespace ZigLane\App\Teaching;

use Doctrine\ORM\EntityManagerInterface;
use ZigLane\App\Drawing\PredictionDrawing;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Answer;
use ZigLane\App\Entity\Assignment;
use ZigLane\App\Entity\DrillSession;
use ZigLane\App\Practice\ParDesk;
use ZigLane\App\Repository\Assignments;
use ZigLane\App\Words\TipUnit;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Format\LessonItem;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Teaching\ItemKind;
use ZigLane\Core\Teaching\Prediction;

/** A lesson that was set, as pupil and coach see it: each thing with what came of it. */
final readonly class AssignmentView
{
    public function __construct(
        private LessonView $lessons,
        private Assignments $assignments,
        private ParDesk $pars,
        private EntityManagerInterface $manager,
    ) {
    }

    /**
     * @param bool $seesScores whether the reader may see what the pupil scored
     *
     * @return list<array<string, mixed>> as LessonView gives it, and of each: done (null: nothing to be done), sessions, par, answer, said,
     *                                    drawn
     */
    public function of(Assignment $assignment, bool $isUpright, TipUnit $tips, bool $seesScores): array
    {
        $lesson = $assignment->getLesson();
        $answers = $this->assignments->answers($assignment);
        $items = [];
        foreach ($this->lessons->of($lesson, $isUpright, $tips, $assignment->getPupil()->getEquipment()) as $i => $one) {
            $item = $lesson->items[$i];
            $sessions = null === $item->drill ? [] : $this->sessions($assignment, $item);
            $answer = $answers[$i] ?? null;
            $items[] = [...$one,
                'done' => match ($item->kind) {
                    ItemKind::Drill => [] !== $sessions,
                    ItemKind::Position => null !== $answer,
                    default => null,
                },
                'sessions' => $seesScores ? $sessions : [],
                'par' => $seesScores && null !== $item->drill ? $this->par($assignment->getPupil(), $item) : null,
                'answer' => $answer,
                'said' => null === $answer ? null : Prediction::fromArray($answer->getSaid()),
                'drawn' => null === $answer || null === $item->rack ? null : self::drawn($answer, $isUpright),
            ];
        }

        return $items;
    }

    /** @return list<DrillSession> scored ones of the drill as it was set, since it was set; the latest first */
    private function sessions(Assignment $assignment, LessonItem $item): array
    {
        /** @var list<DrillSession> $found */
        $found = $this->manager->createQuery(
            'SELECT s FROM '.DrillSession::class.' s WHERE s.owner = :pupil AND IDENTITY(s.version) = :hash AND s.isScored = true'
            .' AND s.endedAt IS NOT NULL AND s.startedAt >= :since ORDER BY s.startedAt DESC',
        )->setParameter('pupil', $assignment->getPupil()->getId(), 'uuid')->setParameter('hash', $item->drill?->hash())
            ->setParameter('since', $assignment->getSetAt())->setMaxResults(20)->getResult();

        return $found;
    }

    /** The mean score that was worked out for the pupil, or for the usual player; null where neither was. */
    private function par(Account $pupil, LessonItem $item): ?float
    {
        $known = null === $item->drill ? [] : $this->pars->known($pupil, $item->drill, $item->level);
        $par = $known[$this->pars->whose($pupil)] ?? $known[ParDesk::USUAL] ?? null;

        return null === $par || 0 === $par->getPar()->runs() ? null : $par->getPar()->mean();
    }

    /** Prediction and plan over each other, once it is scored. */
    private static function drawn(Answer $answer, bool $isUpright): ?PredictionDrawing
    {
        $score = $answer->getScore();
        if (null === $score || !\is_string($score['plan'] ?? null)) {
            return null;
        }
        try {
            $plan = PlanFile::parse($score['plan'])->best();
            $placed = $plan->placed();
            $solver = new ShotSolver($placed->equipment);
            $said = \is_array($score['stroke'] ?? null) ? RackFile::shotFromArray($score['stroke']) : null;

            return new PredictionDrawing(
                $placed,
                null === $said ? null : $solver->solve($placed->layout, $said),
                $solver->solve($placed->layout, $plan->choices()[0]),
                Prediction::fromArray($answer->getSaid())->spot,
                $isUpright,
            );
        } catch (CoreError) {
            return null;
        }
    }
}
