<?php

declare(strict_types=1);

namespace ZigLane\App\Repository;

use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\DBAL\Connection;
use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Doctrine\Persistence\ManagerRegistry;
use Psr\Clock\ClockInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\JobKind;
use ZigLane\App\Entity\JobPlace;
use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\PlanState;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\ShotRack;

/**
 * Plan jobs, and what workers do to them. Each change is one statement that says from which state it may be made, so it does not matter
 * how many workers act at once, nor whether one of them dies.
 *
 * @extends ServiceEntityRepository<PlanJob>
 */
final class PlanJobRepository extends ServiceEntityRepository
{
    private const LIVE = [
        PlanState::Waiting->value, PlanState::Working->value, PlanState::Stopping->value, PlanState::Writing->value,
    ];
    /** How long a worker may take for a block before another may take it, seconds; a block takes one or two. */
    private const LEASE = 20;
    /** A job that nobody has finished a block of for so long has been put aside, seconds. */
    private const PAUSE = 3;
    /** How long the last plans of a rack that is over stay, seconds: its end can be taken back. */
    private const OVER = 86400;
    /** Plans of a sheet that are kept. */
    private const KEPT = 3;
    /** How long a worker may take to write the plans down. */
    private const WRITING = 120;

    public function __construct(ManagerRegistry $registry, private readonly ClockInterface $clock)
    {
        parent::__construct($registry, PlanJob::class);
    }

    public function latestOf(RackSheet $sheet, JobKind $kind = JobKind::Plan): ?PlanJob
    {
        return $this->findOneBy(['sheet' => $sheet, 'kind' => $kind], ['id' => 'DESC']);
    }

    /** The latest plan for a rack at the table after so many shots; null where none was asked for. */
    public function latestAt(ShotRack $rack, int $afterShots, JobKind $kind = JobKind::Plan): ?PlanJob
    {
        return $this->findOneBy(['shotRack' => $rack, 'afterShots' => $afterShots, 'kind' => $kind], ['id' => 'DESC']);
    }

    /** Ends whatever is still worked on for a rack at the table, without another plan: the balls lie elsewhere by now. */
    public function stopAt(ShotRack $rack, JobKind $kind = JobKind::Plan): void
    {
        $this->endWhere(JobPlace::ShotRack, $rack->getId(), $kind);
    }

    /** Ends whatever is still worked on for a sheet, without another plan: a newer one replaces it. */
    public function endOf(RackSheet $sheet, JobKind $kind = JobKind::Plan): void
    {
        $this->endWhere(JobPlace::Sheet, $sheet->getId(), $kind);
    }

    /** Forgets finished plans of a sheet but the newest few. */
    public function prune(RackSheet $sheet, JobKind $kind = JobKind::Plan): void
    {
        $this->pruneWhere(JobPlace::Sheet, $sheet->getId(), $kind);
    }

    /** The same of a rack at the table: who takes a shot back finds the plan of before. */
    public function pruneAt(ShotRack $rack, JobKind $kind = JobKind::Plan): void
    {
        $this->pruneWhere(JobPlace::ShotRack, $rack->getId(), $kind);
    }

    private function pruneWhere(JobPlace $place, Uuid $id, JobKind $kind): void
    {
        // By their own ids: what is looked for is not locked.
        foreach ($this->connection()->fetchFirstColumn(
            "SELECT id FROM plan_job WHERE {$place->value} = ? AND kind = ? AND state IN (?, ?)"
            ." AND id < (SELECT id FROM plan_job WHERE {$place->value} = ? AND kind = ? ORDER BY id DESC LIMIT 1 OFFSET ".(self::KEPT - 1).')',
            [$id->toBinary(), $kind->value, PlanState::Done->value, PlanState::Nothing->value, $id->toBinary(), $kind->value],
        ) as $old) {
            $this->execute('DELETE FROM plan_job WHERE id = ?', [$old]);
        }
    }

    /** Forgets the plans of racks that are over: what was planned for a shot stands with the shot. */
    public function forgetOver(): void
    {
        $this->execute(
            'DELETE j FROM plan_job j JOIN shot_rack r ON r.id = j.shot_rack_id WHERE r.ended_by IS NOT NULL AND j.created_at < ?',
            [$this->time(-self::OVER)],
        );
    }

