<?php

declare(strict_types=1);

namespace ZigLane\App\Camera;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Analysis\PlanView;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\OwnTable;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Log\PlanAtTable;
use ZigLane\App\Repository\AccountRepository;
use ZigLane\App\Repository\RackSheetRepository;
use ZigLane\App\Repository\ShotLog;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Rules\Rack;

/**
 * What lies on the table of the demo's room: the sheet that the demo player changed last; or, while he shoots a rack, the balls as they lie
 * after the shot that he has just been told to play, simulated with his errors. The same shot always ends alike.
 */
final readonly class DemoTable
{
    public function __construct(
        private EntityManagerInterface $em,
        private AccountRepository $accounts,
        private RackSheetRepository $sheets,
        private ShotLog $log,
        private PlanAtTable $plans,
    ) {
    }

    /**
     * @param string $table the table that is looked at: each visitor of the demo has his own
     *
     * @return Rack|null null where nobody plays
     */
    public function rack(string $table = ''): ?Rack
    {
        // What others have written since the frame before.
        $this->em->clear();
        $owner = Uuid::isValid($table) ? $this->em->find(OwnTable::class, Uuid::fromString($table))?->getOwner() : null;
        $player = true === $owner?->isDemo() ? $owner : $this->accounts->byEmail(Account::DEMO_EMAIL);
        if (null === $player) {
            return null;
        }
        $sheet = $this->sheets->ofOwner($player, 1)[0] ?? null;
        $shooting = $this->log->openOf($player);

        return null !== $shooting && (null === $sheet || $shooting->getStartedAt() > $sheet->getUpdatedAt())
            ? $this->afterShot($shooting)
            : $sheet?->getRack();
    }

    private function afterShot(ShotRack $shooting): Rack
    {
        $now = $shooting->getNow();
        $number = $this->log->shotsOf($shooting);
        $plan = $this->plans->of($shooting, $number)[1] ?? null;
        $view = null === $plan ? null : new PlanView($plan, 0, 1);
        $place = $view?->plan->place;
        $layout = null === $place || $now->layout->has(Ball::Cue) ? $now->layout : $now->layout->with(Ball::Cue, $place);
        $strike = $view?->shot()?->strike;
        if (null === $strike || !$layout->has(Ball::Cue)) {
            return $now->withLayout($layout);
        }
        $random = new Randomness(crc32($shooting->getId().$number) & 0x7FFFFFFF);
        $played = $now->player->in($strike)->disturb($strike, $random, $now->equipment->balls->radius);

        return $now->withLayout((new EventSimulator($now->equipment))->play($layout, $played)->final);
    }
}
