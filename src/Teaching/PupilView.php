<?php

declare(strict_types=1);

namespace ZigLane\App\Teaching;

use Psr\Clock\ClockInterface;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Assignment;
use ZigLane\App\Entity\Membership;
use ZigLane\App\Log\LogReader;
use ZigLane\App\Practice\Progress;
use ZigLane\App\Repository\Assignments;
use ZigLane\App\Repository\Groups;
use ZigLane\App\Repository\LogFits;
use ZigLane\App\Repository\RackSheetRepository;
use ZigLane\App\Repository\ShotLog;
use ZigLane\Core\Log\Records;

/** What a coach sees of his pupils: no more than each lets him see. The pupil's own page of it is the same. */
final readonly class PupilView
{
    private const SHEETS = 30;
    private const DAYS = 14;

    public function __construct(
        private Assignments $assignments,
        private Progress $progress,
        private LogFits $fits,
        private LogReader $log,
        private ShotLog $shots,
        private RackSheetRepository $sheets,
        private Groups $groups,
        private ClockInterface $clock,
    ) {
    }

    /**
     * One line of a group's table.
     *
     * @return array<string, mixed> membership; due, late, done (counts); next (the assignment due next); skills and biases where he
     *                              lets them
     *                              be seen, else null
     */
    public function glance(Membership $membership): array
    {
        $all = $this->assignments->of($membership);
        $open = array_values(array_filter($all, static fn (Assignment $one): bool => null === $one->getDoneAt()));
        $skills = $membership->sees('scores') ? $this->skills($membership->getPupil()) : null;

        return [
            'membership' => $membership,
            'due' => \count($open),
            'late' => \count(array_filter($open, fn (Assignment $one): bool => $one->isLate($this->clock->now()))),
            'done' => \count($all) - \count($open),
            'next' => $open[0] ?? null,
            'skills' => $skills,
            'against' => null === $skills ? null : self::overall($skills),
            'biases' => $membership->sees('errors') ? $this->biases($membership->getPupil()) : null,
        ];
    }

    /** @return array<string, mixed> all that the coach sees of a pupil */
    public function whole(Membership $membership): array
    {
        $pupil = $membership->getPupil();
        $fit = $membership->sees('errors') ? $this->fits->latestDone($pupil)?->getAnswer() : null;

        return [
            ...$this->glance($membership),
            'assignments' => $this->assignments->of($membership),
            'fit' => \is_array($fit['deviations'] ?? null) ? $fit : null,
            'records' => $membership->sees('log') ? Records::of($this->log->counted($pupil)) : null,
            'days' => $membership->sees('log') ? $this->shots->findBy(['owner' => $pupil], ['playedOn' => 'DESC'], self::DAYS) : null,
            'sheets' => $membership->sees('sheets') ? $this->sheets->ofOwner($pupil, self::SHEETS) : null,
        ];
    }

    /**
     * Who needs what, over all groups of a coach: what is late, what is due in the next seven days, who has not been here for a week.
     *
     * @return array{late: list<Assignment>, due: list<Assignment>, away: list<Membership>}
     */
    public function week(Account $coach): array
    {
        $now = $this->clock->now();
        $soon = $now->modify('+7 days')->format('Y-m-d');
        $late = $due = $away = [];
        foreach ($this->groups->pupilsOf($coach) as $membership) {
            foreach ($this->assignments->of($membership) as $one) {
                if ($one->isLate($now)) {
                    $late[] = $one;
                } elseif (null === $one->getDoneAt() && null !== $one->getDueOn() && $one->getDueOn()->format('Y-m-d') <= $soon) {
                    $due[] = $one;
                }
            }
            $seen = $membership->getPupil()->getSeenOn();
            if (null !== $seen && $seen < $now->modify('-7 days')) {
                $away[] = $membership;
            }
        }

        return ['late' => $late, 'due' => $due, 'away' => $away];
    }

    /**
     * @return array<string, array{
     *     scores: int, count: int, mean: float|null, half: float|null, trend: float|null, trendHalf: float|null
     * }>
     */
    private function skills(Account $pupil): array
    {
        return $this->progress->bySkill($this->progress->scores($pupil));
    }

    /**
     * Over the skills of which enough is known: how far from par.
     *
     * @param array<string, array{count: int, mean: float|null, ...}> $skills
     *
     * @return array{mean: float, count: int}|null
     */
    private static function overall(array $skills): ?array
    {
        $sum = 0.0;
        $count = 0;
        foreach ($skills as $one) {
            if (null !== $one['mean']) {
                $sum += $one['count'] * $one['mean'];
                $count += $one['count'];
            }
        }

        return 0 === $count ? null : ['mean' => $sum / $count, 'count' => $count];
    }

    /** @return list<array{field: string, value: float}> biases that the log tells from none */
    private function biases(Account $pupil): array
    {
        $found = [];
        $all = $this->fits->latestDone($pupil)?->getAnswer()['biases'] ?? null;
        foreach (\is_array($all) ? $all : [] as $field => $one) {
            $interval = \is_array($one) && \is_array($one['interval'] ?? null) ? $one['interval'] : [];
            $value = \is_array($one) ? $one['value'] ?? null : null;
            [$from, $to] = [$interval[0] ?? null, $interval[1] ?? null];
            if (is_numeric($value) && is_numeric($from) && is_numeric($to) && $from * $to > 0) {
                $found[] = ['field' => (string) $field, 'value' => (float) $value];
            }
        }

        return $found;
    }
}
