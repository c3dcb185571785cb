<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Motion\Rollouts;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Foul;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Referee;
use ZigLane\Core\Rules\Verdict;
use ZigLane\Core\Shot\ShotSolver;

/** Tries ways out: each stroke with its player's errors through the full simulation, judged by the rules, and what it leaves valued. */
final class WayTrials
{
    /** A pot from which an opponent is taken to have been given the table. */
    public const EASY = 0.75;
    /** What keeping the table counts at the most in the order of ways, as a chance to win, and in balls. */
    private const KEPT = 0.02;
    private const KEPT_BALLS = 0.2;

    private readonly Referee $referee;
    private readonly bool $isOpening;

    /** @var array<string, Rollouts> by the place of the cue ball in hand */
    private array $rollouts = [];

    public function __construct(
        public readonly Situation $situation,
        private readonly Rack $rack,
        private readonly PositionValue $value,
        private readonly ShotSolver $solver,
    ) {
        $this->referee = Referee::of($rack);
        $this->isOpening = Opening::is($situation, $rack->equipment);
    }

    /**
     * By what ways are ranked: their worth, and where that is about the same, how often they keep the table. With many balls left the race
     * says next to nothing of one shot, and a player still wants the opponent away from an easy one, and of two pots the surer.
     */
    public function rank(WayTally $tally): float
    {
        $kept = $this->situation->game->rules()->countsBalls ? self::KEPT_BALLS : self::KEPT;

        return $tally->mean() + $kept * ($tally->kept() + 0.5 * $tally->share($tally->made));
    }

    /**
     * @param list<array{Way, WayTally}> $tried
     *
     * @return list<array{Way, WayTally}> the best first
     */
    public function ranked(array $tried): array
    {
        usort($tried, fn (array $a, array $b): int => $this->rank($b[1]) <=> $this->rank($a[1]));

        return $tried;
    }

    /** @param int $seed the same for ways that are compared: they meet the same errors */
    public function tally(Way $way, int $tries, int $seed): WayTally
    {
        $tally = new WayTally();
        if (WayKind::Pass === $way->kind || null === $way->strike || null === $way->errors) {
            $this->pass($tally);

            return $tally;
        }
        $random = new Randomness($seed);
        for ($try = 0; $try < $tries; ++$try) {
            $played = $this->play($way, $random);
            null === $played ? $this->miscue($tally) : $this->count($tally, $way, ...$played);
        }

        return $tally;
    }

    /** @return array{Ending, Verdict}|null one try; null for a miscue */
    public function play(Way $way, Randomness $random): ?array
    {
        if (null === $way->strike || null === $way->errors) {
            throw new \LogicException('There is no stroke to play.');
        }
        try {
            $ending = $this->rollouts($way)->play($way->errors->disturb($way->strike, $random, $this->rack->equipment->balls->radius));
        } catch (CoreError) {
            return null;
        }

        return [$ending, $this->judge($way, $ending)];
    }

    /** @return array{Ending, Verdict}|null the way as it is meant; null where it cannot be played */
    public function meant(Way $way): ?array
    {
        if (null === $way->strike) {
            return null;
        }
        try {
            $ending = $this->rollouts($way)->play($way->strike);
        } catch (CoreError) {
            return null;
        }

        return [$ending, $this->judge($way, $ending)];
    }

    /** What an ending is about worth to the one who plays. */
    public function worth(Ending $ending, Verdict $verdict): float
    {
        return $this->value->roughly()->of($this->situation, $ending, $verdict);
    }

    /** What it is about worth where nothing drops and the balls stay as they are: the other comes to the table. */
    public function worthMissed(): float
    {
        $situation = $this->situation->isInHand() ? $this->afterMiscue() : $this->situation->passed();

        return $this->value->race->turned($this->value->roughly()->look($situation)->win);
    }

    /** What it leaves, and to whom; null where the rack is decided. */
    public function left(Ending $ending, Verdict $verdict): ?Situation
    {
        return null !== $verdict->isWon ? null : $this->situation->after($ending, $verdict, $this->rack->equipment);
    }

