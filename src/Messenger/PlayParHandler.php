<?php

declare(strict_types=1);

namespace ZigLane\App\Messenger;

use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\DrillPar;
use ZigLane\App\Message\PlayPar;
use ZigLane\App\Repository\DrillPars;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Practice\Par;
use ZigLane\Core\Practice\ParRuns;
use ZigLane\Core\Shot\ShotSolver;

/** Plays a drill by simulated players, and says how far it is. */
#[AsMessageHandler]
final readonly class PlayParHandler
{
    /** A par that takes longer is kept with the runs that it has, seconds. */
    private const LONGEST = 300.0;

    public function __construct(private DrillPars $pars)
    {
    }

    public function __invoke(PlayPar $message): void
    {
        $id = Uuid::fromString($message->parId);
        $par = $this->pars->find($id);
        if (null === $par || null !== $par->getEndedAt()) {
            return;
        }
        $drill = $par->getVersion()->getFile()->at($par->getLevel());
        $runs = new ParRuns($drill, new ShotSolver($par->getEquipment()), $par->getPlayer());
        $end = microtime(true) + self::LONGEST;
        $sum = new Par([], $drill->pass);
        try {
            for ($block = 0; $sum->runs() < DrillPar::RUNS && (0 === $block || microtime(true) < $end); ++$block) {
                $sum = Par::sum([$sum->scores, $runs->block($block)], $drill->pass);
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
}
