<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Math\Normal;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Odds\Trials;

/**
 * What came of many replays of a rack: how often the run was finished, and how it ended otherwise. Tallies of different replays add up,
 * whoever counted them.
 *
 * @phpstan-type Numbers array{
 *     tries: int, finished: int, ended: array<string, int>, endedOn: array<int, int>, made: int,
 *     reached: array<int, int>, finishedIn: array<int, int>, opened?: int, thenOn?: float|int, squares?: int, overRacks?: bool
 * }
 */
final class Tally
{
    public int $tries = 0;
    public int $finished = 0;

    /** @var array<value-of<RunEnd>, int> how the others ended */
    public array $ended = ['missed' => 0, 'scratch' => 0, 'foul' => 0, 'hooked' => 0, 'noShot' => 0, 'lost' => 0, 'safety' => 0];

    /** @var array<int, int> tries that ended on a ball, by its number */
    public array $endedOn = [];

    /** Balls made in all tries together, and the sum of their squares try by try. */
    public int $made = 0;
    public int $squares = 0;

    /** @var array<int, int> tries that came to the shot of a number, from 1 on */
    public array $reached = [];

    /** @var array<int, int> finished tries, by the number of their shots */
    public array $finishedIn = [];

    /** Whether the runs go over racks (straight pool): then the balls run count and not only whether the rack was finished. */
    public bool $isOverRacks = false;

    /** Racks that a break shot of straight pool opened, and the sum of the chances of the easiest pot that was left in each. */
    public int $opened = 0;
    public float $thenOn = 0.0;

    /** @param int $shots that it took */
    public function finish(int $shots): void
    {
        ++$this->finished;
        $this->finishedIn[$shots] = ($this->finishedIn[$shots] ?? 0) + 1;
    }

    /** @param int $ball number of the ball that was to be made; 0 for none */
    public function end(RunEnd $how, int $ball): void
    {
        ++$this->ended[$how->value];
        $this->endedOn[$ball] = ($this->endedOn[$ball] ?? 0) + 1;
    }

    /** A try came to the shot of a number, from 1 on. */
    public function reach(int $shot): void
    {
        $this->reached[$shot] = ($this->reached[$shot] ?? 0) + 1;
    }

    /** How the run goes on after the break shot: the mean chance of the easiest pot in the racks that it opened; null if it opened none. */
    public function meanThenOn(): ?float
    {
        return 0 === $this->opened ? null : $this->thenOn / $this->opened;
    }

    /** Whether there are enough of them to be told large: the interval of fewer is as wide as what it says. */
    public function isTold(): bool
    {
        return $this->tries >= ReplaySchedule::LEAST;
    }

    public function chance(): float
    {
        return 0 === $this->tries ? 0.0 : $this->finished / $this->tries;
    }

    /** @return array{float, float} at 95 percent */
    public function interval(): array
    {
        return 0 === $this->tries ? [0.0, 1.0] : Trials::interval($this->finished, $this->tries);
    }

    /** Balls run, expected: the mean of the tries. */
    public function balls(): float
    {
        return $this->made / max(1, $this->tries);
    }

    /** @return array{float, float} of the mean of the balls run, at 95 percent (normal) */
    public function ballsInterval(): array
    {
        if ($this->tries < 2) {
            return [0.0, \INF];
        }
        $half = Normal::NINETY_FIVE * Normal::errorOfMean($this->made, $this->squares, $this->tries);

        return [max(0.0, $this->balls() - $half), $this->balls() + $half];
    }

    /** By what candidates are chosen: the balls run where runs go over racks, else the chance to finish. */
    public function score(): float
    {
        return $this->isOverRacks ? $this->balls() : $this->chance();
    }

    /** What the score is at the least, at 95 percent. */
    public function least(): float
    {
        return $this->isOverRacks ? $this->ballsInterval()[0] : $this->interval()[0];
    }

    /** Standard error of the score; of a share with one more of either kind, so that few tries are not taken for certain. */
    public function error(): float
    {
        if ($this->isOverRacks) {
            return $this->tries < 2 ? \INF : 0.5 * ($this->ballsInterval()[1] - $this->ballsInterval()[0]) / Normal::NINETY_FIVE;
        }
        $share = ($this->finished + 1) / ($this->tries + 2);

        return \sqrt($share * (1 - $share) / max(1, $this->tries));
    }

    /** Share of the tries that ended so. */
    public function share(RunEnd $how): float
    {
        return $this->ended[$how->value] / max(1, $this->tries);
    }

    /**
     * On which balls most of the tries end that are not finished.
     *
     * @return list<array{Ball, float}> with their share of all tries, the greatest first
     */
    public function endsOn(): array
    {
        $ends = $this->endedOn;
        arsort($ends);
        $list = [];
        foreach ($ends as $number => $count) {
            $ball = Ball::tryFrom($number);
            if (null !== $ball && Ball::Cue !== $ball) {
                $list[] = [$ball, $count / max(1, $this->tries)];
            }
        }

        return $list;
    }

    public function plus(self $other): self
    {
        $sum = clone $this;
        $sum->tries += $other->tries;
        $sum->finished += $other->finished;
        $sum->made += $other->made;
        $sum->squares += $other->squares;
        $sum->isOverRacks = $sum->isOverRacks || $other->isOverRacks;
        $sum->opened += $other->opened;
        $sum->thenOn += $other->thenOn;
        foreach ($other->ended as $how => $count) {
            $sum->ended[$how] += $count;
        }
        foreach ($other->endedOn as $ball => $count) {
            $sum->endedOn[$ball] = ($sum->endedOn[$ball] ?? 0) + $count;
        }
        foreach ($other->reached as $shot => $count) {
            $sum->reached[$shot] = ($sum->reached[$shot] ?? 0) + $count;
        }
        foreach ($other->finishedIn as $shots => $count) {
            $sum->finishedIn[$shots] = ($sum->finishedIn[$shots] ?? 0) + $count;
        }

        return $sum;
    }

    /** @param iterable<self> $tallies */
    public static function sum(iterable $tallies): self
    {
        $sum = new self();
        foreach ($tallies as $tally) {
            $sum = $sum->plus($tally);
        }

        return $sum;
    }

    /** @return Numbers */
    public function toArray(): array
    {
        return [
            'tries' => $this->tries,
            'finished' => $this->finished,
            'ended' => $this->ended,
            'endedOn' => $this->endedOn,
            'made' => $this->made,
            'squares' => $this->squares,
            'overRacks' => $this->isOverRacks,
            'reached' => $this->reached,
            'finishedIn' => $this->finishedIn,
            'opened' => $this->opened,
            'thenOn' => $this->thenOn,
        ];
    }

    /** @param Numbers $numbers as toArray gives them */
    public static function fromArray(array $numbers): self
    {
        $tally = new self();
        $tally->tries = $numbers['tries'];
        $tally->finished = $numbers['finished'];
        foreach (RunEnd::cases() as $end) {
            $tally->ended[$end->value] = $numbers['ended'][$end->value] ?? 0;
        }
        $tally->endedOn = $numbers['endedOn'];
        $tally->made = $numbers['made'];
        $tally->squares = $numbers['squares'] ?? 0;
        $tally->isOverRacks = $numbers['overRacks'] ?? false;
        $tally->reached = $numbers['reached'];
        $tally->finishedIn = $numbers['finishedIn'];
        $tally->opened = $numbers['opened'] ?? 0;
        $tally->thenOn = (float) ($numbers['thenOn'] ?? 0.0);

        return $tally;
    }
}