    /** How many plans of an account are under way. */
    public function underWay(Account $owner): int
    {
        $count = $this->connection()->fetchOne(
            'SELECT (SELECT COUNT(*) FROM plan_job j JOIN rack_sheet s ON s.id = j.sheet_id'
            .' WHERE s.owner_id = ? AND j.state IN (?, ?, ?, ?))'
            .' + (SELECT COUNT(*) FROM plan_job j JOIN shot_rack r ON r.id = j.shot_rack_id'
            .' WHERE r.owner_id = ? AND j.state IN (?, ?, ?, ?))',
            [$owner->getId()->toBinary(), ...self::LIVE, $owner->getId()->toBinary(), ...self::LIVE],
        );

        return is_numeric($count) ? (int) $count : 0;
    }

    /** The job as it is now; null if it is gone with its sheet. */
    public function fresh(Uuid $id): ?PlanJob
    {
        $this->getEntityManager()->clear();

        return $this->find($id);
    }

    /** The ways to begin are known. */
    public function begin(PlanJob $job, int $candidates, int $blocks): void
    {
        $this->execute(
            'UPDATE plan_job SET candidates = ?, due_blocks = ? WHERE id = ? AND candidates IS NULL',
            [$candidates, $blocks, $job->getId()->toBinary()],
        );
    }

    /** Whether a job was ended or is gone, as the database has it now: for whoever is in the middle of work for it. */
    public function isOver(Uuid $id): bool
    {
        $state = $this->connection()->fetchOne('SELECT state FROM plan_job WHERE id = ?', [$id->toBinary()]);

        return !\is_string($state) || PlanState::from($state)->isOver();
    }

    /** The clock of the job runs from the first worker on; true for that one. */
    public function start(PlanJob $job): bool
    {
        return 1 === $this->execute(
            'UPDATE plan_job SET started_at = ?, state = ? WHERE id = ? AND state = ?',
            [$this->time(), PlanState::Working->value, $job->getId()->toBinary(), PlanState::Waiting->value],
        );
    }

    /** The clock of a job stands still while every worker on it has made way for others' work. */
    public function resume(PlanJob $job): void
    {
        $now = $this->time();
        $this->execute(
            'UPDATE plan_job SET started_at = DATE_ADD(started_at, INTERVAL TIMESTAMPDIFF(MICROSECOND, active_at, ?) MICROSECOND),'
            .' active_at = ? WHERE id = ? AND started_at IS NOT NULL AND active_at < ?',
            [$now, $now, $job->getId()->toBinary(), $this->time(-self::PAUSE)],
        );
    }

    /** Takes a block, if nobody has it. */
    public function take(PlanJob $job, int $candidate, int $block): bool
    {
        $key = [$job->getId()->toBinary(), $candidate, $block];
        try {
            $this->execute(
                'INSERT INTO plan_block (job_id, candidate, block, taken_until) VALUES (?, ?, ?, ?)',
                [...$key, $this->time(self::LEASE)],
            );

            return true;
        } catch (UniqueConstraintViolationException) {
            return 1 === $this->execute(
                'UPDATE plan_block SET taken_until = ?'
                .' WHERE job_id = ? AND candidate = ? AND block = ? AND replays IS NULL AND taken_until < ?',
                [$this->time(self::LEASE), ...$key, $this->time()],
            );
        }
    }

    /**
     * Writes a block down, once.
     *
     * @param array<mixed> $came of it, as its JobSearch gives it
     */
    public function finish(PlanJob $job, int $candidate, int $block, array $came): void
    {
        $id = $job->getId()->toBinary();
        $changed = $this->execute(
            'UPDATE plan_block SET replays = ? WHERE job_id = ? AND candidate = ? AND block = ? AND replays IS NULL',
            [json_encode($came, \JSON_THROW_ON_ERROR), $id, $candidate, $block],
        );
        if (1 === $changed) {
            $this->execute('UPDATE plan_job SET done_blocks = done_blocks + 1, active_at = ? WHERE id = ?', [$this->time(), $id]);
        }
    }

