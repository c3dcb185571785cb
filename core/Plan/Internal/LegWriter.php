<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan\Internal;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Plan\BreakOff;
use ZigLane\Core\Plan\Leave;
use ZigLane\Core\Plan\Leg;
use ZigLane\Core\Plan\MissLeave;
use ZigLane\Core\Plan\Order;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Plan\Reason;
use ZigLane\Core\Plan\Risks;
use ZigLane\Core\Plan\StraightRun;
use ZigLane\Core\Plan\Tally;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\PositionPlay\Lane;
use ZigLane\Core\PositionPlay\Zone;
use ZigLane\Core\PositionPlay\ZoneLevel;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Rules\Referee;
use ZigLane\Core\Shot\CushionPoint;
use ZigLane\Core\Shot\IndirectSearch;
use ZigLane\Core\Shot\IndirectWay;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;
use ZigLane\Core\Stroke\CueClearance;
use ZigLane\Core\Table\Spot;

/**
 * Writes the legs of a planned run: odds from tries of each shot, and reasons, each told only where its numbers bear it out.
 *
 * @internal
 */
final readonly class LegWriter
{
    private const TRIES = 200;
    /** In a first plan, which is soon followed by better. */
    private const QUICK_TRIES = 50;
    /** Tries of a shot that is compared with others, and how many others. */
    private const COMPARED = 60;
    private const OTHERS = 12;
    /**
     * Mean chance over the table from which a ball is insurance: two in five from anywhere is open from nearly everywhere it can be seen.
     */
    private const INSURED = 0.4;
    /** Differences from this share on are told. */
    private const TOLD = 0.04;

    private ShotSolver $solver;

    public function __construct(private Rack $rack, private int $seed = 1, private bool $isQuick = false)
    {
        $this->solver = new ShotSolver($rack->equipment);
    }

    /**
     * @param list<PlannedShot>       $shots
     * @param Tally                   $replays of the whole
     * @param (\Closure(): bool)|null $hasTime when it has none the legs are written as those of a first plan
     *
     * @return list<Leg>
     */
    public function legs(array $shots, Tally $replays, ?\Closure $hasTime = null): array
    {
        $legs = [];
        foreach ($shots as $i => $planned) {
            $writer = null === $hasTime || $this->isQuick || $hasTime() ? $this : new self($this->rack, $this->seed, true);
            $legs[] = $writer->leg($i + 1, $planned, $shots[$i + 1] ?? null, 0 === $i ? $replays : new Tally());
        }

        return $legs;
    }

    private function leg(int $number, PlannedShot $planned, ?PlannedShot $after, Tally $replays): Leg
    {
        $shot = $planned->shot;
        $next = $after?->shot;
        $nextBall = $next?->choice->ball;
        $tries = $this->isQuick ? self::QUICK_TRIES : self::TRIES;
        $trials = Trials::of($shot, $this->solver, $this->rack->player, $tries, $this->seed * 7 + $number, $nextBall);
        $lines = null === $next ? [] : $this->lines($next);
        $zone = [] === $lines || $this->isQuick
            ? []
            : ZoneLevel::of(Zone::of($lines, $this->rack->equipment), [Plan::ZONE, ...Plan::DARKER]);
        $lands = 0;
        foreach ($trials->landings as $landing) {
            $lands += null === $next || ([] !== $lines && Zone::best($lines, $landing) >= Plan::ZONE) ? 1 : 0;
        }
        $lane = [] === $lines || $this->isQuick ? null : Lane::of($shot, $lines, Plan::ZONE, $this->solver);
        $lane = $lane instanceof Lane ? $lane : null;
        $share = $trials->shareOf(...);
        $risks = new Risks(
            $share(array_sum($trials->scratches)),
            $share($trials->hooked),
            $share(0 === \count($trials->struck) ? 0 : max($trials->struck)),
            $trials->miscue,
        );
        $reasons = $this->isQuick ? [] : [
            ...$this->trouble($planned),
            ...$this->kept($shot, $nextBall),
            ...(null === $after ? [] : $this->side($shot, $after)),
            ...(null === $lane?->angle || null === $nextBall ? [] : [Reason::way($nextBall, $lane->angle, $lane)]),
            ...$this->cushion($shot),
            ...$this->raised($shot),
            ...$this->avoided($shot, $risks),
            ...$this->second($planned),
        ];

        return new Leg(
            $number,
            $shot->choice,
            $shot->layout,
            $shot->strike->direction,
            null === $shot->choice->direction ? $shot->aim->ghost->cutDegrees : null,
            null === $shot->choice->direction ? $shot->aim->ghost->at : null,
            CushionPoint::of($shot),
            null === $shot->scratch() ? $shot->outcome->final->spot(Ball::Cue) : null,
            $trials->chance(),
            $share($lands),
            $share($this->goingOn($planned, $trials)),
            0 === $replays->tries ? null : $replays->chance(),
            $replays->tries,
            $risks,
            $this->isQuick || $this->isBreak($shot) ? null : $this->misses($planned, $trials),
            $zone,
            $lane,
            $reasons,
        );
    }

    /** Tries after which the player shoots again or has won, by the rules. */
    private function goingOn(PlannedShot $planned, Trials $trials): int
    {
        $choice = $planned->shot->choice;
        $referee = Referee::of($this->rack);
        $count = 0;
        foreach ([...$trials->pots, ...$trials->misses] as $ending) {
            $verdict = $referee->judge(
                $planned->shot->layout,
                $planned->turn,
                $ending,
                $choice->ball,
                $choice->pocket,
                $planned->shot->strike,
            );
            $count += $verdict->goesOn && false !== $verdict->isWon ? 1 : 0;
        }

        return $count;
    }

    private function misses(PlannedShot $planned, Trials $trials): MissLeave
    {
        return MissLeave::of(
            $trials->misses,
            $planned->shot->layout,
            $planned->turn,
            $planned->shot->choice,
            Referee::of($this->rack),
            new Leave($this->rack, $this->solver),
        );
    }

    /**
     * Straight pool: that a ball is the key ball or the break ball, and which else could be.
     *
     * @return list<Fact>
     */
    private function kept(SolvedShot $shot, ?Ball $next): array
    {
        if (!$this->rack->game->rules()->countsBalls) {
            return [];
        }
        $ball = $shot->choice->ball;
        if ($this->isBreak($shot)) {
            $others = array_values(array_filter(StraightRun::breakBalls($this->rack), static fn (Ball $other): bool => $other !== $ball));

            return $this->rack->layout->count() > 2 && null === Racking::racked($this->rack->layout, $this->rack->equipment)
                ? [Reason::breakBall($ball, $others[0] ?? null)]
                : [];
        }
        if (null === $next || $next !== StraightRun::breakBall($this->rack)) {
            return [];
        }
        $key = StraightRun::key($this->rack, $next);

        return [Reason::keyBall($ball, $next, $key === $ball ? null : $key)];
    }

    /** What comes after the break shot as meant. */
    private function thenOn(Layout $opened): Fact
    {
        $next = (new Leave($this->rack, $this->solver, 2 * \count(Pocket::cases())))->surest($opened, Order::balls(Order::maskOf($opened)));

        return Reason::thenOn($next[0] ?? null, $next[1] ?? null, $next[2] ?? null);
    }

    /** @return list<Fact> */
    private function raised(SolvedShot $shot): array
    {
        $stroke = $shot->choice->stroke;
        $clearance = CueClearance::of($shot->layout, $shot->strike->direction, $stroke->tip, $this->rack->equipment);

        return $clearance->least > StrokeLattice::ELEVATION && null !== $clearance->over
            ? [Reason::raised($stroke->elevation, $clearance->over)]
            : [];
    }

    /** Whether a whole rack lies there that did not before: the break shot of straight pool. */
    private function isBreak(SolvedShot $shot): bool
    {
        return $this->rack->game->rules()->countsBalls && null !== Racking::racked($shot->layout, $this->rack->equipment);
    }

    /** @return list<PotModel> of the next ball, over the pockets that it goes to; in a first plan over the one that is meant */
    private function lines(SolvedShot $next): array
    {
        return PotModel::findAll(
            $next->layout,
            $next->choice->ball,
            $this->isQuick ? [$next->choice->pocket] : Pocket::cases(),
            $this->solver,
            $this->rack->player,
        );
    }

    /** @return list<Fact> */
    private function trouble(PlannedShot $planned): array
    {
        $shot = $planned->shot;
        $ball = $shot->choice->ball;
        if ($this->isBreak($shot)) {
            $reasons = [Reason::breakShot(BreakOff::opened($shot->layout, $shot->outcome->final), BreakOff::MOVED)];

            return $shot->outcome->final->has(Ball::Cue) ? [...$reasons, $this->thenOn($shot->outcome->final)] : $reasons;
        }
        $way = IndirectSearch::wayOf($shot);
        if (null !== $way) {
            return [...$this->indirect($planned, $way), ...$this->freed($planned)];
        }
        $open = self::openWays($planned->policy->values->tables, $ball, Order::maskOf($shot->layout));

        return [
            ...(
                1 === \count($open)
                && $open[0]->pocket === $shot->choice->pocket ? [Reason::onlyPocket($ball, $shot->choice->pocket)] : []
            ),
            ...$this->freed($planned),
        ];
    }

    /**
     * Why a ball is not shot straight: what the best straight shot is worth beside this one, by the same tries.
     *
     * @return list<Fact>
     */
    private function indirect(PlannedShot $planned, IndirectWay $way): array
    {
        $policy = $planned->policy;
        $mine = $policy->tried($planned->shot->layout, $planned->shot->choice, self::COMPARED, 3);
        $best = $policy->options($planned->shot->layout, self::OTHERS, self::COMPARED, 3)[0] ?? null;
        $isWorse = null !== $mine && ($best->value ?? 0.0) < $mine->value;

        return $isWorse ? [Reason::indirect($way->fact(), $mine->value, null === $best || 0.0 === $best->value ? null : $best->value)] : [];
    }

    /**
     * Balls that went nowhere and that the shot as meant moves, with the pockets that they go to afterwards.
     *
     * @return list<Fact>
     */
    private function freed(PlannedShot $planned): array
    {
        $shot = $planned->shot;
        $trouble = $planned->policy->values->tables->trouble();
        $moved = array_filter(
            $shot->disturbed(),
            static fn (Ball $other): bool => 0 !== ($trouble & Order::bit($other)) && $shot->outcome->final->has($other),
        );
        if ([] === $moved || !$shot->goesOn()) {
            return [];
        }
        $values = $planned->policy->on($shot->outcome->final)->values;
        $after = $values->tables;
        $left = Order::maskOf($shot->outcome->final);
        $reasons = array_values(array_map(static function (Ball $other) use ($after, $left): Fact {
            $ways = \count(self::openWays($after, $other, $left));

            return 0 === $ways ? Reason::moves($other) : Reason::frees($other, $ways);
        }, $moved));
        $insurance = self::insurance($values, $left);

        return null === $insurance ? $reasons : [...$reasons, $insurance];
    }

    /** The ball that may be shot after a cluster was broken and goes from most of the table, if there is one. */
    private static function insurance(ValueTable $values, int $left): ?Fact
    {
        $best = null;
        $most = self::INSURED;
        foreach (Order::balls($values->order->next($left)) as $ball) {
            foreach (self::openWays($values->tables, $ball, $left) as $pot) {
                $share = $pot->reachShare();
                if ($share > $most && \count(Order::balls($values->order->next($left))) > 1) {
                    [$best, $most] = [$ball, $share];
                }
            }
        }

        return null === $best ? null : Reason::insurance($best, $most);
    }

    /** @return list<PotCandidate> the ways into a pocket that none of the balls on the table blocks */
    private static function openWays(PlannerTables $tables, Ball $ball, int $mask): array
    {
        $others = $mask & ~Order::bit($ball);

        return array_values(array_filter($tables->pots($ball), static fn (PotCandidate $pot): bool => 0 === ($pot->blocking & $others)));
    }

    /**
     * Which side of the next line, and what the other side would be worth: the spot mirrored over that line.
     *
     * @return list<Fact>
     */
    private function side(SolvedShot $shot, PlannedShot $after): array
    {
        $next = $after->shot;
        if (!$shot->goesOn() || null !== $next->choice->direction || $next->aim->ghost->cutDegrees < 5.0) {
            return [];
        }
        $here = $shot->outcome->final->spot(Ball::Cue);
        $ghost = $next->aim->ghost;
        $turn = 2 * ($ghost->objectDirection + \M_PI - $ghost->at->directionTo($here));
        $there = $ghost->at->towards($ghost->at->directionTo($here) + $turn, $ghost->at->distanceTo($here));
        if (!$this->isOnTable($there)) {
            return [];
        }
        $mask = Order::maskOf($shot->outcome->final);
        $worth = $after->policy->values->at($mask, $here->x, $here->y);
        $other = $after->policy->values->at($mask, $there->x, $there->y);

        return $worth - $other < self::TOLD * max($worth, 0.25) ? [] : [Reason::rightSide($next->choice->ball, $worth, $other)];
    }

    private function isOnTable(Spot $spot): bool
    {
        $radius = $this->rack->equipment->balls->radius;

        return $spot->x > $radius
            && $spot->y > $radius
            && $spot->x < $this->rack->equipment->table->length - $radius
            && $spot->y < $this->rack->equipment->table->width() - $radius;
    }

    /**
     * How far a tenth more speed carries the stop, against what it would on the open cloth, where the run grows with the square of the
     * speed after the contact.
     *
     * @return list<Fact>
     */
    private function cushion(SolvedShot $shot): array
    {
        $cushions = $shot->cushions();
        if ([] === $cushions || null === $cushions[0]->rail || !$shot->goesOn()) {
            return [];
        }
        $harder = $this->solver->simulator->rollouts($shot->layout)->play($shot->strike->withSpeed(1.1 * $shot->strike->speed));
        if ($harder->isScratch()) {
            return [];
        }
        $moved = $shot->outcome->final->spot(Ball::Cue)->distanceTo($harder->final->spot(Ball::Cue));
        $contact = $shot->outcome->firstContact();
        $run = $shot->outcome->trajectory(Ball::Cue)
            ->length() - (null === $contact ? 0.0 : $shot->layout->spot(Ball::Cue)->distanceTo($shot->aim->ghost->at));
        $open = 0.21 * $run;

        return $moved < 0.6 * $open && $open > 0.1 ? [Reason::cushionSlows($cushions[0]->rail, $moved, $open)] : [];
    }

    /**
     * What the same pot at natural roll and medium speed would risk more.
     *
     * @return list<Fact>
     */
    private function avoided(SolvedShot $shot, Risks $risks): array
    {
        if (null !== $shot->choice->direction || $this->isBreak($shot)) {
            return [];
        }
        $line = PotModel::find($shot->layout, $shot->choice->ball, $shot->choice->pocket, $this->solver, $this->rack->player);
        if (null === $line) {
            return [];
        }
        try {
            $natural = $this->solver->solve($shot->layout, $line->choice($shot->layout->spot(Ball::Cue)));
        } catch (CoreError) {
            return [];
        }
        $trials = Trials::of($natural, $this->solver, $this->rack->player, self::TRIES);
        $reasons = [];
        foreach ($trials->scratches as $pocket => $count) {
            if ($count / self::TRIES > $risks->scratch + 2 * self::TOLD) {
                $reasons[] = Reason::naturalScratches(Pocket::from($pocket), $count / self::TRIES);
            }
        }
        foreach ($trials->struck as $number => $count) {
            if ($count / self::TRIES > $risks->contact + 4 * self::TOLD) {
                $reasons[] = Reason::naturalRunsInto(Ball::from($number), $count / self::TRIES);
                break;
            }
        }

        return $reasons;
    }

    /** @return list<Fact> */
    private function second(PlannedShot $planned): array
    {
        $shot = $planned->shot;
        $policy = $planned->policy;
        if ($this->isBreak($shot) || [] !== $policy->sound($shot->layout)) {
            return [];
        }
        if (null !== $policy->values->constraints->lockedLeg($shot->choice->ball)) {
            return [Reason::locked()];
        }
        $mine = $policy->tried($shot->layout, $shot->choice, self::COMPARED, 3);
        foreach ($policy->options($shot->layout, self::OTHERS, self::COMPARED, 3) as $other) {
            $choice = $other->choice;
            if (null !== $mine && ($choice->ball !== $shot->choice->ball || $choice->pocket !== $shot->choice->pocket)) {
                $less = $mine->value - $other->value;

                return $less < 0.005 ? [] : [Reason::secondBest($choice->ball, $choice->pocket, $less)];
            }
        }

        return [];
    }
}
