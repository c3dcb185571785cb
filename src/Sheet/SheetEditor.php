<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Doctrine\ORM\OptimisticLockException;
use Psr\Clock\ClockInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\LayoutStep;
use ZigLane\App\Entity\OwnTable;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Message\EraseSheet;
use ZigLane\App\Repository\RackSheetRepository;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\RuleOptions;
use ZigLane\Core\Rules\Standing;
use ZigLane\Core\Shot\ShotChoice;

/** Every change of a sheet: each is one transaction, kept whole or not at all. */
final readonly class SheetEditor
{
    /** Layouts that undo can go back to. */
    public const HISTORY = 200;

    /** Sheets of an account, and of one who looks round. */
    private const MOST = 5000;
    private const MOST_OF_VISITOR = 200;

    public function __construct(
        private EntityManagerInterface $manager,
        private RackSheetRepository $sheets,
        private ClockInterface $clock,
        private Trash $trash,
    ) {
    }

    /**
     * A new sheet; the same submission posted again gives the sheet that it made before.
     *
     * @param list<ShotChoice> $later the legs after the first
     *
     * @throws Refused If the account has as many as it may
     */
    public function create(
        Account $owner, string $name, Rack $rack, Uuid $submission, ?ShotChoice $shot = null,
        array $later = [], ?OwnTable $table = null,
    ): RackSheet {
        $made = $this->sheets->ofSubmission($owner, $submission);
        if (null !== $made) {
            return $made;
        }
        $most = $owner->isDemo() ? self::MOST_OF_VISITOR : self::MOST;
        if ($this->sheets->countOf($owner) >= $most) {
            throw Refused::because('tooManySheets', ['most' => $most]);
        }
        $sheet = new RackSheet($owner, $name, $rack, $submission, $this->clock->now());
        $sheet->onTable($table);
        if (null !== $shot) {
            $sheet->keepLegs([$shot, ...$later], $this->clock->now());
        }
        $this->manager->persist($sheet);
        $this->manager->persist(new LayoutStep($sheet, 0, $rack));
        try {
            $this->manager->flush();
        } catch (UniqueConstraintViolationException $e) {
            throw new StaleSheet($e);
        }

        return $sheet;
    }

    /** @param int $version that the page was drawn from */
    public function layOut(RackSheet $sheet, Layout $layout, int $version): void
    {
        // Before the transaction: an impossible layout is refused without touching anything.
        $this->step($sheet, $sheet->getRack()->withLayout($layout), $version);
    }

    /** Other choices of the rules, and what stands before the shot; a step of the history like any other. */
    public function ruledBy(RackSheet $sheet, RuleOptions $rules, Standing $standing, int $version): void
    {
        $rack = $sheet->getRack()->withRules($rules)->withStanding($standing);
        $this->step($sheet, $rack, $version);
    }

    /** What a break left, with the cue ball in hand or a push-out where the rules give it. */
    public function afterBreak(RackSheet $sheet, Rack $rack, int $version): void
    {
        $this->step($sheet, $rack, $version);
    }

    /** The rack on another table, or on the same as it is now: a step of the history. */
    public function onTable(RackSheet $sheet, OwnTable $table, int $version): void
    {
        $sheet->onTable($table);
        $this->step($sheet, $sheet->getRack()->onTable($table->getEquipment()), $version);
    }

    private function step(RackSheet $sheet, Rack $rack, int $version): void
    {
        $this->change($sheet, $version, function () use ($sheet, $rack): void {
            $number = $sheet->getStep() + 1;
            $this->sheets->keepSteps($sheet, $number - self::HISTORY, $sheet->getStep());
            $sheet->layOut($rack, $number, $this->clock->now());
            $this->manager->persist(new LayoutStep($sheet, $number, $rack));
        });
    }

    /** Goes back or forward in the history; at its end nothing changes. */
    public function goTo(RackSheet $sheet, int $number, int $version): void
    {
        $step = $this->sheets->step($sheet, $number);
        if (null !== $step) {
            $rack = $step->getRack()->withPlayer($sheet->getRack()->player);
            $this->change($sheet, $version, fn () => $sheet->layOut($rack, $number, $this->clock->now()));
        }
    }

    /** Sets one leg of the run, the next one at most; the legs after it stay. */
    public function call(RackSheet $sheet, ShotChoice $shot, int $version, int $leg = 1): void
    {
        $this->change($sheet, $version, function () use ($sheet, $shot, $leg): void {
            $legs = $sheet->getLegs();
            $legs[min($leg - 1, \count($legs))] = $shot;
            $sheet->keepLegs(array_values($legs), $this->clock->now());
        });
    }

    /**
     * The whole run at once.
     *
     * @param list<ShotChoice> $legs
     */
    public function keepLegs(RackSheet $sheet, array $legs, int $version): void
    {
        $this->change($sheet, $version, fn () => $sheet->keepLegs($legs, $this->clock->now()));
    }

    /** Takes a leg and all after it off the run. */
    public function cutBack(RackSheet $sheet, int $version, int $leg): void
    {
        $this->change($sheet, $version, fn () => $sheet->keepLegs(\array_slice($sheet->getLegs(), 0, $leg - 1), $this->clock->now()));
    }

    /** The player that odds are worked out for; undo does not take it back. */
    public function playedBy(RackSheet $sheet, ExecutionErrors $player, int $version): void
    {
        $this->change($sheet, $version, fn () => $sheet->playedBy($player, $this->clock->now()));
    }

    public function rename(RackSheet $sheet, string $name): void
    {
        $sheet->rename($name, $this->clock->now());
        $this->manager->flush();
    }

    public function delete(RackSheet $sheet): void
    {
        $this->trash->put($sheet, new EraseSheet((string) $sheet->getId()));
    }

    public function restore(RackSheet $sheet): void
    {
        $this->trash->restore($sheet);
    }

    /** @param \Closure(): void $change */
    private function change(RackSheet $sheet, int $version, \Closure $change): void
    {
        try {
            $this->manager->wrapInTransaction(function () use ($sheet, $version, $change): void {
                $this->manager->lock($sheet, LockMode::OPTIMISTIC, $version);
                $change();
            });
        } catch (OptimisticLockException|UniqueConstraintViolationException $e) {
            throw new StaleSheet($e);
        }
    }
}
