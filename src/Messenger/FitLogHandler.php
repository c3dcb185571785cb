<?php

declare(strict_types=1);

namespace ZigLane\App\Messenger;

use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Log\LogReader;
use ZigLane\App\Message\FitLog;
use ZigLane\App\Message\OfAccount;
use ZigLane\App\Practice\ParDesk;
use ZigLane\App\Repository\LogFits;
use ZigLane\App\Work\LongWork;
use ZigLane\App\Work\Workbench;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Fit\LogFitter;
use ZigLane\Core\Format\FitFile;
use ZigLane\Core\Plan\Gains;

/** Fits a player's errors to his log, and says how far it is. */
#[AsMessageHandler]
final readonly class FitLogHandler implements LongWork
{
    /** Racks that are rehearsed for what is worth practising, and the share of the work before that. */
    private const RACKS = 5;
    private const FITTING = 0.6;
    /** Seconds of a processor; a log of the most shots takes some two minutes. */
    private const LONGEST = 900.0;

    public function __construct(private LogFits $fits, private LogReader $log, private ParDesk $pars, private Workbench $bench)
    {
    }

    public function __invoke(FitLog $message): void
    {
        $this->bench->work($message, self::LONGEST, fn () => $this->fit($message));
    }

    private function fit(FitLog $message): void
    {
        $id = Uuid::fromString($message->fitId);
        $job = $this->fits->find($id);
        if (null === $job || null !== $job->getEndedAt()) {
            return;
        }
        $log = $this->log->latest($job->getOwner(), LogFitter::MOST);
        if ([] === $log->shots()) {
            $this->fits->finish($id, null);

            return;
        }
        $told = 0.0;
        $tell = function (float $share) use ($id, &$told): void {
            $this->bench->beat();
            if ($share > $told + 0.02) {
                $told = $share;
                $this->fits->progress($id, $share);
            }
        };
        $fit = LogFitter::of($log, 1, $job->getHalfLife(), static fn (float $share) => $tell(self::FITTING * $share));
        $answer = FitFile::toArray($fit);
        $gains = Gains::of(
            $this->log->recentRacks($job->getOwner(), self::RACKS),
            FitFile::player($answer),
            progress: static fn (float $share) => $tell(self::FITTING + (1 - self::FITTING) * $share),
        );
        $this->fits->finish($id, $answer + ['gains' => $gains]);
        // What he scored is held against the errors that are known now.
        $fitted = $this->fits->find($id);
        if (null !== $fitted) {
            $this->fits->reload($fitted);
            $this->pars->askForScored($fitted->getOwner());
        }
    }

    public static function message(): string
    {
        return FitLog::class;
    }

    public function giveUp(OfAccount $message, Fact $why): void
    {
        $this->fits->finish(Uuid::fromString($message->about()), null);
    }
}
