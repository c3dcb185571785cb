<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Plan\Deadline;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;

/**
 * The options of a position, in pieces that may be done in any order and by several workers: the ways that are worth a look, then blocks of
 * tries of each. The same seed and number of blocks give the same options.
 *
 * The worth of a way is the mean of all its tries as PositionValue has it, and what the ply after some of them changes in that (a control
 * variate): there the one who comes to the table chooses as in a duel, with other errors than those that are then counted.
 */
final class OptionSearch
{
    /** Tries of a block, and of these so many with the ply after them. */
    public const BLOCK = 25;
    private const DEEPER = 4;
    /** Tries by which the ply after a try is valued, beside those that choose. */
    private const AFTER = 8;
    /** Blocks of each way: 200 tries. */
    public const BLOCKS = 8;
    /** Ways that are weighed at the most: attacks, and safeties; shown of each. */
    private const ATTACKS = 5;
    private const SAFETIES = 8;
    public const SHOWN = 3;
    /** Tries by which ways are polished, and rounds. */
    private const POLISH = 24;
    private const ROUNDS = 3;
    /** Steps: factor of the speed, side and height of the tip, turn in radians; a pot is aimed at its pocket and not turned. */
    private const STEPS = [[1.15, 0, 0, 0], [1 / 1.15, 0, 0, 0], [1, 0.2, 0, 0], [1, -0.2, 0, 0], [1, 0, 0.2, 0], [1, 0, -0.2, 0]];
    private const TURNS = [[1, 0, 0, 0.006], [1, 0, 0, -0.006]];
    /** Places of the cue ball in hand from which pots, and safeties, are looked for. */
    private const HAND_POTS = 8;
    private const HAND_SAFE = 4;
    /** How far two safeties of the same contact must end apart to be two, metres. */
    private const APART = 0.4;

    public readonly ShotSolver $solver;
    public readonly PositionValue $value;
    private readonly Situation $situation;
    private readonly WayTrials $trials;
    private readonly AttackSearch $attack;
    private readonly SafetySearch $safety;
    private readonly HandPlaces $places;

    /** @var array{Duellist, Duellist} */
    private readonly array $after;

    /** @var list<Way>|null */
    private ?array $ways = null;

    /** @var list<Judged> the first list: as found, with few tries */
    private array $first = [];

    public function __construct(
        public readonly Rack $rack,
        public readonly ExecutionErrors $opponent,
        private readonly int $seed = 1,
    ) {
        $this->solver = new ShotSolver($rack->equipment);
        $this->value = new PositionValue($rack, [$rack->player, $opponent], $this->solver);
        $this->situation = Situation::of($rack);
        $this->trials = new WayTrials($this->situation, $rack, $this->value, $this->solver);
        $this->attack = new AttackSearch($rack, $this->situation, $this->trials, $this->solver, $rack->player);
        $this->safety = new SafetySearch($rack, $this->situation, $this->trials, $this->solver, $rack->player);
        $this->places = new HandPlaces($rack, $this->solver, $rack->player);
        $this->after = [
            new Duellist($rack, $this->value, $this->solver, 0),
            new Duellist($rack, $this->value, $this->solver, 1),
        ];
    }

    /** A first list, with a few tries of each: within two seconds. */
    public function first(): Options
    {
        if ([] === $this->first) {
            $found = [...$this->attacks(), ...$this->safeties()];
            $this->first = array_map(static fn (array $one): Judged => new Judged($one[0], $one[1]), $found);
        }

        return $this->listed($this->first);
    }

    /**
     * The ways that are weighed, polished by tries that count for nothing else.
     *
     * @return list<Way>
     */
    public function ways(?Deadline $until = null): array
    {
        if (null === $this->ways) {
            $this->first();
            $this->ways = array_map(
                fn (Judged $judged): Way => null === $judged->way->strike || true === $until?->isOver()
                    ? $judged->way
                    : $this->polished($judged->way),
                $this->first,
            );
        }

        return $this->ways;
    }

    /**
     * A block of tries of a way; the same number always gives the same.
     *
     * @param bool $isDeep whether the ply after some of them is played too
     */
    public function block(int $way, int $block, bool $isDeep = true): WayTally
    {
        $seed = ($this->seed * 7919 + 104_729 * $block + 17) & 0x7FFFFFFF;
        $tally = $this->trials->tally($this->ways()[$way], self::BLOCK, $seed);
        // The first block is for all ways to be there soon.
        if ($isDeep && $block > 0) {
            $this->deepen($tally, $this->ways()[$way], $seed);
        }

        return $tally;
    }

