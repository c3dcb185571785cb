<?php

declare(strict_types=1);

namespace ZigLane\Core\Odds;

use ZigLane\Core\Math\Normal;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Miscue;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Sight;
use ZigLane\Core\Shot\ShotDemands;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;
use ZigLane\Core\Table\Spot;

/**
 * A shot played many times with the player's errors, each through the full simulation: how often the ball is made, where the cue
 * ball then stops, what else happens. The same seed gives the same trials.
 */
final readonly class Trials
{
    /** Normal quantile of a 90 percent interval. */
    public const NINETY = 1.6448536269514722;

    /**
     * @param int                $count     tries
     * @param int                $made      the called ball drops in the called pocket, whatever the cue ball does
     * @param int                $clean     made, no scratch, and no ball but the called one struck
     * @param int                $clear     no scratch, and no ball but the called one struck, made or not
     * @param int                $miscues   the tip lands past the miscue limit: counted as misses
     * @param int                $thick     misses after a hit that was fuller than meant
     * @param int                $thin      misses after a hit that was thinner than meant, or that missed the ball
     * @param array<string, int> $scratches by pocket
     * @param array<int, int>    $struck    tries in which another ball was struck, by its number
     * @param int                $hooked    tries, of those made without a scratch, after which the next ball cannot be met straight
     * @param list<Spot>         $landings  where the cue ball stops after each made try without a scratch
     * @param list<Ending>       $misses    how the tries end in which the called ball does not drop in the called pocket, but for miscues
     * @param list<Ending>       $pots      how those end in which it does
     * @param float              $miscue    chance of a miscue as it is computed, 0 to 1: few tries would be half a point off
     */
    private function __construct(
        public int $count,
        public int $made,
        public int $clean,
        public int $clear,
        public int $miscues,
        public int $thick,
        public int $thin,
        public array $scratches,
        public array $struck,
        public int $hooked,
        public array $landings,
        public array $misses,
        public array $pots,
        public float $miscue,
    ) {
    }

    /** @param Ball|null $next the ball after this one, for hooks */
    public static function of(
        SolvedShot $shot, ShotSolver $solver, ExecutionErrors $errors, int $count, int $seed = 1,
        ?Ball $next = null,
    ): self {
        $random = new Randomness($seed);
        $rollouts = $solver->simulator->rollouts($shot->layout);
        $balls = $solver->equipment->balls;
        $sight = new Sight($balls);
        $called = $shot->choice->ball;
        $made = $clean = $clear = $miscues = $thick = $thin = $hooked = 0;
        $scratches = $struck = $landings = $misses = $pots = [];
        $next = null !== $next && $shot->layout->has($next) && $next !== $called ? $next : null;
        $deviations = $errors->in($shot->strike, ShotDemands::ofSolved($shot, $solver->equipment, $errors->growth));
        for ($i = 0; $i < $count; ++$i) {
            try {
                $strike = $deviations->disturb($shot->strike, $random, $balls->radius);
            } catch (IllegalStroke) {
                ++$miscues;
                continue;
            }
            $ending = $rollouts->play($strike);
            $others = $ending->struckBut($called);
            foreach ($others as $ball) {
                $struck[$ball->value] = ($struck[$ball->value] ?? 0) + 1;
            }
            $clear += [] === $others && !$ending->isScratch() ? 1 : 0;
            if ($ending->isScratch()) {
                $pocket = $ending->pocketed[Ball::Cue->value]->value;
                $scratches[$pocket] = ($scratches[$pocket] ?? 0) + 1;
            }
            if ($ending->pocketOf($called) !== $shot->choice->pocket) {
                // Left of the meant line is fuller when the ball is to be cut to the right, and the other way round.
                $left = $strike->direction + $strike->squirt() > $shot->strike->direction + $shot->strike->squirt();
                $left === !$shot->aim->ghost->cutsLeft ? ++$thick : ++$thin;
                $misses[] = $ending;
                continue;
            }
            ++$made;
            $pots[] = $ending;
            if ($ending->isScratch()) {
                continue;
            }
            $clean += [] === $others ? 1 : 0;
            $landing = $ending->final->spot(Ball::Cue);
            $landings[] = $landing;
            if (null !== $next && $ending->final->has($next) && 0.0 === $sight->seen($ending->final, $landing, $next)[0]) {
                ++$hooked;
            }
        }
        arsort($scratches);
        arsort($struck);

        return new self(
            $count,
            $made,
            $clean,
            $clear,
            $miscues,
            $thick,
            $thin,
            $scratches,
            $struck,
            $hooked,
            $landings,
            $misses,
            $pots,
            Miscue::chance($shot->strike, $deviations, $balls->radius),
        );
    }

    /** Chance that the called ball drops in the called pocket. */
    public function chance(): float
    {
        return $this->shareOf($this->made);
    }

    /** @return array{float, float} of that chance, at 95 percent, with the same computed chance of a miscue */
    public function chanceInterval(): array
    {
        $struck = $this->count - $this->miscues;

        return 0 === $struck
            ? [0.0, 0.0]
            : array_map(fn (float $edge): float => $edge * (1 - $this->miscue), self::interval($this->made, $struck));
    }

    /** What a number of the tries that are no miscues is as a share of all shots, with the computed chance of a miscue. */
    public function shareOf(int $tries): float
    {
        return $this->miscues < $this->count ? $tries / ($this->count - $this->miscues) * (1 - $this->miscue) : 0.0;
    }

    /** @return array{float, float, float} a share with its 95 percent interval; all of 0 to 1 is open where nothing was tried */
    public static function told(int $hits, int $count): array
    {
        return $count > 0 ? [$hits / $count, ...self::interval($hits, $count)] : [0.0, 0.0, 1.0];
    }

    /**
     * What the chance may be after so many tries, at 95 percent (Wilson, J. Am. Stat. Assoc. 22, 1927).
     *
     * @return array{float, float}
     */
    public static function interval(int $hits, int $count): array
    {
        $z = Normal::NINETY_FIVE;
        $p = $hits / $count;
        $middle = ($p + $z ** 2 / (2 * $count)) / (1 + $z ** 2 / $count);
        $half = $z / (1 + $z ** 2 / $count) * \sqrt($p * (1 - $p) / $count + $z ** 2 / (4 * $count ** 2));

        return [max(0.0, $middle - $half), min(1.0, $middle + $half)];
    }

    /**
     * Share of the landings that are where they should be, of all tries.
     *
     * @param \Closure(Spot): bool $isThere
     */
    public function share(\Closure $isThere): float
    {
        return $this->shareOf(\count(array_filter($this->landings, $isThere)));
    }

    /** Share of the tries without a scratch and without a ball struck but the called one, whether that is potted or not. */
    public function stayingClear(): float
    {
        return $this->shareOf($this->clear);
    }

    /**
     * The smallest convex outline that holds a share of the landings: those farthest from the middle are left out one by one
     * (convex hull peeling would need more points; distances are weighed by the spread along each principal axis).
     *
     * @return list<Spot> in order round the outline; empty with fewer than three landings
     */
    public function outline(float $share): array
    {
        $n = \count($this->landings);
        if ($n < 3) {
            return [];
        }
        $mx = array_sum(array_map(static fn (Spot $spot): float => $spot->x, $this->landings)) / $n;
        $my = array_sum(array_map(static fn (Spot $spot): float => $spot->y, $this->landings)) / $n;
        $xx = $xy = $yy = 1e-12;
        foreach ($this->landings as $spot) {
            $xx += ($spot->x - $mx) ** 2 / $n;
            $xy += ($spot->x - $mx) * ($spot->y - $my) / $n;
            $yy += ($spot->y - $my) ** 2 / $n;
        }
        $determinant = max($xx * $yy - $xy ** 2, 1e-18);
        $weighed = [];
        foreach ($this->landings as $i => $spot) {
            [$dx, $dy] = [$spot->x - $mx, $spot->y - $my];
            $weighed[$i] = ($yy * $dx ** 2 - 2 * $xy * $dx * $dy + $xx * $dy ** 2) / $determinant;
        }
        asort($weighed);
        $kept = array_map(fn (int $i): Spot => $this->landings[$i], \array_slice(array_keys($weighed), 0, max(3, (int) ceil($share * $n))));

        return self::hull($kept);
    }

    /**
     * Convex hull (Andrew, Information Processing Letters 9, 1979).
     *
     * @param list<Spot> $spots
     *
     * @return list<Spot>
     */
    private static function hull(array $spots): array
    {
        usort($spots, static fn (Spot $a, Spot $b): int => [$a->x, $a->y] <=> [$b->x, $b->y]);
        $turn = static fn (Spot $a, Spot $b, Spot $c): float => ($b->x - $a->x) * ($c->y - $a->y) - ($b->y - $a->y) * ($c->x - $a->x);
        $hull = [];
        foreach ([$spots, array_reverse($spots)] as $way) {
            $chain = [];
            foreach ($way as $spot) {
                // Ends: each round takes a spot away.
                while (\count($chain) > 1 && $turn($chain[\count($chain) - 2], $chain[\count($chain) - 1], $spot) <= 0.0) {
                    array_pop($chain);
                }
                $chain[] = $spot;
            }
            array_pop($chain);
            $hull = [...$hull, ...$chain];
        }

        return $hull;
    }
}
