<?php

declare(strict_types=1);

namespace ZigLane\App\Messenger;

use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Message\FindBreak;
use ZigLane\App\Message\OfAccount;
use ZigLane\App\Repository\BreakJobs;
use ZigLane\App\Work\LongWork;
use ZigLane\App\Work\Workbench;
use ZigLane\Core\Breaking\BreakSearch;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Shot\ShotSolver;

/** Looks for the break that brings a player the most run-outs, and says how far it is. */
#[AsMessageHandler]
final readonly class FindBreakHandler implements LongWork
{
    private const TOLD = 0.02;
    /** Seconds of a processor; a search takes half a minute. */
    private const LONGEST = 600.0;

    public function __construct(private BreakJobs $jobs, private Workbench $bench)
    {
    }

    public function __invoke(FindBreak $message): void
    {
        $this->bench->work($message, self::LONGEST, fn () => $this->search($message));
    }

    private function search(FindBreak $message): void
    {
        $id = Uuid::fromString($message->jobId);
        $job = $this->jobs->find($id);
        if (null === $job || null !== $job->getEndedAt()) {
            return;
        }
        $told = 0.0;
        $progress = function (float $share) use ($id, &$told): void {
            $this->bench->beat();
            if ($share > $told + self::TOLD) {
                $told = $share;
                $this->jobs->progress($id, $share);
            }
        };
        try {
            $solver = new ShotSolver($job->getEquipment());
            $search = new BreakSearch($job->getGame(), $job->getPlayer(), $solver, fastest: $job->getFastest());
            $answer = [];
            foreach ($search->find(1, $progress) as [$stroke, $tally]) {
                $answer[] = [
                    'stroke' => $stroke->toArray(), 'runOut' => round($tally->runOut(), 4), 'error' => round($tally->runOutError(), 4),
                    'goesOn' => round($tally->share($tally->goesOn)[0], 3), 'scratch' => round($tally->share($tally->scratches)[0], 3),
                ];
            }
            $this->jobs->finish($id, $answer);
        } catch (CoreError) {
            $this->jobs->finish($id, null);
        }
    }

    public static function message(): string
    {
        return FindBreak::class;
    }

    public function giveUp(OfAccount $message, Fact $why): void
    {
        $this->jobs->finish(Uuid::fromString($message->about()), null);
    }
}