    /**
     * The ways whose next block is due, by what is done: all twice, then those that may still be shown.
     *
     * @param list<array<int, WayTally>> $done by way and block
     *
     * @return list<array{int, int}> way and block
     */
    public function due(array $done): array
    {
        $sums = array_map(WayTally::sum(...), $done);
        $due = [];
        foreach ($this->ways() as $i => $way) {
            $blocks = \count($done[$i] ?? []);
            [$least, $most] = [$this->least($i), null === $way->strike ? 1 : self::BLOCKS];
            for ($block = $blocks; $block < $least; ++$block) {
                $due[] = [$block, -\INF, $i];
            }
            if ($blocks >= $least && $blocks < $most && $this->isInTheRunning($i, $sums)) {
                $due[] = [$blocks, -$this->trials->rank($sums[$i]), $i];
            }
        }
        sort($due);

        return array_map(static fn (array $one): array => [$one[2], $one[0]], $due);
    }

    /**
     * Those of the blocks that are due without which no way can be judged, however late it is.
     *
     * @param list<array<int, WayTally>> $done by way and block
     *
     * @return list<array{int, int}> way and block
     */
    public function owed(array $done): array
    {
        return array_values(array_filter($this->due($done), fn (array $one): bool => $one[1] < $this->least($one[0])));
    }

    /** Blocks that a way has had before it is compared. */
    private function least(int $way): int
    {
        return null === $this->ways()[$way]->strike ? 1 : 2;
    }

    /** @param list<array<int, WayTally>> $done by way and block */
    public function options(array $done): Options
    {
        $list = [];
        foreach ($this->ways() as $i => $way) {
            $blocks = $done[$i] ?? [];
            // In their own order, whoever did them when: sums of floats hang on it.
            ksort($blocks);
            // One that was not tried yet stands as it was found.
            $list[] = [] === $blocks ? $this->first[$i] : new Judged($way, WayTally::sum($blocks));
        }

        return $this->listed($list);
    }

    /**
     * What a time allows, in one process.
     *
     * @return array{Options, int} with the number of shots that were simulated
     */
    public static function within(Rack $rack, ExecutionErrors $opponent, float $seconds, int $seed = 1): array
    {
        $end = Deadline::in($seconds);
        $search = new self($rack, $opponent, $seed);
        $first = $search->first();
        $ways = $search->ways($end->at(0.4));
        $done = array_map(static fn (): array => [], $ways);
        $last = $end->at(0.95);
        // Ends: with its time, or when nothing is due.
        while (!$last->isOver()) {
            $due = $search->due($done)[0] ?? null;
            if (null === $due) {
                break;
            }
            [$way, $block] = $due;
            $done[$way][$block] = $search->block($way, $block);
        }

        return [[] === array_filter($done) ? $first : $search->options($done), $search->solver->simulator->shots()];
    }

    /** @return list<array{Way, WayTally}> */
    private function attacks(): array
    {
        if (!$this->situation->isInHand()) {
            return \array_slice($this->attack->find($this->seed), 0, self::ATTACKS);
        }
        $found = $pots = [];
        foreach ($this->places->of($this->situation, 60) as [$place, $ball, $pocket]) {
            $key = $ball->value.$pocket->value;
            $pots[$key] = ($pots[$key] ?? 0) + 1;
            if ($pots[$key] <= 2 && \count($found) < self::HAND_POTS) {
                $found[] = $this->attack->find($this->seed, $place, false)[0] ?? null;
            }
        }
        $found = array_values(array_filter($found));

        return \array_slice($this->trials->ranked($found), 0, self::ATTACKS);
    }

    /** @return list<array{Way, WayTally}> safeties, a push-out and the shot given back where they are allowed */
    private function safeties(): array
    {
        $found = [];
        if ($this->situation->isInHand()) {
            $places = Opening::is($this->situation, $this->rack->equipment)
                ? Opening::places($this->rack->equipment)
                : $this->places->seeing($this->situation, self::HAND_SAFE);
            foreach ($places as $place) {
                array_push($found, ...$this->safety->find(Effort::Quick, $this->seed, 3, $place));
            }
        } else {
            $found = $this->safety->find(Effort::Full, $this->seed, 3 * self::SAFETIES);
        }
        $found = $this->different($found, self::SAFETIES);
        if ($this->situation->standing->mayPush) {
            array_push($found, ...$this->safety->find(Effort::Full, $this->seed, 2, null, WayKind::PushOut));
        }
        if ($this->situation->standing->mayPass) {
            $pass = new Way(WayKind::Pass);
            $found[] = [$pass, $this->trials->tally($pass, 1, $this->seed)];
        }

        return $found;
    }

    /**
     * The best of several safeties, each different from the better ones: another ball met, or another end of the cue ball.
     *
     * @param list<array{Way, WayTally}> $found
     *
     * @return list<array{Way, WayTally}>
     */
    private function different(array $found, int $most): array
    {
        $kept = [];
        foreach ($this->trials->ranked($found) as $one) {
            $isNew = true;
            foreach ($kept as [$way, $tally]) {
                $isNew = $isNew && !$this->isLike($one[0], $one[1], $way, $tally);
            }
            if ($isNew) {
                $kept[] = $one;
            }
            if (\count($kept) >= $most) {
                break;
            }
        }

        return $kept;
    }

