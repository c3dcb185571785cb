<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan\Internal;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Motion\SimulationLimit;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Plan\Chooser;
use ZigLane\Core\Plan\Leave;
use ZigLane\Core\Plan\Option;
use ZigLane\Core\Plan\Order;
use ZigLane\Core\Plan\StraightRun;
use ZigLane\Core\Plan\Weights;
use ZigLane\Core\Player\Miscue;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\BallsOn;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Referee;
use ZigLane\Core\Rules\Turn;
use ZigLane\Core\Rules\Verdict;
use ZigLane\Core\Shot\Aim;
use ZigLane\Core\Shot\IndirectSearch;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotDemands;
use ZigLane\Core\Stroke\CueClearance;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;

/**
 * What to shoot from where the balls really lie: strokes are ranked by the values of the grid, and the best are aimed and played in
 * full with the player's errors, the same errors for each (common random numbers), to choose between them. Where nothing goes straight
 * the cue is turned once round for a kick, a bank, a combination.
 *
 * @internal
 */
final readonly class Policy implements Chooser
{
    /** What a position is still taken to be worth after a ball that is to come was moved without being meant to. */
    private const MOVED = 0.75;
    /** Shots that are tried out before each stroke of a replay, and noisy plays of each. */
    private const OPTIONS = 5;
    private const NOISE = 10;
    /** Share of its worth by which a plainer stroke may be behind the best at the most. */
    private const ALIKE = 0.1;
    /** A policy for a first plan, by the same tables. */
    private const ROUGH = 4;
    /** Below this share of what such a set is usually worth, the best straight shot is poor, and others are looked for in a replay. */
    private const POOR = 0.15;
    /** Below this share it is next to none: then a ball is looked for that was to come later. */
    private const HOPELESS = 0.03;
    /** Odds of a pot below which nothing is played. */
    private const THIN = 0.01;
    /** Step of the direction in that search, degrees, and how many of its shots are tried. */
    private const TURN = 1.0;
    private const ODD = 3;
    /** More balls than these of straight pool are many. */
    private const MANY = 6;
    /** The same where nothing else is left, and tries of each. */
    private const FINE_TURN = 0.5;
    private const RESORTS = 6;
    private const RESORT_TRIES = 40;
    /** Width of the grid on which balls are taken to lie for what a miss leaves, metres. */
    private const GRID = 0.05;
    /** What costs may leave of a shot's worth at the least: where nothing is free of them the least bad is played. */
    private const LEAST = 0.01;

    private Referee $referee;

    /** By what the shots are judged; the group of the turn is open as long as the table is. */
    private Turn $turn;

    /** What misses leave, where that counts. */
    private ?Leave $leave;

    public function __construct(
        public ValueTable $values,
        public ?Group $group = null,
        public Weights $weights = new Weights(),
        ?Leave $leave = null,
        ?Turn $turn = null,
    ) {
        $this->turn = $turn ?? new Turn($group);
        $rack = $values->tables->rack;
        $this->leave = 0.0 === $weights->miss ? null : $leave ?? new Leave($rack, $values->tables->solver, 1, self::GRID);
        $this->referee = Referee::of($rack);
    }

    /** The policy for a layout in which balls lie where they were not surveyed. */
    public function on(Layout $layout): self
    {
        return $this->values->tables->differsFrom($layout)
            ? new self($this->values->moved($layout), $this->group, $this->weights, $this->leave, $this->turn)
            : $this;
    }

    /** The policy in another turn. */
    public function during(Turn $turn): self
    {
        return $turn == $this->turn ? $this : new self($this->values, $this->group, $this->weights, $this->leave, $turn);
    }

    public function next(Layout $layout, int $seed, ?Turn $turn = null): ?Option
    {
        $sound = $this->sound($layout)[0] ?? null;
        if (null !== $sound) {
            return $sound;
        }
        $policy = $this->during($turn ?? $this->turn)->on($layout);
        $tries = $this->values->isRough ? self::ROUGH : self::NOISE;
        $options = $policy->options($layout, self::OPTIONS, $tries, $seed);
        $straight = $options[0]->value ?? 0.0;
        $usual = $policy->values->usual(Order::maskOf($layout));
        if ($straight < self::POOR * $usual) {
            array_push($options, ...$policy->indirect($layout, self::TURN, self::ODD, $tries, $seed));
            $options = Option::ranked($options);
        }
        if ($straight < self::HOPELESS * $usual) {
            $other = $policy->elsewhere($layout, $seed);
            if (null !== $other && $other->value > ($options[0]->value ?? 0.0)) {
                return $other;
            }
        }
        if (($options[0]->value ?? 0.0) > 0.0) {
            return $options[0];
        }

        return $policy->thin($layout) ?? $policy->lastResort($layout, $seed);
    }

    /**
     * Straight pool with many balls left: two balls ahead among all of them but the key ball and the break ball. The sequence of the
     * values would leave easy balls lying because others come before them.
     *
     * @return list<Option> the best first; none where it is not for him to choose
     */
    public function sound(Layout $layout): array
    {
        $tables = $this->values->tables;
        $order = $this->values->order;
        $mask = Order::maskOf($layout);
        if (
            !$tables->rack->game->rules()->countsBalls
            || \count(Order::balls($order->toCome($mask))) <= self::MANY
            || !$this->values->constraints->areNone()
        ) {
            return [];
        }
        $chooser = $tables->sound($order->held($mask));

        return $chooser->options($layout, $this->turn);
    }

    /** Kicks, banks and caroms looked for with finer steps, two strokes and more tries, where nothing else is left. */
    private function lastResort(Layout $layout, int $seed): ?Option
    {
        $options = $this->values->isRough ? [] : $this->indirect($layout, self::FINE_TURN, self::RESORTS, self::RESORT_TRIES, $seed, true);
        $best = Option::ranked($options)[0] ?? null;

        return null !== $best && $best->value > 0.0 ? $best : null;
    }

    /** The best pot of those that are too thin for the tables, with the usual stroke: better than none. */
    private function thin(Layout $layout): ?Option
    {
        $order = $this->values->order;
        $sure = $this->surest($layout, $order->next(Order::maskOf($layout)))
            ?? $this->surest($layout, $order->choice(Order::maskOf($layout)));
        if (null === $sure) {
            return null;
        }
        [$most, $line] = $sure;
        $cue = $layout->spot(Ball::Cue);

        return $this->tried(
            $layout,
            new ShotChoice($line->ball, $line->pocket, $line->stroke($cue), $line->asideMetres()),
            1,
            1,
        )?->withValue($most);
    }

    /**
     * Where none of the balls that should come next in a sequence goes: another of it, as if it began anew with the one that goes best from
     * where the cue ball lies.
     */
    public function elsewhere(Layout $layout, int $seed): ?Option
    {
        $tables = $this->values->tables;
        $mask = Order::maskOf($layout);
        $balls = $this->values->order->choice($mask);
        // The key ball only where no other goes.
        $sure = $this->surest($layout, $balls & ~$this->values->order->key($mask)) ?? $this->surest($layout, $balls);
        if (null === $sure) {
            return null;
        }
        $order = $this->values->order->anew(StraightRun::neighbours($tables->rack, $layout, Order::balls($balls), $sure[1]->ball));
        $policy = new self(
            new ValueTable($tables->keeping($tables->kept, $order), $this->values->constraints, isRough: true),
            $this->group,
            $this->weights,
            $this->leave,
            $this->turn,
        );
        $option = $policy->options($layout, self::OPTIONS, self::NOISE, $seed)[0] ?? null;

        return null !== $option && $option->value > 0.0 ? $option : null;
    }

    /**
     * The pot with the usual stroke that goes best straight from where the cue ball lies.
     *
     * @param int $balls those that may be shot, as bits
     *
     * @return array{float, PotModel}|null its chance, and how; null where none is better than next to nothing
     */
    private function surest(Layout $layout, int $balls): ?array
    {
        $cue = $layout->spot(Ball::Cue);
        $mask = Order::maskOf($layout);
        $tables = $this->values->tables;
        $best = null;
        $most = self::THIN;
        foreach (Order::balls($balls) as $ball) {
            foreach ($tables->pots($ball, PlannerTables::KEPT) as $pot) {
                $left = $mask & ~Order::bit($ball);
                $chance = 0 === ($pot->blocking & $left)
                    && !$this->values->constraints->forbids($ball, $pot->pocket)
                    && $pot->isSeen($cue, $left) ? $pot->line->chance($cue) : 0.0;
                if ($chance > $most) {
                    $most = $chance;
                    $best = $pot->line;
                }
            }
        }

        return null === $best ? null : [$most, $best];
    }

    /**
     * The most promising straight shots, tried out, best first.
     *
     * @param int $count how many are tried
     * @param int $tries noisy plays of each
     *
     * @return list<Option>
     */
    public function options(Layout $layout, int $count, int $tries, int $seed): array
    {
        $options = [];
        foreach (\array_slice($this->ranked($layout), 0, $count) as [, $choice]) {
            $option = $this->tried($layout, $choice, $tries, $seed);
            if (null !== $option) {
                $options[] = $option;
            }
        }

        return Option::ranked($options);
    }

    /**
     * The plainest of the strokes that tries with the same errors cannot tell from the best: what a player would choose at equal odds.
     *
     * @param Option $chosen stays where nothing plainer is about as good
     */
    public function plainest(Layout $layout, Option $chosen, int $count, int $tries, int $seed): Option
    {
        $chosen = $this->tried($layout, $chosen->choice, $tries, $seed) ?? $chosen;
        $options = Option::ranked([$chosen, ...$this->options($layout, $count, $tries, $seed)]);
        $best = $options[0]->value;
        // One standard error of the difference: less than that of each, as they are tried with the same errors.
        $apart = min(self::ALIKE * $best, 0.5 * \sqrt($best * max(0.0, 1 - $best) / $tries));
        foreach ($options as $option) {
            if ($option->value >= $best - $apart && $option->fuss < $options[0]->fuss) {
                $options[0] = $option;
            }
        }

        return $options[0];
    }

    /**
     * Shots over cushions and other balls, tried out.
     *
     * @param float $step   of the direction of the cue that is looked with, degrees
     * @param bool  $isFirm whether a firm stroke is looked with too
     *
     * @return list<Option>
     */
    public function indirect(Layout $layout, float $step, int $count, int $tries, int $seed, bool $isFirm = false): array
    {
        $mask = Order::maskOf($layout);
        $on = BallsOn::of($this->values->tables->rack->game, $layout, $this->turn->group);
        $made = Order::balls($this->values->order->notKept($mask));
        $search = new IndirectSearch($this->values->tables->rack, $step);
        $options = [];
        foreach ($search->windows($layout, $on, $made, $count, $isFirm) as $choice) {
            $isDecided = null !== $this->values->constraints->lockedLeg($choice->ball)
                || $this->values->constraints->forbids($choice->ball, $choice->pocket);
            $option = $isDecided ? null : $this->tried($layout, $choice, $tries, $seed);
            if (null !== $option) {
                $options[] = $option;
            }
        }

        return $options;
    }

    /**
     * Strokes by the values of the grid, best first: for every way into a pocket the best speed of each roll and side.
     *
     * @return list<array{float, ShotChoice}>
     */
    public function ranked(Layout $layout): array
    {
        $cue = $layout->spot(Ball::Cue);
        $mask = Order::maskOf($layout);
        $tables = $this->values->tables;
        $ranked = $ways = [];
        foreach (Order::balls($this->values->order->next($mask)) as $ball) {
            $locked = $this->values->constraints->lockedLeg($ball);
            if (null !== $locked) {
                $ranked[] = [1.0, $locked];
                continue;
            }
            $left = $mask & ~Order::bit($ball);
            foreach ($tables->pots($ball, PlannerTables::KEPT) as $pot) {
                $view = 0 !== ($pot->blocking & $left)
                    || $this->values->constraints->forbids($ball, $pot->pocket) ? null : $pot->view($cue, $left);
                if (null !== $view) {
                    $ways[] = [max($view[3]) * $this->values->most($left), $pot, $view, $left];
                }
            }
        }
        // The most promising first: where a first plan is wanted, what cannot be worth as much as the best is not looked at.
        usort($ways, static fn (array $a, array $b): int => $b[0] <=> $a[0]);
        $best = 0.0;
        foreach ($ways as [$most, $pot, $view, $left]) {
            if ($this->values->isRough && $most <= $best) {
                break;
            }
            foreach ($this->strokes($pot, $view, $left, $cue->distanceTo($pot->line->ghost)) as [$value, $stroke]) {
                $ranked[] = [$value, new ShotChoice($pot->ball, $pot->pocket, $stroke, $pot->line->asideMetres())];
                $best = max($best, $value);
            }
        }
        usort($ranked, static fn (array $a, array $b): int => $b[0] <=> $a[0]);

        return $ranked;
    }

    /**
     * The best speed of each roll and side of one way into a pocket.
     *
     * @param array{float, int, int, non-empty-list<float>} $view as PotCandidate gives it
     *
     * @return list<array{float, Stroke}>
     */
    private function strokes(PotCandidate $pot, array $view, int $left, float $distance): array
    {
        $lattice = $this->values->tables->lattice;
        [$place, $row, , $chances] = $view;
        $cut = min((int) $place, RouteTable::CUTS - 2);
        $low = $this->values->worth($pot, $cut, $left);
        $high = $this->values->worth($pot, $cut + 1, $left);
        $worth = [];
        foreach ($low as $node => $value) {
            $worth[] = $value + ($place - $cut) * ($high[$node] - $value);
        }
        $best = [];
        for ($speed = 0; $speed < StrokeLattice::SPEEDS; ++$speed) {
            foreach (ValueTable::blurred($worth, $lattice->spreads[$row], $speed) as $node => $value) {
                $value *= StrokeLattice::chance($chances[$speed], $lattice->powers[$row][$node]) * $lattice->plain[$row][$node];
                $kind = $node % (StrokeLattice::ROLLED * StrokeLattice::SIDED);
                if ($value > ($best[$kind][0] ?? 0.0)) {
                    $best[$kind] = [$value, $node];
                }
            }
        }
        $strokes = [];
        foreach ($best as [$value, $node]) {
            $stroke = $lattice->strokeAt($distance, $node);
            if (null !== $stroke) {
                $strokes[] = [$value - ($this->weights->areNone() ? 0.0 : $this->weights->cost($stroke, $distance)), $stroke];
            }
        }

        return $strokes;
    }

    /**
     * A shot with the cue raised as far as a cushion or a ball behind the cue ball forces it, and no farther. A locked leg stays as it
     * is.
     *
     * @throws CoreError If it would have to be raised so far that it is another kind of shot
     */
    private function raised(Layout $layout, ShotChoice $choice, Aim $aim): ShotChoice
    {
        if (null !== $this->values->constraints->lockedLeg($choice->ball)) {
            return $choice;
        }
        $rack = $this->values->tables->rack;
        $stroke = $choice->stroke;
        $least = CueClearance::of($layout, $aim->direction, $stroke->tip, $rack->equipment)->least;
        if ($least > Stroke::RAISED) {
            throw IllegalStroke::outOfRange('elevation', $least, 0.0, Stroke::RAISED, 'degrees');
        }
        $elevation = max(ceil($least), min($stroke->elevation, StrokeLattice::ELEVATION));

        return $elevation === $stroke->elevation ? $choice : $choice->withStroke(new Stroke($stroke->tip, $stroke->speed, $elevation));
    }

    /** A shot aimed and played with the player's errors; null if it cannot be aimed. */
    public function tried(Layout $layout, ShotChoice $choice, int $tries, int $seed): ?Option
    {
        $rack = $this->values->tables->rack;
        try {
            $solver = $this->values->tables->solver;
            $shot = $solver->aimed($layout, $choice);
            $raised = $this->raised($layout, $choice, $shot->aim);
            if ($raised !== $choice) {
                $choice = $raised;
                $shot = $solver->aimed($layout, $choice);
            }
            $strike = $shot->strike;
            $rollouts = $solver->simulator->rollouts($layout);
            $errors = $rack->player->in($strike, ShotDemands::of($solver, $layout, $shot, $rack->player->growth));
        } catch (CoreError) {
            return null;
        }
        $random = new Randomness($seed);
        $sum = $handed = 0.0;
        $goingOn = $miscues = $cushions = 0;
        for ($try = 0; $try < $tries; ++$try) {
            try {
                $ending = $rollouts->play($errors->disturb($strike, $random, $rack->equipment->balls->radius));
                $verdict = $this->referee->judge($layout, $this->turn, $ending, $choice->ball, $choice->pocket, $strike);
                $worth = $this->worth($verdict, $choice, $ending);
                $sum += $worth;
                $goingOn += $worth > 0.0 ? 1 : 0;
                $cushions += $worth > 0.0 ? \count($ending->cushions) : 0;
                $handed += null === $this->leave || $verdict->goesOn ? 0.0 : $this->handed($this->leave, $verdict, $ending);
            } catch (IllegalStroke) {
                ++$miscues;
            } catch (SimulationLimit) {
                // Nothing that can be told: worth nothing.
                $handed += 1.0;
            }
        }
        // Few tries would find the stroke that just these do not miscue: how often it does is known better.
        $miscue = Miscue::chance($strike, $errors, $rack->equipment->balls->radius);
        $share = $miscues < $tries ? (1 - $miscue) * $tries / ($tries - $miscues) : 0.0;
        $sum *= $share;
        $handed = $share * $handed + $tries * $miscue;
        $cost = $this->weights->areNone() ? 0.0 : $this->weights->cost($choice->stroke, $shot->aim->ghost->distance);
        if ($this->weights->spot > 0.0) {
            $meant = $rollouts->play($strike);
            $sum += 0.01 * $this->weights->spot * ($share * $goingOn * $this->worth(
                $this->referee->judge($layout, $this->turn, $meant, $choice->ball, $choice->pocket, $strike),
                $choice,
                $meant,
            ) - $sum);
        }
        $cost += 0.01 * $this->weights->miss * $handed / $tries;

        return Option::of(
            $shot,
            max(self::LEAST * $sum / $tries, $sum / $tries - $cost),
            Plainness::of($choice->stroke, $cushions / max(1, $goingOn)),
        );
    }

    /**
     * A better stroke near an option's, by trying others and keeping what is better: speed, height and side in turn, in steps that
     * are halved (pattern search; Hooke and Jeeves, J. ACM 8, 1961).
     */
    public function polished(Layout $layout, Option $option, int $tries, int $seed, int $rounds): Option
    {
        $best = $this->tried($layout, $option->choice, $tries, $seed) ?? $option;
        if (null !== $this->values->constraints->lockedLeg($option->choice->ball)) {
            return $best;
        }
        $steps = [0.12, 0.12, 0.12];
        for ($round = 0; $round < $rounds; ++$round) {
            foreach ($steps as $axis => $step) {
                foreach ([$step, -$step] as $change) {
                    $choice = self::changed($best->choice, $axis, $change);
                    $other = null === $choice ? null : $this->tried($layout, $choice, $tries, $seed);
                    if (null !== $other && $other->rank() > $best->rank()) {
                        $best = $other;
                        break;
                    }
                }
            }
            $steps = array_map(static fn (float $step): float => 0.55 * $step, $steps);
        }

        return $best;
    }

    private static function changed(ShotChoice $choice, int $axis, float $change): ?ShotChoice
    {
        $stroke = $choice->stroke;
        try {
            $tip = Tip::fractions($stroke->tip->side + (2 === $axis ? $change : 0.0), $stroke->tip->height + (1 === $axis ? $change : 0.0));

            return hypot($tip->side, $tip->height) > StrokeLattice::FARTHEST
                ? null
                : $choice->withStroke(new Stroke($tip, $stroke->speed * (0 === $axis ? 1 + $change : 1.0), $stroke->elevation));
        } catch (IllegalStroke) {
            return null;
        }
    }

    /** The chance to finish after a shot has ended so. */
    private function worth(Verdict $verdict, ShotChoice $choice, Ending $ending): float
    {
        if (null !== $verdict->isWon) {
            return $verdict->isWon ? 1.0 : 0.0;
        }
        if (!$verdict->goesOn) {
            return 0.0;
        }
        // A money ball that came back early is still to be made, from another place.
        $after = Order::maskOf($ending->final) | array_sum(array_map(Order::bit(...), $verdict->spots));
        $trouble = $this->values->tables->trouble();
        $share = [] === $verdict->spots ? 1.0 : self::MOVED;
        $freed = 0;
        foreach ($ending->struckBut($choice->ball) as $ball) {
            $bit = Order::bit($ball) & $this->values->order->toCome($after);
            $freed |= $bit & $trouble;
            $share *= 0 !== ($bit & ~$trouble) ? self::MOVED : 1.0;
        }
        $cue = $ending->final->spot(Ball::Cue);

        return $share * $this->values->at($after, $cue->x, $cue->y, $freed);
    }

    /**
     * What a shot that ends the turn hands over: the chance of the other player's easiest pot; all after a foul, which gives him the ball
     * in hand.
     */
    private function handed(Leave $leave, Verdict $verdict, Ending $ending): float
    {
        return $verdict->givesAll() || BallInHand::None !== $verdict->inHand ? 1.0 : $leave->toOther($ending->final, $verdict->group);
    }
}
