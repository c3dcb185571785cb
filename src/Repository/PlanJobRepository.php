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
use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\PlanState;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\ShotRack;
use ZigLane\Core\Plan\Tally;

/**
 * Plan jobs, and what workers do to them. Each change is one statement that says from which state it may be made, so it does not matter
 * how many workers act at once, nor whether one of them dies.
 *
 * @extends ServiceEntityRepository<PlanJob>
 *
 * @phpstan-import-type Numbers from Tally
 */
final class PlanJobRepository extends ServiceEntityRepository
{
    /** How long a worker may take for a block before another may take it, seconds; a block takes one or two. */
    private const LEASE = 20;
    /** Plans of a sheet that are kept. */
    private const KEPT = 3;
    /** How long a worker may take to write the plans down. */
    private const WRITING = 30;

    public function __construct(ManagerRegistry $registry, private readonly ClockInterface $clock)
    {
        parent::__construct($registry, PlanJob::class);
    }

    public function latestOf(RackSheet $sheet): ?PlanJob
    {
        return $this->findOneBy(['sheet' => $sheet], ['id' => 'DESC']);
    }

    /** The latest plan for a rack at the table after so many shots; null where none was asked for. */
    public function latestAt(ShotRack $rack, int $afterShots): ?PlanJob
    {
        return $this->findOneBy(['shotRack' => $rack, 'afterShots' => $afterShots], ['id' => 'DESC']);
    }

    /** Ends whatever is still worked on for a rack at the table, without another plan: the balls lie elsewhere by now. */
    public function stopAt(ShotRack $rack): void
    {
        $this->endWhere('shot_rack_id', $rack->getId());
    }

    /** Ends whatever is still worked on for a sheet, without another plan: a newer one replaces it. */
    public function endOf(RackSheet $sheet): void
    {
        $this->endWhere('sheet_id', $sheet->getId());
    }

    /** Forgets finished plans of a sheet but the newest few: each may take a megabyte. */
    public function prune(RackSheet $sheet): void
    {
        $id = $sheet->getId()->toBinary();
        $this->execute(
            'DELETE FROM plan_job WHERE sheet_id = ? AND state IN (?, ?)'
            .' AND id < (SELECT id FROM (SELECT id FROM plan_job WHERE sheet_id = ?'
            .' ORDER BY id DESC LIMIT 1 OFFSET '.(self::KEPT - 1).') newest)',
            [$id, PlanState::Done->value, PlanState::Nothing->value, $id],
        );
    }

    /** How many plans of an account are under way, and how many it asked for in the last hour. */
    public function load(Account $owner): PlanLoad
    {
        $row = $this->connection()->fetchNumeric(
            'SELECT COALESCE(SUM(j.state IN (?, ?, ?, ?)), 0), COALESCE(SUM(j.created_at > ?), 0) FROM plan_job j'
            .' LEFT JOIN rack_sheet s ON s.id = j.sheet_id LEFT JOIN shot_rack r ON r.id = j.shot_rack_id'
            .' WHERE COALESCE(s.owner_id, r.owner_id) = ?',
            [
                PlanState::Waiting->value,
                PlanState::Working->value,
                PlanState::Stopping->value,
                PlanState::Writing->value,
                $this->time(-3600),
                $owner->getId()->toBinary(),
            ],
        );
        $count = static fn (mixed $value): int => is_numeric($value) ? (int) $value : 0;

        return new PlanLoad($count($row[0] ?? 0), $count($row[1] ?? 0));
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

    /** Writes a block down, once. */
    public function finish(PlanJob $job, int $candidate, int $block, Tally $tally): void
    {
        $id = $job->getId()->toBinary();
        $changed = $this->execute(
            'UPDATE plan_block SET replays = ? WHERE job_id = ? AND candidate = ? AND block = ? AND replays IS NULL',
            [json_encode($tally->toArray(), \JSON_THROW_ON_ERROR), $id, $candidate, $block],
        );
        if (1 === $changed) {
            $this->execute('UPDATE plan_job SET done_blocks = done_blocks + 1 WHERE id = ?', [$id]);
        }
    }

    /** @return list<array<int, Tally>> the blocks that are done, by candidate and block */
    public function done(PlanJob $job, int $candidates): array
    {
        $done = array_fill(0, $candidates, []);
        foreach ($this->connection()->fetchAllAssociative(
            'SELECT candidate, block, replays FROM plan_block WHERE job_id = ? AND replays IS NOT NULL ORDER BY candidate, block',
            [$job->getId()->toBinary()],
        ) as $row) {
            /** @var array{candidate: int|string, block: int|string, replays: string} $row */
            /** @var Numbers $numbers */
            $numbers = json_decode($row['replays'], true, 16, \JSON_THROW_ON_ERROR);
            $done[(int) $row['candidate']][(int) $row['block']] = Tally::fromArray($numbers);
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

    /** @param 'sheet_id'|'shot_rack_id' $column */
    private function endWhere(string $column, Uuid $id): void
    {
        $this->execute(
            "UPDATE plan_job SET state = ?, ended_at = ? WHERE {$column} = ? AND state IN (?, ?, ?)",
            [
                PlanState::Done->value, $this->time(), $id->toBinary(), PlanState::Waiting->value, PlanState::Working->value,
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