    private function judge(Way $way, Ending $ending): Verdict
    {
        if ($this->isOpening) {
            return Opening::judge($ending);
        }
        $isAttack = WayKind::Attack === $way->kind;

        return WayKind::PushOut === $way->kind
            ? $this->referee->judgePush($this->situation->turn(), $ending)
            : $this->referee->judge(
                $this->before($way),
                $this->situation->turn(),
                $ending,
                $isAttack ? $way->choice?->ball : null,
                $isAttack ? $way->choice?->pocket : null,
                $way->strike,
            );
    }

    private function before(Way $way): Layout
    {
        return $this->situation->placed($way->place);
    }

    private function rollouts(Way $way): Rollouts
    {
        $key = null === $way->place ? '' : \sprintf('%.6f %.6f', $way->place->x, $way->place->y);
        if (\count($this->rollouts) > 40) {
            $this->rollouts = [];
        }

        return $this->rollouts[$key] ??= $this->solver->simulator->rollouts($this->before($way));
    }

    private function count(WayTally $tally, Way $way, Ending $ending, Verdict $verdict): void
    {
        $ball = $way->choice?->ball;
        $isAttack = WayKind::Attack === $way->kind;
        $isMade = $isAttack && null !== $ball && $ending->pocketOf($ball) === $way->choice->pocket;
        $next = $this->left($ending, $verdict);
        $look = null === $next ? null : $this->value->look($next);
        $worth = $this->isOpening && null !== $look
            ? Opening::worth($verdict, $this->value->race->turned($look->win))
            : $this->value->worth($verdict, $look);
        $tally->add($worth);
        $tally->legal += $verdict->isFoul() || false === $verdict->isWon ? 0 : 1;
        $tally->fouls += $verdict->isFoul() ? 1 : 0;
        $tally->scratches += \in_array(Foul::Scratch, $verdict->fouls, true) ? 1 : 0;
        $tally->lost += false === $verdict->isWon ? 1 : 0;
        $tally->made += $isMade ? 1 : 0;
        $tally->worthMade += $isMade ? $worth : 0.0;
        $tally->position += $isMade && $verdict->goesOn && (true === $verdict->isWon || ($look->pot ?? 0.0) >= Plan::ZONE) ? 1 : 0;
        $tally->dropped += \count(Referee::made($ending)) > ($isMade ? 1 : 0) ? 1 : 0;
        if (null !== $look && !$verdict->goesOn) {
            $this->faced($tally, $look, $isAttack && !$isMade && !$verdict->isFoul());
        }
        $tally->end([self::at($ending, Ball::Cue), null === $ball ? null : self::at($ending, $ball)]);
    }

    private function faced(WayTally $tally, Look $look, bool $isMiss): void
    {
        ++$tally->turns;
        $tally->faced += $look->win;
        $tally->soldOut += $look->isInHand || $look->pot >= self::EASY ? 1 : 0;
        if (!$look->isInHand) {
            ++$tally->passes;
            $tally->hooks += $look->sees ? 0 : 1;
            $tally->pot += $look->pot;
        }
        if ($isMiss) {
            ++$tally->misses;
            $tally->left += $look->pot;
        }
    }

    /** @return array{float, float}|null */
    private static function at(Ending $ending, Ball $ball): ?array
    {
        return $ending->final->has($ball) ? [round($ending->final->spot($ball)->x, 4), round($ending->final->spot($ball)->y, 4)] : null;
    }

    /** What a tip that slips off leaves: a foul, and the ball in hand for the other. */
    public function afterMiscue(): Situation
    {
        $s = $this->situation;

        return new Situation(
            $s->game,
            $s->layout->without(Ball::Cue),
            1 - $s->shooter,
            $s->group?->other(),
            $s->game->rules()->afterFoul(true),
            $s->standing->after(true)->turned(),
        );
    }

    private function miscue(WayTally $tally): void
    {
        $look = $this->value->look($this->afterMiscue());
        $tally->add($this->value->race->turned($look->win));
        ++$tally->fouls;
        $this->faced($tally, $look, false);
    }

    private function pass(WayTally $tally): void
    {
        $look = $this->value->look($this->situation->passed());
        $tally->add($this->value->race->turned($look->win));
        $tally->legal = 1;
        ++$tally->turns;
        $tally->faced = $look->win;
        ++$tally->passes;
        $tally->hooks += $look->sees ? 0 : 1;
        $tally->pot = $look->pot;
    }
}
