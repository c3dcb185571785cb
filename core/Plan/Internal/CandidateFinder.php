<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan\Internal;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\BreakOff;
use ZigLane\Core\Plan\Candidate;
use ZigLane\Core\Plan\Deadline;
use ZigLane\Core\Plan\Option;
use ZigLane\Core\Plan\StraightRun;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\PositionPlay\Landing;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Turn;
use ZigLane\Core\Table\Spot;

/**
 * The ways to begin a run: from where the cue ball lies or from the best places for it, for each group that may be chosen, the strokes
 * that the values of the grid and full tries like best, polished.
 *
 * @internal
 */
final readonly class CandidateFinder
{
    /** Candidates that are kept after polishing, and options that are tried before. */
    private const CANDIDATES = 6;
    private const OPTIONS = 16;
    public const TRIES = 24;
    /** Tries where hardly anything goes. */
    private const MANY = 120;
    /** Places of the cue ball that are looked at with ball in hand. */
    private const PLACES = 10;
    public const POLISHED = 3;
    /** Step of the direction in which indirect shots are looked for, degrees. */
    private const TURN = 0.25;
    /** Break shots that are tried where the rack stands. */
    private const BREAKS = 12;
    /** Candidates with the same ball and pocket at the most. */
    private const ALIKE = 3;

    /** @param Deadline|null $until after which no more is looked at than is needed for one */
    public function __construct(private Rack $rack, private Policies $policies, private int $seed, private ?Deadline $until = null)
    {
    }

    /** Who chooses the first shot for a group. */
    private function policy(?Group $group): Policy
    {
        return $this->policies->of($group)->during(Turn::first($this->rack));
    }

    private function hasTime(): bool
    {
        return null === $this->until || !$this->until->isOver();
    }

    /** @return list<Candidate> the best first by the planner's reckoning; empty where there is nothing to play */
    public function find(): array
    {
        $break = $this->breakBall();
        if (null !== $break) {
            return $this->breakShots($break, self::BREAKS, self::TRIES);
        }
        $all = $settled = [];
        foreach ($this->groups() as $group) {
            foreach ($this->places($group) as [$place, $layout]) {
                if ([] !== $all && !$this->hasTime()) {
                    break 2;
                }
                $policy = $this->policy($group);
                $sound = $policy->sound($layout);
                foreach ($sound as $option) {
                    $all[] = $settled[] = new Candidate($layout, $option, $place, $group);
                }
                if ([] !== $sound) {
                    continue;
                }
                $options = $policy->options($layout, self::OPTIONS, self::TRIES, $this->seed);
                if (null === $place) {
                    array_push($options, ...$policy->indirect($layout, self::TURN, self::POLISHED, self::TRIES, $this->seed));
                }
                $only = [] === $options ? $policy->next($layout, $this->seed) : null;
                foreach ([...$options, ...(null === $only ? [] : [$only])] as $option) {
                    $all[] = new Candidate($layout, $option, $place, $group);
                }
            }
        }
        if ([] === array_filter($all, static fn (Candidate $candidate): bool => $candidate->option->value > 0.0)) {
            $all = $this->last();
        }
        $best = [];
        foreach ($this->different($all) as $candidate) {
            if (\in_array($candidate, $settled, true) || !$this->hasTime()) {
                $best[] = $candidate;
                continue;
            }
            $polished = $this->policy($candidate->group)->polished(
                $candidate->layout,
                $candidate->option,
                self::TRIES,
                $this->seed,
                self::POLISHED,
            );
            $best[] = new Candidate($candidate->layout, $polished, $candidate->place, $candidate->group);
        }
        usort($best, static fn (Candidate $a, Candidate $b): int => $b->option->rank() <=> $a->option->rank());

        return $best;
    }

    /**
     * Where few tries made nothing: kicks, banks and caroms with more strokes and more tries, before it is said that nothing goes.
     *
     * @return list<Candidate>
     */
    private function last(): array
    {
        $all = [];
        foreach ($this->groups() as $group) {
            foreach (\array_slice($this->places($group), 0, self::POLISHED) as [$place, $layout]) {
                $policy = $this->policy($group);
                $options = $policy->indirect($layout, self::TURN, self::OPTIONS, self::MANY, $this->seed, true);
                foreach ($options as $option) {
                    $all[] = new Candidate($layout, $option, $place, $group);
                }
            }
        }

        return $all;
    }

    /** In straight pool the ball beside fourteen racked ones, with the cue ball on the table: the rack begins with the break shot. */
    private function breakBall(): ?Ball
    {
        return $this->rack->game->rules()->countsBalls && $this->rack->layout->has(Ball::Cue)
            ? StraightRun::besideRack($this->rack->layout, $this->rack->equipment)
            : null;
    }

    /** @return list<Candidate> the best first */
    private function breakShots(Ball $ball, int $count, int $tries): array
    {
        $solver = $this->policies->of(null)->values->tables->solver;
        $options = (new BreakOff($this->rack, $solver))->options($this->rack->layout, $ball, $this->seed, $count, $tries);

        return array_map(
            fn (Option $option): Candidate => new Candidate($this->rack->layout, $option),
            \array_slice($options, 0, self::CANDIDATES),
        );
    }

    /**
     * The first way to begin that goes straight; null where none does.
     *
     * @param bool $isAnywhere whether a sequence of balls may begin with any of them
     */
    public function soonest(bool $isAnywhere): ?Candidate
    {
        $break = $this->breakBall();
        if (null !== $break) {
            return $this->breakShots($break, self::POLISHED, self::POLISHED)[0] ?? null;
        }
        foreach ($this->groups() as $group) {
            foreach ($this->places($group) as [$place, $layout]) {
                $policy = $this->policy($group);
                $option = $policy->sound($layout)[0]
                    ?? $policy->options($layout, self::POLISHED, self::POLISHED, $this->seed)[0]
                    ?? null;
                if ($isAnywhere && 0.0 === ($option->value ?? 0.0)) {
                    $option = $policy->elsewhere($layout, $this->seed);
                }
                if (null !== $option && $option->value > 0.0) {
                    return new Candidate($layout, $option, $place, $group);
                }
            }
        }

        return null;
    }

    /**
     * Those that really differ: another ball, pocket or route; the best of each, and no more than ALIKE with the same ball and pocket.
     *
     * @param list<Candidate> $all
     *
     * @return list<Candidate>
     */
    private function different(array $all): array
    {
        usort($all, static fn (Candidate $a, Candidate $b): int => $b->option->rank() <=> $a->option->rank());
        $kept = $pots = [];
        foreach ($all as $candidate) {
            if (self::CANDIDATES === \count($kept) || $candidate->option->value <= 0.0) {
                break;
            }
            $choice = $candidate->option->choice;
            $pot = $candidate->group?->value.$choice->ball->value.$choice->pocket->value;
            $shot = $this->policies->of($candidate->group)->values->tables->solver->solve($candidate->layout, $choice);
            $key = $pot.(null === $candidate->place ? Landing::keyOf(Landing::routeOf($shot)) : '');
            if (!isset($kept[$key]) && ($pots[$pot] ?? 0) < self::ALIKE) {
                $kept[$key] = $candidate;
                $pots[$pot] = ($pots[$pot] ?? 0) + 1;
            }
        }

        return array_values($kept);
    }

    /** @return list<Group|null> */
    private function groups(): array
    {
        if (!$this->rack->game->rules()->hasGroups) {
            return [null];
        }

        return null === $this->rack->group || Group::Open === $this->rack->group ? [Group::Solids, Group::Stripes] : [$this->rack->group];
    }

    /**
     * Where the cue ball lies, or the most promising places for it with ball in hand.
     *
     * @return list<array{Spot|null, Layout}>
     */
    private function places(?Group $group): array
    {
        if ($this->rack->layout->has(Ball::Cue)) {
            return [[null, $this->rack->layout]];
        }
        if (BallInHand::None === $this->rack->ballInHand) {
            return [];
        }
        $places = [];
        $headString = BallInHand::Kitchen === $this->rack->ballInHand ? 2 * $this->rack->equipment->table->diamond() : \INF;
        foreach ($this->policies->of($group)->values->bestSpots(self::PLACES * 3, $headString) as $spot) {
            try {
                $places[] = [$spot, $this->rack->withBall(Ball::Cue, $spot)->layout];
            } catch (CoreError) {
                continue;
            }
            if (self::PLACES === \count($places)) {
                break;
            }
        }

        return $places;
    }
}
