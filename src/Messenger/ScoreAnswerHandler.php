<?php

declare(strict_types=1);

namespace ZigLane\App\Messenger;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Answer;
use ZigLane\App\Message\OfAccount;
use ZigLane\App\Message\ScoreAnswer;
use ZigLane\App\Work\LongWork;
use ZigLane\App\Work\Workbench;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Teaching\Prediction;
use ZigLane\Core\Teaching\PredictionScore;

/** Scores a prediction: what it loses against the best plan, with the plan itself to be laid over it. */
#[AsMessageHandler]
final readonly class ScoreAnswerHandler implements LongWork
{
    private const TRIES = 160;
    /** Seconds of a processor; an answer takes six to eight. */
    private const LONGEST = 120.0;

    public function __construct(private EntityManagerInterface $manager, private ClockInterface $clock, private Workbench $bench)
    {
    }

    public function __invoke(ScoreAnswer $message): void
    {
        $this->bench->work($message, self::LONGEST, fn () => $this->score($message));
    }

    private function score(ScoreAnswer $message): void
    {
        $answer = $this->manager->find(Answer::class, Uuid::fromString($message->answerId));
        if (null === $answer || $answer->isScored()) {
            return;
        }
        $item = $answer->getAssignment()->getLesson()->items[$answer->getItem()] ?? null;
        if (null === $item || null === $item->rack) {
            return;
        }
        try {
            $said = Prediction::fromArray($answer->getSaid());
            $score = PredictionScore::of($item->rack->rack, $said, self::TRIES, beat: $this->bench->beat(...));
            $told = [
                'chance' => $score->chance, 'best' => $score->best, 'lost' => $score->lost, 'error' => $score->error, 'tries' => $score->tries,
                'inBalls' => $score->isInBalls, 'plan' => (new PlanFile([$score->plan]))->write(),
                'stroke' => null === $score->stroke ? null : RackFile::shotToArray($score->stroke),
            ];
        } catch (CoreError) {
            $told = null;
        }
        // Loaded again: the work may have been put aside for others' in between.
        $answer = $this->manager->find(Answer::class, $answer->getId());
        if (null !== $answer) {
            $answer->scored($told, $this->clock->now());
            $this->manager->flush();
        }
    }

    public static function message(): string
    {
        return ScoreAnswer::class;
    }

    public function giveUp(OfAccount $message, Fact $why): void
    {
        $answer = $this->manager->find(Answer::class, Uuid::fromString($message->about()));
        if (null !== $answer && !$answer->isScored()) {
            $answer->scored(null, $this->clock->now());
            $this->manager->flush();
        }
    }
}
