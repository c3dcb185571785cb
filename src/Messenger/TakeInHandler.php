<?php

declare(strict_types=1);

namespace ZigLane\App\Messenger;

use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Translation\LocaleSwitcher;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Account\AccountReader;
use ZigLane\App\Language\PageWords;
use ZigLane\App\Message\OfAccount;
use ZigLane\App\Message\TakeIn;
use ZigLane\App\Repository\Imports;
use ZigLane\App\Words\Refused;
use ZigLane\App\Words\Words;
use ZigLane\App\Work\LongWork;
use ZigLane\App\Work\Workbench;
use ZigLane\Core\Fact\Fact;

/** Takes a file into an account, some racks at a time, and says how far it is. */
#[AsMessageHandler]
final readonly class TakeInHandler implements LongWork
{
    private const TOLD = 0.01;
    /** Seconds of a processor; 200,000 shots take about ten minutes. */
    private const LONGEST = 3600.0;

    public function __construct(
        private Imports $imports,
        private AccountReader $reader,
        private Workbench $bench,
        private Words $words,
        private LocaleSwitcher $switcher,
    ) {
    }

    public function __invoke(TakeIn $message): void
    {
        $this->bench->work($message, self::LONGEST, fn () => $this->take(Uuid::fromString($message->importId)));
    }

    private function take(Uuid $id): void
    {
        $job = $this->imports->find($id);
        if (null === $job || !$job->isOpen()) {
            return;
        }
        [$owner, $isLog, $language] = [$job->getOwner()->getId(), $job->isLog(), $job->getOwner()->getLanguage() ?: PageWords::ENGLISH];
        $path = (string) tempnam(sys_get_temp_dir(), 'lane-import');
        $told = 0.0;
        $progress = function (float $share) use ($id, &$told): void {
            $this->bench->beat();
            if ($share > $told + self::TOLD) {
                $told = $share;
                $this->imports->progress($id, $share);
            }
        };
        try {
            $this->imports->unpack($id, $path);
            $answer = $isLog ? $this->reader->log($owner, $path, $progress) : $this->reader->zip($owner, $path, $progress);
        } catch (Refused $e) {
            $answer = [
                'taken' => [],
                'failed' => [$this->switcher->runWithLocale($language, fn (): string => $this->words->error($e))],
            ];
        } finally {
            unlink($path);
        }
        $this->imports->finish($id, $answer);
    }

    public static function message(): string
    {
        return TakeIn::class;
    }

    public function giveUp(OfAccount $message, Fact $why): void
    {
        $this->imports->finish(Uuid::fromString($message->about()), null);
    }
}