    private function isLike(Way $one, WayTally $mine, Way $other, WayTally $his): bool
    {
        if ($one->choice?->ball !== $other->choice?->ball) {
            return false;
        }
        [$a, $b] = [$mine->ends[0][0] ?? null, $his->ends[0][0] ?? null];

        return null !== $a && null !== $b && hypot($a[0] - $b[0], $a[1] - $b[1]) < self::APART;
    }

    /** The best way near one, by tries with the same errors (pattern search; Hooke and Jeeves, 1961). */
    private function polished(Way $way): Way
    {
        $rank = fn (Way $one): float => $this->trials->rank($this->trials->tally($one, self::POLISH, $this->seed + 1));
        $best = $rank($way);
        $size = 1.0;
        for ($round = 0; $round < self::ROUNDS; ++$round) {
            $before = $best;
            foreach (WayKind::Attack === $way->kind ? self::STEPS : [...self::STEPS, ...self::TURNS] as [$faster, $side, $height, $turn]) {
                $near = WayKind::Attack === $way->kind
                    ? $this->attack->near($way, $faster ** $size, $size * $side, $size * $height)
                    : $this->safety->near($way, $size * $turn, $faster ** $size, $size * $side, $size * $height);
                $mean = null === $near ? -\INF : $rank($near);
                if (null !== $near && $mean > $best) {
                    [$way, $best] = [$near, $mean];
                }
            }
            $size = $best > $before ? $size : 0.5 * $size;
        }

        return $way;
    }

    /** Plays the ply after some of the tries of a block. */
    private function deepen(WayTally $tally, Way $way, int $seed): void
    {
        $random = new Randomness($seed);
        for ($try = 0; $try < self::DEEPER; ++$try) {
            $played = null === $way->strike ? null : $this->trials->play($way, $random);
            $left = match (true) {
                null === $way->strike => $this->situation->passed(),
                null === $played => null,
                default => $this->trials->left(...$played),
            };
            $change = null === $left ? 0.0 : $this->change($left, $seed + 31 * $try);
            $change = $left?->shooter === $this->situation->shooter ? $change : -$change;
            ++$tally->deeper;
            $tally->change += $change;
            $tally->changeSquares += $change ** 2;
        }
    }

    /** By how much playing its shot changes what a position is worth to the one who comes to it. */
    private function change(Situation $situation, int $seed): float
    {
        $chosen = $this->after[$situation->shooter]->choose($situation, $seed);
        if (null === $chosen) {
            return 0.0;
        }
        $trials = new WayTrials($situation, $this->rack, $this->value, $this->solver);

        return $trials->tally($chosen[0], self::AFTER, $seed + 7)->mean() - $this->value->look($situation)->win;
    }

    /**
     * Whether a way may still be among those that are shown.
     *
     * @param list<WayTally> $sums of the ways
     */
    private function isInTheRunning(int $way, array $sums): bool
    {
        $isAttack = WayKind::Attack === $this->ways()[$way]->kind;
        $ranks = [];
        foreach ($this->ways() as $i => $other) {
            if ($isAttack === (WayKind::Attack === $other->kind)) {
                $ranks[] = $this->trials->rank($sums[$i] ?? new WayTally());
            }
        }
        rsort($ranks);

        return $this->trials->rank($sums[$way]) + $sums[$way]->error() >= ($ranks[self::SHOWN - 1] ?? -\INF);
    }

    /** @param list<Judged> $list */
    private function listed(array $list): Options
    {
        usort($list, fn (Judged $a, Judged $b): int => $this->trials->rank($b->tally) <=> $this->trials->rank($a->tally));
        $shown = $counts = [];
        foreach ($list as $judged) {
            $kind = WayKind::Attack === $judged->way->kind ? 'attack' : (WayKind::Safety === $judged->way->kind ? 'safety' : 'other');
            $counts[$kind] = ($counts[$kind] ?? 0) + 1;
            if ($counts[$kind] <= self::SHOWN) {
                $shown[] = $judged;
            }
        }

        return new Options($this->rack, $this->opponent, array_map($this->told(...), $shown), Refusal::notes($this->rack));
    }

    /** With what comes of it when nothing goes wrong, and the reasons. */
    private function told(Judged $judged): Judged
    {
        $meant = $this->trials->meant($judged->way)[0] ?? null;
        $with = new Judged($judged->way, $judged->tally, $meant);

        return new Judged($judged->way, $judged->tally, $meant, (new Why($this->rack, $this->situation, $this->value))->of($with));
    }
}
