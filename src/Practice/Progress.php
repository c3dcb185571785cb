<?php

declare(strict_types=1);

namespace ZigLane\App\Practice;

use Psr\Clock\ClockInterface;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\DrillSession;
use ZigLane\App\Repository\DrillPars;
use ZigLane\App\Repository\DrillSessions;
use ZigLane\App\Repository\LogFits;
use ZigLane\Core\Practice\Skill;

/**
 * How scores stand against par over weeks, and what is due: by skill, by day, by drill.
 *
 * @phpstan-type Standing array{best: float, last: float, count: int, at: \DateTimeImmutable}
 */
final readonly class Progress
{
    private const WEEKS = 12;
    /** A drill that was passed comes again after so many days, one that was not after so many. */
    private const AGAIN = 14;
    private const SOON = 4;
    private const Z = 1.96;
    /** What trains against each error of a player. */
    private const AGAINST = ['aim' => 'pot', 'speed' => 'speed', 'tipSide' => 'position', 'tipHeight' => 'position'];

    public function __construct(
        private DrillSessions $sessions,
        private DrillShelf $shelf,
        private ParDesk $pars,
        private DrillPars $kept,
        private LogFits $fits,
        private ClockInterface $clock,
    ) {
    }

    /** @return array<string, Standing> by the drill's key */
    public function best(Account $account): array
    {
        $best = [];
        foreach ($this->recent($account) as $session) {
            if (0 !== $session->getLevel()) {
                continue;
            }
            $score = (float) $session->getScore();
            $known = $best[$session->getKey()] ?? null;
            $best[$session->getKey()] = [
                'best' => max($score, $known['best'] ?? $score),
                'last' => $score,
                'count' => 1 + ($known['count'] ?? 0),
                'at' => $session->getStartedAt(),
            ];
        }

        return $best;
    }

    /**
     * Scores against par, as standard deviations of the par's runs above its mean: comparable whatever the drill.
     *
     * @return list<array{at: \DateTimeImmutable, skill: string, name: string, key: string, score: float, against: float|null}>
     */
    public function scores(Account $account): array
    {
        $hand = $this->pars->hands($account)[$this->pars->whose($account)];
        $scores = [];
        foreach ($this->recent($account) as $session) {
            $hash = $session->getVersion()->getHash();
            $par = $this->kept->of($hash, $session->getLevel(), $hand, $account->getEquipment())?->getPar();
            $drill = $session->getDrill();
            $scores[] = [
                'at' => $session->getStartedAt(),
                'skill' => $drill->skill->value,
                'name' => $drill->name,
                'key' => $session->getKey(),
                'score' => (float) $session->getScore(),
                'against' => null === $par || $par->runs() < 50 || 0.0 === $par->deviation()
                    ? null
                    : ((float) $session->getScore() - $par->mean()) / $par->deviation(),
            ];
        }

        return $scores;
    }

    /**
     * By skill: the mean against par in the latest weeks and before, with intervals at 95 percent; told only of three scores and more.
     *
     * @param list<array{at: \DateTimeImmutable, skill: string, against: float|null, ...}> $scores
     *
     * @return array<string, array{scores: int, count: int, mean: float|null, half: float|null, trend: float|null, trendHalf: float|null}>
     */
    public function bySkill(array $scores): array
    {
        $skills = [];
        foreach (Skill::cases() as $skill) {
            $points = [];
            $count = 0;
            foreach ($scores as $score) {
                $count += $score['skill'] === $skill->value ? 1 : 0;
                if ($score['skill'] === $skill->value && null !== $score['against']) {
                    $points[] = [$score['at']->getTimestamp() / (7 * 86400), $score['against']];
                }
            }
            $skills[$skill->value] = ['scores' => $count] + self::line($points);
        }

        return $skills;
    }

    /**
     * Days on which anything was scored, of the latest weeks.
     *
     * @param list<array{at: \DateTimeImmutable, ...}> $scores
     *
     * @return list<list<array{day: \DateTimeImmutable, count: int}>> weeks of seven days, the oldest first
     */
    public function calendar(array $scores): array
    {
        $counts = [];
        foreach ($scores as $score) {
            $counts[$score['at']->format('Y-m-d')] = 1 + ($counts[$score['at']->format('Y-m-d')] ?? 0);
        }
        $day = $this->clock->now()->modify('monday this week')->setTime(0, 0)->modify('-'.(self::WEEKS - 1).' weeks');
        $weeks = [];
        for ($week = 0; $week < self::WEEKS; ++$week) {
            $days = [];
            for ($i = 0; $i < 7; ++$i) {
                $days[] = ['day' => $day, 'count' => $counts[$day->format('Y-m-d')] ?? 0];
                $day = $day->modify('+1 day');
            }
            $weeks[] = $days;
        }

        return $weeks;
    }

    /**
     * A session of so many minutes: drills that were not passed and are due, those against the error that costs the player the most
     * run-outs by his log, those of his weakest skill, and those that were never tried, with why.
     *
     * @param array<string, Standing>                                                      $best
     * @param list<array{at: \DateTimeImmutable, skill: string, against: float|null, ...}> $scores
     *
     * @return list<array{drill: ShelvedDrill, minutes: int, why: string, days: int|null}>
     */
    public function due(Account $account, int $minutes, array $best, array $scores): array
    {
        $weak = array_filter(
            array_map(static fn (array $one): ?float => $one['mean'], $this->bySkill($scores)),
            static fn (?float $mean): bool => null !== $mean,
        );
        asort($weak);
        $worst = $this->worst($account);
        $order = [];
        foreach ($this->shelf->all($account) as $drill) {
            $known = $best[$drill->key] ?? null;
            $days = null === $known ? null : (int) $known['at']->diff($this->clock->now())->days;
            $isPassed = null !== $known && $known['last'] >= $drill->file->drill->pass;
            $weakness = array_search($drill->file->drill->skill->value, array_keys($weak), true);
            [$rank, $why] = match (true) {
                null !== $days && !$isPassed && $days >= self::SOON => [0, 'notPassed'],
                null !== $days && $isPassed && $days >= self::AGAIN => [1, 'again'],
                null !== $worst && self::AGAINST[$worst] === $drill->file->drill->skill->value && ($days ?? self::SOON) >= self::SOON => [
                    2, 'log.'.$worst,
                ],
                null === $days && 0 === $weakness => [3, 'weakSkill'],
                null === $days => [4, 'new'],
                default => [9, ''],
            };
            if ($rank < 9) {
                $order[] = [[$rank, false === $weakness ? 9 : $weakness, -($days ?? 0), $drill->file->drill->name], $drill, $why, $days];
            }
        }
        usort($order, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $session = [];
        foreach ($order as [, $drill, $why, $days]) {
            $takes = $drill->file->drill->minutes;
            if ($takes <= $minutes) {
                $minutes -= $takes;
                $session[] = ['drill' => $drill, 'minutes' => $takes, 'why' => $why, 'days' => $days];
            }
        }

        return $session;
    }

    /** The error whose lessening gains the most run-outs, told from none; null where the log does not say. */
    private function worst(Account $account): ?string
    {
        $gains = $this->fits->latestDone($account)?->getAnswer()['gains'] ?? null;
        foreach (\is_array($gains) ? $gains : [] as $error => $gain) {
            $least = \is_array($gain) && \is_array($gain['interval'] ?? null) ? $gain['interval'][0] ?? null : null;

            return isset(self::AGAINST[$error]) && \is_float($least) && $least > 0.0 ? (string) $error : null;
        }

        return null;
    }

    /** @return list<DrillSession> */
    private function recent(Account $account): array
    {
        return $this->sessions->scored($account, $this->clock->now()->modify('-'.self::WEEKS.' weeks'));
    }

    /**
     * Mean, and change in a week, by least squares.
     *
     * @param list<array{float, float}> $points weeks and values
     *
     * @return array{count: int, mean: float|null, half: float|null, trend: float|null, trendHalf: float|null}
     */
    private static function line(array $points): array
    {
        $n = \count($points);
        if ($n < 3) {
            return ['count' => $n, 'mean' => null, 'half' => null, 'trend' => null, 'trendHalf' => null];
        }
        $x = array_sum(array_column($points, 0)) / $n;
        $y = array_sum(array_column($points, 1)) / $n;
        $xx = $xy = $yy = 0.0;
        foreach ($points as [$week, $value]) {
            $xx += ($week - $x) ** 2;
            $xy += ($week - $x) * ($value - $y);
            $yy += ($value - $y) ** 2;
        }
        $slope = $xx > 0.05 ? $xy / $xx : null;
        $left = null === $slope ? $yy : max(0.0, $yy - $slope * $xy);

        return [
            'count' => $n,
            'mean' => $y,
            'half' => self::Z * \sqrt($yy / ($n - 1) / $n),
            'trend' => $slope,
            'trendHalf' => null === $slope ? null : self::Z * \sqrt($left / ($n - 2) / $xx),
        ];
    }
}
