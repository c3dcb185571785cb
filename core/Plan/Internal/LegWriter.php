<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan\Internal;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Plan\BreakOff;
use ZigLane\Core\Plan\Leave;
use ZigLane\Core\Plan\Leg;
use ZigLane\Core\Plan\MissLeave;
use ZigLane\Core\Plan\Option;
use ZigLane\Core\Plan\Order;
use ZigLane\Core\Plan\Replays;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Spot;
use ZigLane\Core\PositionPlay\Lane;
use ZigLane\Core\PositionPlay\Zone;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Referee;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;
use ZigLane\Core\Stroke\CueClearance;
use ZigLane\Core\Table\Pocket;

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
    /** Odds of the next pot that count as in its zone. */
    public const ZONE = 0.6;
    /** Differences from this share on are told. */
    private const TOLD = 0.04;

    private ShotSolver $solver;

    public function __construct(private Rack $rack, private bool $isQuick = false)
    {
        $this->solver = new ShotSolver($rack->equipment);
    }

    /**
     * @param list<array{SolvedShot, Option, Policy}> $shots
     *
     * @return list<Leg>
     */
    public function legs(array $shots, Replays $replays): array
    {
        $legs = [];
        foreach ($shots as $i => [$shot, , $policy]) {
            $legs[] = $this->leg($i + 1, $shot, $shots[$i + 1][0] ?? null, $policy, $shots[$i + 1][2] ?? null, $replays);
        }

        return $legs;
    }

    private function leg(int $number, SolvedShot $shot, ?SolvedShot $next, Policy $policy, ?Policy $after, Replays $replays): Leg
    {
        $nextBall = $next?->choice->ball;
        $tries = $this->isQuick ? self::QUICK_TRIES : self::TRIES;
        $trials = Trials::of($shot, $this->solver, $this->rack->player, $tries, 1, $nextBall);
        $lines = null === $next ? [] : $this->lines($next);
        $zone = [] === $lines || $this->isQuick ? [] : Zone::of($lines, $this->rack->equipment)->polygons(self::ZONE);
        $lands = 0;
        foreach ($trials->landings as $landing) {
            $lands += null === $next || ([] !== $lines && Zone::best($lines, $landing) >= self::ZONE) ? 1 : 0;
        }
        $lane = [] === $lines || $this->isQuick ? null : Lane::of($shot, $lines, self::ZONE, $this->solver);
        $lane = $lane instanceof Lane ? $lane : null;
        $share = static fn (int $count): float => $count / $tries;
        $risks = ['scratch' => $share(array_sum($trials->scratches)), 'hook' => $share($trials->hooked), 'contact' => $share(0 === \count($trials->struck) ? 0 : max($trials->struck)), 'miscue' => $share($trials->miscues)];
        $misses = $this->isQuick || $this->isBreak($shot) ? null : MissLeave::of($trials->misses, $shot->layout, $policy->group, $shot->choice, new Referee($this->rack->game, $this->rack->rules), new Leave($this->rack, $this->solver));
        $reasons = $this->isQuick ? [] : [
            ...$this->trouble($shot, $policy),
            ...(null === $next || null === $after ? [] : $this->side($shot, $next, $after)),
            ...$this->way($lane, $nextBall),
            ...$this->cushion($shot),
            ...$this->raised($shot),
            ...$this->avoided($shot, $risks),
            ...$this->second($shot, $policy),
        ];

        return new Leg($number, $shot, $trials->chance(), $share($lands), $replays->chanceFrom($number), $risks, $misses, $zone, $lane, $reasons);
    }

    /** @return list<string> what comes after the break shot as meant */
    private function thenOn(Layout $opened): array
    {
        if (!$opened->has(Ball::Cue)) {
            return [];
        }
        $next = (new Leave($this->rack, $this->solver, 2 * \count(Pocket::cases())))->surest($opened, Order::balls(Replays::bits($opened)));

        return [null === $next ? 'then on: as meant nothing goes straight from there' : \sprintf('then on: as meant the %s in %s is the easiest from there, %.0f of 100', $next[0]->label(), $next[1]->value, 100 * $next[2])];
    }

    /** @return list<string> */
    private function raised(SolvedShot $shot): array
    {
        $clearance = CueClearance::of($shot->layout, $shot->strike->direction, $shot->choice->stroke->tip, $this->rack->equipment);

        return $clearance->least > StrokeLattice::ELEVATION ? [\sprintf('the cue raised to %.0f°, for %s is behind the cue ball', $shot->choice->stroke->elevation, $clearance->over instanceof Ball ? $clearance->over->spoken() : 'the '.($clearance->over->value ?? '').' rail')] : [];
    }

    /** Whether a whole rack lies there that did not before: the break shot of straight pool. */
    private function isBreak(SolvedShot $shot): bool
    {
        return Game::StraightPool === $this->rack->game && $shot->layout->count() > $this->rack->layout->count();
    }

    /** @return list<PotModel> of the next ball, over the pockets that it goes to; in a first plan over the one that is meant */
    private function lines(SolvedShot $next): array
    {
        return PotModel::findAll($next->layout, $next->choice->ball, $this->isQuick ? [$next->choice->pocket] : Pocket::cases(), $this->solver, $this->rack->player);
    }

    /** @return list<string> */
    private function trouble(SolvedShot $shot, Policy $policy): array
    {
        $tables = $policy->values->tables;
        $ball = $shot->choice->ball;
        if ($this->isBreak($shot)) {
            $moved = BreakOff::opened($shot->layout, $shot->outcome->final);

            return [
                \sprintf('the break shot: as meant it moves %d of the fourteen balls by more than %.0f cm', $moved, 100 * BreakOff::MOVED),
                ...$this->thenOn($shot->outcome->final),
            ];
        }
        if (null !== $shot->choice->direction) {
            return [\sprintf('nothing sends the %s straight to a pocket with better odds', $ball->label())];
        }
        $others = Replays::bits($shot->layout) & ~(1 << $ball->value);
        $open = array_filter($tables->pots($ball), static fn (PotCandidate $pot): bool => 0 === ($pot->blocking & $others));
        $moved = array_filter($shot->disturbed(), static fn (Ball $other): bool => 0 !== ($tables->trouble() & 1 << $other->value));

        return [
            ...(1 === \count($open) ? [\sprintf('%s is the only pocket open to the %s', $shot->choice->pocket->value, $ball->label())] : []),
            ...array_values(array_map(static fn (Ball $other): string => \sprintf('moves the %s, which goes nowhere as it lies', $other->label()), $moved)),
        ];
    }

    /**
     * Which side of the next line, and what the other side would be worth: the spot mirrored over that line.
     *
     * @return list<string>
     */
    private function side(SolvedShot $shot, SolvedShot $next, Policy $after): array
    {
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
        $mask = Replays::bits($shot->outcome->final);
        $worth = $after->values->at($mask, $here->x, $here->y);
        $other = $after->values->at($mask, $there->x, $there->y);
        if ($worth - $other < self::TOLD * max($worth, 0.25)) {
            return [];
        }

        return [\sprintf('the right side of the %s: from the other side of its line the run is worth %d of 100 in place of %d', $next->choice->ball->label(), (int) round(100 * $other), (int) round(100 * $worth))];
    }

    private function isOnTable(Spot $spot): bool
    {
        $radius = $this->rack->equipment->balls->radius;

        return $spot->x > $radius && $spot->y > $radius && $spot->x < $this->rack->equipment->table->length - $radius && $spot->y < $this->rack->equipment->table->width() - $radius;
    }

    /** @return list<string> */
    private function way(?Lane $lane, ?Ball $next): array
    {
        if (null === $lane || null === $next || null === $lane->angle) {
            return [];
        }
        $room = \sprintf('room for %.0f %% softer and %.0f %% harder', 100 * $lane->slower, 100 * $lane->harder);

        return match (true) {
            $lane->angle < 35.0 => [\sprintf('comes into the line of the %s, %s', $next->label(), $room)],
            $lane->angle > 55.0 => [\sprintf('crosses the line of the %s, %s', $next->label(), $room)],
            default => [$room],
        };
    }

    /**
     * How far a tenth more speed carries the stop, against what it would on the open cloth, where the run grows with the square of the
     * speed after the contact.
     *
     * @return list<string>
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
        $run = $shot->outcome->trajectory(Ball::Cue)->length() - (null === $contact ? 0.0 : $shot->layout->spot(Ball::Cue)->distanceTo($shot->aim->ghost->at));
        $open = 0.21 * $run;

        return $moved < 0.6 * $open && $open > 0.1 ? [\sprintf('the %s cushion takes off speed: a tenth too hard stops %.0f cm farther on and not %.0f', $cushions[0]->rail->value, 100 * $moved, 100 * $open)] : [];
    }

    /**
     * What the same pot at natural roll and medium speed would risk more.
     *
     * @param array{scratch: float, hook: float, contact: float, miscue: float} $risks
     *
     * @return list<string>
     */
    private function avoided(SolvedShot $shot, array $risks): array
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
            if ($count / self::TRIES > $risks['scratch'] + 2 * self::TOLD) {
                $reasons[] = \sprintf('rolled naturally at medium speed the cue ball scratches in %s %d times of 100', $pocket, (int) round(100 * $count / self::TRIES));
            }
        }
        foreach ($trials->struck as $number => $count) {
            if ($count / self::TRIES > $risks['contact'] + 4 * self::TOLD) {
                $reasons[] = \sprintf('rolled naturally it runs into the %d %d times of 100', $number, (int) round(100 * $count / self::TRIES));
                break;
            }
        }

        return $reasons;
    }

    /** @return list<string> */
    private function second(SolvedShot $shot, Policy $policy): array
    {
        if ($this->isBreak($shot)) {
            return [];
        }
        if (null !== $policy->values->constraints->lockedLeg($shot->choice->ball)) {
            return ['locked by you'];
        }
        $mine = $policy->tried($shot->layout, $shot->choice, 60, 3);
        foreach ($policy->options($shot->layout, 12, 60, 3) as $other) {
            $choice = $other->choice;
            if (null !== $mine && ($choice->ball !== $shot->choice->ball || $choice->pocket !== $shot->choice->pocket)) {
                $less = 100 * ($mine->value - $other->value);

                return $less < 0.5 ? [] : [\sprintf('second best: the %s in %s, %.0f points less', $choice->ball->label(), $choice->pocket->value, $less)];
            }
        }

        return [];
    }
}
