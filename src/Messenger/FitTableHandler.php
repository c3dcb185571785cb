<?php

declare(strict_types=1);

namespace ZigLane\App\Messenger;

use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Message\FitTable;
use ZigLane\App\Message\OfAccount;
use ZigLane\App\Repository\OwnTables;
use ZigLane\App\Work\LongWork;
use ZigLane\App\Work\Workbench;
use ZigLane\Core\Calibration\TableFitter;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\TableFile;
use ZigLane\Core\Format\TableFitFile;
use ZigLane\Core\Format\TableTestsFile;

/** Finds the constants of a table from its tests, and says how far it is. */
#[AsMessageHandler]
final readonly class FitTableHandler implements LongWork
{
    /** Progress is written down this often, as a share. */
    private const TOLD = 0.02;
    /** Seconds of a processor; the most tests on a slope take some three minutes. */
    private const LONGEST = 900.0;

    public function __construct(private OwnTables $tables, private Workbench $bench)
    {
    }

    public function __invoke(FitTable $message): void
    {
        $this->bench->work($message, self::LONGEST, fn () => $this->fit($message));
    }

    private function fit(FitTable $message): void
    {
        $id = Uuid::fromString($message->tableId);
        $table = $this->tables->find($id);
        $askedAt = $table?->getAskedAt();
        if (null === $table || null === $askedAt) {
            return;
        }
        [$name, $notes] = [$table->getName(), $table->getFile()->notes];
        $told = 0.0;
        $goesOn = function (float $share) use ($id, &$told): bool {
            $this->bench->beat();
            if ($share < $told + self::TOLD) {
                return true;
            }
            $told = $share;

            return $this->tables->progress($id, $share);
        };
        try {
            $file = TableTestsFile::parse($table->getTestsFile());
            $fit = (new TableFitter($file->base, $file->tests, $goesOn))->fit();
        } catch (CoreError) {
            $this->tables->finish($id, $askedAt, null);

            return;
        }
        $profile = json_decode((new TableFile($name, $fit->equipment, $notes))->write(), true);
        $this->tables->finish($id, $askedAt, [...TableFitFile::toArray($fit), 'profile' => $profile, 'tests' => \count($file->tests)]);
    }

    public static function message(): string
    {
        return FitTable::class;
    }

    public function giveUp(OfAccount $message, Fact $why): void
    {
        $id = Uuid::fromString($message->about());
        $askedAt = $this->tables->find($id)?->getAskedAt();
        if (null !== $askedAt) {
            $this->tables->finish($id, $askedAt, null);
        }
    }
}
