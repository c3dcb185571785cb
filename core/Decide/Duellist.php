<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Plan\ThreeAhead;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Table\Spot;

/**
 * One of the two players of a duel, who decides in a tenth of a second: the best of the pots that a sound player thinks of
 * (ThreeAhead), banks and kicks where none is easy, and safeties unless he plays none; a few tries of each.
 */
final readonly class Duellist
{
    /** Tries of each way, and again of the best of either kind. */
    private const TRIES = 24;
    private const AGAIN = 40;
    /** A pot that is surer than this is played without thinking of a safety, and below the other one banks and kicks are thought of. */
    private const SURE = 0.85;
    private const HARD = 0.35;
    /** Safeties that are tried to the end. */
    private const SAFETIES = 4;
    /** Places of the cue ball in hand that are thought of. */
    private const PLACES = 4;

    private ThreeAhead $chooser;
    private HandPlaces $places;

    /** @param int $player which of the two players of the values: 0 or 1 */
    public function __construct(
        private Rack $rack,
        private PositionValue $value,
        private ShotSolver $solver,
        private int $player,
        private bool $playsSafe = true,
    ) {
        $this->chooser = new ThreeAhead($rack->withPlayer($value->players[$player]), $solver, grid: PositionValue::GRID, isQuick: true);
        $this->places = new HandPlaces($rack, $solver, $value->players[$player]);
    }

    /** @return array{Way, WayTally}|null what he does; null where nothing at all can be hit */
    public function choose(Situation $situation, int $seed): ?array
    {
        $trials = new WayTrials($situation, $this->rack, $this->value, $this->solver);
        $attack = new AttackSearch($this->rack, $situation, $trials, $this->solver, $this->value->players[$this->player]);
        $best = null;
        $isHard = $this->value->look($situation)->pot < self::HARD;
        foreach ($this->places($situation) as $place) {
            foreach ($attack->quick($this->chooser, $isHard, $place) as $way) {
                $tried = [$way, $trials->tally($way, self::TRIES, $seed)];
                $best = $this->playsSafe ? self::better($trials, $best, $tried) : self::likelier($best, $tried);
            }
        }
        if ($situation->standing->mayPass && $this->playsSafe) {
            $pass = new Way(WayKind::Pass);
            $best = self::better($trials, $best, [$pass, $trials->tally($pass, 1, $seed)]);
        }
        $isSure = null !== $best && $best[1]->share($best[1]->made) > self::SURE;
        if ($isSure || (null !== $best && !$this->playsSafe)) {
            return $best;
        }
        $search = new SafetySearch($this->rack, $situation, $trials, $this->solver, $this->value->players[$this->player]);
        $place = $situation->isInHand() ? $this->places->seeing($situation, 1)[0] ?? null : null;
        if ($situation->isInHand() && null === $place) {
            return $best;
        }
        if (!$this->playsSafe) {
            return $search->surestHit($seed, $place);
        }
        $safest = null;
        foreach ($search->find(Effort::Quick, $seed, self::SAFETIES, $place) as [$way]) {
            $safest = self::better($trials, $safest, [$way, $trials->tally($way, self::TRIES, $seed)]);
        }

        return null === $best || null === $safest ? $best ?? $safest : self::better(
            $trials,
            $this->again($trials, $best, $seed),
            $this->again($trials, $safest, $seed),
        );
    }

    /** @return list<Spot|null> */
    private function places(Situation $situation): array
    {
        if (!$situation->isInHand()) {
            return [null];
        }

        return array_column($this->places->of($situation, self::PLACES), 0);
    }

    /**
     * The best of its kind, tried anew: what was found by being the luckiest of several would be taken for better than it is, and attacks,
     * which are all or nothing, the more so.
     *
     * @param array{Way, WayTally} $best
     *
     * @return array{Way, WayTally}
     */
    private function again(WayTrials $trials, array $best, int $seed): array
    {
        return [$best[0], $trials->tally($best[0], self::AGAIN, ($seed + 1_000_003) & 0x7FFFFFFF)];
    }

    /**
     * Who plays no safeties thinks of his own run alone: of what is made with a next shot, and then of what is made.
     *
     * @param array{Way, WayTally}|null $best
     * @param array{Way, WayTally}      $other
     *
     * @return array{Way, WayTally}
     */
    private static function likelier(?array $best, array $other): array
    {
        return null === $best || [$other[1]->position, $other[1]->made] > [$best[1]->position, $best[1]->made] ? $other : $best;
    }

    /**
     * @param array{Way, WayTally}|null $best
     * @param array{Way, WayTally}      $other
     *
     * @return array{Way, WayTally}
     */
    private static function better(WayTrials $trials, ?array $best, array $other): array
    {
        return null === $best || $trials->rank($other[1]) > $trials->rank($best[1]) ? $other : $best;
    }
}
