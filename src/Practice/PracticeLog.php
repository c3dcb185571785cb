<?php

declare(strict_types=1);

namespace ZigLane\App\Practice;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\DrillSession;
use ZigLane\App\Entity\DrillTry;
use ZigLane\App\Entity\Shot;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Log\LogEditor;
use ZigLane\App\Repository\ShotLog;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Log\LoggedShot;
use ZigLane\Core\Log\RackKind;
use ZigLane\Core\Log\RackResult;
use ZigLane\Core\Log\ShotKind;
use ZigLane\Core\Log\ShotResult;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Practice\Drill;
use ZigLane\Core\Practice\SetUp;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/**
 * The player's log learns from drills: tries of a pot whose stroke the drill tells (tip and speed), from a set-up that is always the same.
 * Of other drills nobody knows what stroke was meant.
 */
final readonly class PracticeLog
{
    public function __construct(private EntityManagerInterface $manager, private LogEditor $editor, private ShotLog $log)
    {
    }

    /** In the transaction of the try; its id is the shot's. */
    public function add(DrillSession $session, DrillTry $try): void
    {
        $drill = $session->getDrill();
        $shot = 0 === $try->getPlayer() ? $this->shot($drill, $try, $session->getOwner()->getEquipment()) : null;
        if (null === $shot) {
            return;
        }
        $id = Uuid::v5($session->getId(), 'log');
        $rack = $this->manager->find(ShotRack::class, $id);
        if (null === $rack) {
            $start = new Rack(Game::StraightPool, $shot->before, $session->getOwner()->getEquipment());
            $rack = $this->editor->begin($session->getOwner(), $id, $start, RackKind::Drill);
            $rack->endBy(RackResult::Left);
        }
        $this->manager->persist(new Shot($try->getId(), $rack, $this->log->shotsOf($rack) + 1, $shot, $try->getAt()));
    }

    public function undo(DrillTry $try): void
    {
        $shot = $this->log->shot($try->getId());
        if (null !== $shot) {
            $this->manager->remove($shot);
        }
    }

    private function shot(Drill $drill, DrillTry $try, Equipment $equipment): ?LoggedShot
    {
        $choice = $drill->suggested();
        if (null === $choice || !$drill->isFixed() || $drill->before > 0) {
            return null;
        }
        $solver = new ShotSolver($equipment);
        try {
            $layout = (new SetUp($drill, $solver->equipment))->of(1);
            $solved = $solver->solve($layout, $choice);
        } catch (CoreError) {
            return null;
        }
        $after = Layout::empty();
        $cue = $try->getAfter()['cue'] ?? null;
        if (null !== $cue) {
            $after = $after->with(Ball::Cue, Spot::diamonds($cue[0], $cue[1], $solver->equipment->table));
        }

        return new LoggedShot(
            (string) $try->getId(),
            $try->getAt(),
            ShotKind::Pot,
            $solver->equipment,
            $layout,
            $choice->ball,
            $choice->pocket,
            $solved->strike,
            null === $solved->scratch() ? $solved->outcome->trajectory(Ball::Cue)->last() : null,
            null,
            null,
            null,
            null,
            new ShotResult($try->isDone(), null, false, null, false, false, null, $after),
        );
    }
}
