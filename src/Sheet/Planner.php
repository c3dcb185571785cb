<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Symfony\Component\Messenger\MessageBusInterface;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\JobKind;
use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Message\WorkOnPlan;
use ZigLane\App\Repository\PlanJobRepository;
use ZigLane\App\Words\Words;
use ZigLane\App\Work\FairShare;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Rack;

/** Asks for plans and stops them. Two workers work on each; a sheet has one plan under way at the most. */
final readonly class Planner
{
    private const WORKERS = 2;
    /** Plans of an account under way. The demo player is everybody who looks round. */
    private const MOST = 4;
    private const MOST_OF_DEMO = 2;
    /** Seconds of the workers that an account may have in an hour: two plans a minute, all the while. */
    private const BUDGET = 2400.0;
    private const BUDGET_OF_DEMO = 1200.0;

    public function __construct(
        private EntityManagerInterface $manager,
        private PlanJobRepository $jobs,
        private MessageBusInterface $bus,
        private ClockInterface $clock,
        private ErrorSource $errors,
        private FairShare $share,
        private Words $words,
        #[Autowire('%env(int:LANE_PLAN_SECONDS)%')]
        private int $longest,
    ) {
    }

    /**
     * A plan of a sheet; one that is still worked on is replaced.
     *
     * @param bool $isBounded whether the account's limits count
     *
     * @throws TooManyRequestsHttpException If too many plans of the account are under way, or it has had its share of the last hour
     */
    public function ask(RackSheet $sheet, PlanRequest $request, bool $isBounded = true): PlanJob
    {
        // The errors that the player's log shows, once it says enough and unless he refuses.
        $player = $this->errors->toPlanWith($sheet->getOwner());
        if (null !== $player && $player != $sheet->getRack()->player) {
            $sheet->playedBy($player, $this->clock->now());
        }
        $job = new PlanJob(
            $sheet,
            $request->rack($sheet->getRack()),
            $request->constraints(),
            $request->weights(),
            $request->isOwn ? $sheet->getLegs() : $request->locked($sheet),
            $this->seconds($request->seconds),
            $request->seed,
            $this->clock->now(),
        );
        $sheet->getOwner()->planWith($job->getWeights());

        return $this->work($job, $sheet->getOwner(), function () use ($sheet): void {
            $this->jobs->endOf($sheet);
            $this->jobs->prune($sheet);
        }, $isBounded);
    }

    /**
     * The rest of a rack at the table, from where the balls lie now. An evening at the table is not counted against the hour, but no more
     * plans are under way than of any account.
     *
     * @return PlanJob|null null where as many are under way as may be: the rack is shot without a plan then
     */
    public function askAt(ShotRack $rack, Rack $now, int $afterShots): ?PlanJob
    {
        $this->jobs->stopAt($rack);
        if ($this->jobs->underWay($rack->getOwner()) >= self::most($rack->getOwner())) {
            return null;
        }

        return $this->work($this->jobAt($rack, $now, $afterShots), $rack->getOwner(), function () use ($rack): void {
            $this->jobs->stopAt($rack);
            $this->jobs->pruneAt($rack);
        }, false);
    }

    /** A plan at the table that is known: it takes the place of what was planned from there. */
    public function settleAt(ShotRack $rack, PlanFile $plan, int $afterShots): PlanJob
    {
        $job = $this->jobAt($rack, $plan->best()->rack, $afterShots)->settled($plan, $this->clock->now());
        $this->manager->wrapInTransaction(function () use ($job, $rack): void {
            $this->manager->lock($rack->getOwner(), LockMode::PESSIMISTIC_WRITE);
            $this->jobs->stopAt($rack);
            $this->manager->persist($job);
        });

        return $job;
    }

    /** The time of a plan, seconds: what was asked for, or the most that the site allows. */
    private function seconds(int $asked): int
    {
        return min($asked, $this->longest);
    }

    private function jobAt(ShotRack $rack, Rack $now, int $afterShots): PlanJob
    {
        $weights = $rack->getOwner()->getWeights()->toArray();

        return new PlanJob(
            null,
            $now,
            ['forbidden' => [], 'before' => []],
            $weights,
            [],
            $this->seconds(PlanRequest::SECONDS),
            1 + $afterShots,
            $this->clock->now(),
            $rack,
            $afterShots,
        );
    }

    /**
     * The options of the position of a sheet.
     *
     * @param ExecutionErrors|null $opponent  null: one like the player himself
     * @param bool                 $isBounded whether the account's limits count
     *
     * @throws TooManyRequestsHttpException As `ask`
     */
    public function weigh(RackSheet $sheet, ?ExecutionErrors $opponent, bool $isBounded = true): PlanJob
    {
        $player = $this->errors->toPlanWith($sheet->getOwner()) ?? $sheet->getRack()->player;
        $rack = $sheet->getRack()->withPlayer($player);
        if (!$rack->layout->has(Ball::Cue) && BallInHand::None === $rack->ballInHand) {
            $rack = $rack->inHand(BallInHand::Anywhere);
        }
        $job = $this->optionsJob($sheet, $rack, null, null)->against($opponent ?? $player);

        return $this->work($job, $sheet->getOwner(), function () use ($sheet): void {
            $this->jobs->endOf($sheet, JobKind::Options);
            $this->jobs->prune($sheet, JobKind::Options);
        }, $isBounded);
    }

    /** The same of a rack at the table, from where the balls lie now. */
    public function weighAt(ShotRack $rack, int $afterShots, ?ExecutionErrors $opponent): PlanJob
    {
        $job = $this->optionsJob(null, $rack->getNow(), $rack, $afterShots)->against($opponent ?? $rack->getNow()->player);

        return $this->work($job, $rack->getOwner(), function () use ($rack): void {
            $this->jobs->stopAt($rack, JobKind::Options);
            $this->jobs->pruneAt($rack, JobKind::Options);
        }, true);
    }

    private function optionsJob(?RackSheet $sheet, Rack $rack, ?ShotRack $shotRack, ?int $afterShots): PlanJob
    {
        return new PlanJob(
            $sheet,
            $rack,
            ['forbidden' => [], 'before' => []],
            [],
            [],
            $this->seconds(PlanRequest::SECONDS),
            1,
            $this->clock->now(),
            $shotRack,
            $afterShots,
        );
    }

    /** @param \Closure(): void $replace ends what this one replaces */
    private function work(PlanJob $job, Account $owner, \Closure $replace, bool $isBounded): PlanJob
    {
        $this->manager->wrapInTransaction(function () use ($job, $owner, $replace, $isBounded): void {
            // One after the other, however many are asked for at once.
            $this->manager->lock($owner, LockMode::PESSIMISTIC_WRITE);
            $replace();
            if ($isBounded) {
                $this->bound($owner);
            }
            $this->manager->persist($job);
            $this->manager->flush();
            for ($i = 0; $i < self::WORKERS; ++$i) {
                $this->bus->dispatch(new WorkOnPlan((string) $job->getId(), $owner->party()));
            }
        });

        return $job;
    }

    private static function most(Account $owner): int
    {
        return $owner->isDemo() ? self::MOST_OF_DEMO : self::MOST;
    }

    /** @throws TooManyRequestsHttpException */
    private function bound(Account $owner): void
    {
        $most = self::most($owner);
        if ($this->jobs->underWay($owner) >= $most) {
            throw new TooManyRequestsHttpException(
                10,
                $this->words->said('refused.tooManyPlans', ['most' => $most]),
            );
        }
        if ($this->share->inAnHour($owner->party()) >= ($owner->isDemo() ? self::BUDGET_OF_DEMO : self::BUDGET)) {
            throw new TooManyRequestsHttpException(
                600,
                'Your plans have had their share of the workers for this hour. Come back a little later; everything else goes on.',
            );
        }
    }

    public function stop(RackSheet $sheet, JobKind $kind = JobKind::Plan): void
    {
        $job = $this->jobs->latestOf($sheet, $kind);
        if (null !== $job) {
            $this->jobs->stop($job);
        }
    }
}