    /** @return list<array<int, array<mixed>>> the blocks that are done, by candidate and block */
    public function done(PlanJob $job, int $candidates): array
    {
        $done = array_fill(0, $candidates, []);
        foreach ($this->connection()->fetchAllAssociative(
            'SELECT candidate, block, replays FROM plan_block WHERE job_id = ? AND replays IS NOT NULL ORDER BY candidate, block',
            [$job->getId()->toBinary()],
        ) as $row) {
            /** @var array{candidate: int|string, block: int|string, replays: string} $row */
            $numbers = json_decode($row['replays'], true, 16, \JSON_THROW_ON_ERROR);
            $done[(int) $row['candidate']][(int) $row['block']] = \is_array($numbers) ? $numbers : [];
        }

        return $done;
    }

    /** A better plan while the work goes on. */
    public function draw(PlanJob $job, string $plan): void
    {
        $this->execute(
            'UPDATE plan_job SET plan = ?, drawn = drawn + 1 WHERE id = ? AND state = ?',
            [$plan, $job->getId()->toBinary(), PlanState::Working->value],
        );
    }

    /** A person asks to stop. */
    public function stop(PlanJob $job): void
    {
        $this->execute(
            'UPDATE plan_job SET state = ? WHERE id = ? AND state IN (?, ?)',
            [PlanState::Stopping->value, $job->getId()->toBinary(), PlanState::Waiting->value, PlanState::Working->value],
        );
    }

    /** Whether this worker is the one to write the plans down; one that died while it did is replaced. */
    public function mayWrite(PlanJob $job): bool
    {
        return 1 === $this->execute(
            'UPDATE plan_job SET state = ?, ended_at = ? WHERE id = ? AND (state IN (?, ?) OR (state = ? AND ended_at < ?))',
            [
                PlanState::Writing->value, $this->time(), $job->getId()->toBinary(),
                PlanState::Working->value, PlanState::Stopping->value, PlanState::Writing->value,
                $this->time(-self::WRITING),
            ],
        );
    }

    public function write(PlanJob $job, string $plan): void
    {
        $this->execute(
            'UPDATE plan_job SET state = ?, plan = ?, drawn = drawn + 1, ended_at = ? WHERE id = ? AND state = ?',
            [PlanState::Done->value, $plan, $this->time(), $job->getId()->toBinary(), PlanState::Writing->value],
        );
        $this->execute('DELETE FROM plan_block WHERE job_id = ?', [$job->getId()->toBinary()]);
    }

    public function nothing(PlanJob $job, string $message): void
    {
        $this->execute(
            'UPDATE plan_job SET state = ?, message = ?, drawn = drawn + 1, ended_at = ? WHERE id = ? AND state NOT IN (?, ?)',
            [
                PlanState::Nothing->value, mb_substr($message, 0, 255), $this->time(),
                $job->getId()->toBinary(), PlanState::Done->value, PlanState::Nothing->value,
            ],
        );
    }

    /** Seconds since the first worker began. */
    public function secondsOf(PlanJob $job): float
    {
        $started = $job->getStartedAt();

        return null === $started ? 0.0 : (float) $this->clock->now()->format('U.u') - (float) $started->format('U.u');
    }

    private function endWhere(JobPlace $place, Uuid $id, JobKind $kind): void
    {
        $this->execute(
            "UPDATE plan_job SET state = ?, ended_at = ? WHERE {$place->value} = ? AND kind = ? AND state IN (?, ?, ?)",
            [
                PlanState::Done->value, $this->time(), $id->toBinary(), $kind->value, PlanState::Waiting->value, PlanState::Working->value,
                PlanState::Stopping->value,
            ],
        );
    }

    /** @param list<mixed> $values */
    private function execute(string $sql, array $values): int
    {
        return (int) $this->connection()->executeStatement($sql, $values);
    }

    private function connection(): Connection
    {
        return $this->getEntityManager()->getConnection();
    }

    private function time(int $later = 0): string
    {
        return $this->clock->now()->modify(\sprintf('%+d seconds', $later))->format('Y-m-d H:i:s.u');
    }
}
