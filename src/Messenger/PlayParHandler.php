<?php

declare(strict_types=1);

namespace ZigLane\App\Messenger;

use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\DrillPar;
use ZigLane\App\Message\OfAccount;
use ZigLane\App\Message\PlayPar;
use ZigLane\App\Repository\DrillPars;
use ZigLane\App\Work\LongWork;
use ZigLane\App\Work\ProcessorTime;
use ZigLane\App\Work\Workbench;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Practice\Par;
use ZigLane\Core\Practice\ParRuns;
use ZigLane\Core\Shot\ShotSolver;

/** Plays a drill by simulated players, and says how far it is. */
#[AsMessageHandler]
final readonly class PlayParHandler implements LongWork
{
    /** A par that takes longer is kept with the runs that it has, seconds of a processor. */
    private const LONGEST = 300.0;

    public function __construct(private DrillPars $pars, private Workbench $bench)
    {
    }

    public function __invoke(PlayPar $message): void
    {
        $this->bench->work($message, 2 * self::LONGEST, fn () => $this->play($message));
    }

    private function play(PlayPar $message): void
    {
        $id = Uuid::fromString($message->parId);
        $par = $this->pars->find($id);
        if (null === $par || null !== $par->getEndedAt()) {
            return;
        }
        $drill = $par->getVersion()->getFile()->at($par->getLevel());
        $runs = new ParRuns($drill, new ShotSolver($par->getEquipment()), $par->getPlayer());
        // Blocks that were played before a worker ended are not played again.
        $sum = new Par($par->getPar()->scores, $drill->pass);
        $had = 0.0;
        try {
            for ($block = intdiv($sum->runs(), ParRuns::BLOCK); $sum->runs() < DrillPar::RUNS && $had < self::LONGEST; ++$block) {
                $since = ProcessorTime::seconds();
                $scores = $runs->block($block, after: function () use (&$had, &$since): void {
                    $had += ProcessorTime::seconds() - $since;
                    $this->bench->beat();
                    $since = ProcessorTime::seconds();
                });
                $sum = Par::sum([$sum->scores, $scores], $drill->pass);
                $this->pars->stand($id, $sum->scores);
            }
            $choice = $runs->first()?->choice;
            $this->pars->finish(
                $id,
                $sum->scores,
                0.0 === $sum->mean() ? $runs->why() : null,
                null === $choice ? null : RackFile::shotToArray($choice),
            );
        } catch (CoreError) {
            // The balls cannot be set up on this table.
            $this->pars->finish($id, ['0' => 1], 'setUp', null);
        }
    }

    public static function message(): string
    {
        return PlayPar::class;
    }

    public function giveUp(OfAccount $message, Fact $why): void
    {
        $id = Uuid::fromString($message->about());
        $par = $this->pars->find($id);
        if (null !== $par) {
            // The runs that were played stand.
            $this->pars->reload($par);
            $this->pars->finish($id, $par->getPar()->scores, null, null);
        }
    }
}
