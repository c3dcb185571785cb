<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Rules\Game;

/**
 * What a rack is worth between two players of whom only the pace and the number of balls left are known: visits follow each other, and in
 * each the shooter goes on with the chances of his pace (a Markov chain; solved from the last ball backwards). In chances to win; in
 * straight pool in balls, the shooter's less the other's, until one ball is left.
 *
 * Cost: the product of the balls left of both.
 */
final class Race
{
    /** What a third foul in a row costs in straight pool besides the one. */
    private const SERIES = 15.0;
    private const ROUNDS = 40;
    private const WHATS = ['fresh', 'safe', 'hand', 'later'];

    /** @var array<string, float> by what, player and balls left of both */
    private array $values = [];

    /** @param array{Pace, Pace} $paces */
    public function __construct(private readonly Game $game, private readonly array $paces)
    {
    }

    public function skill(int $player): float
    {
        return $this->paces[$player]->skill;
    }

    /** One who comes to the table after the other's miss. */
    public function fresh(int $shooter, int $own, int $other): float
    {
        return $this->value('fresh', $shooter, $own, $other);
    }

    /** One who has the ball in hand. */
    public function hand(int $shooter, int $own, int $other): float
    {
        return $this->value('hand', $shooter, $own, $other);
    }

    /**
     * One who comes to a position of which his easiest pot is known.
     *
     * @param float $pot     its chance, 0 if nothing goes straight
     * @param bool  $sees    any of a ball on
     * @param bool  $isThird whether a foul now is the third in a row: it loses the rack, or in straight pool fifteen more
     */
    public function from(int $shooter, int $own, int $other, float $pot, bool $sees, bool $isThird = false): float
    {
        if ($own < 1) {
            return $this->isPool() ? 0.0 : 1.0;
        }
        $pace = $this->paces[$shooter];

        return $this->step(
            $pace->from('on', $own, $pot, $sees),
            $pace->from('foulFrom', $own, $pot, $sees),
            $pace->from('tightFrom', $own, $pot, $sees),
            $shooter,
            $own,
            $other,
            $isThird,
        );
    }

    /**
     * The chance to make all one has to from a position without giving the turn away.
     *
     * @param int   $left balls to make
     * @param float $pot  chance of the easiest pot
     */
    public function runOut(int $shooter, int $left, float $pot, bool $sees): float
    {
        $pace = $this->paces[$shooter];
        $chance = $left > 0 ? $pace->from('on', $left, $pot, $sees) : 1.0;
        for ($later = $left - 1; $later > 0; --$later) {
            $chance *= $pace->usual('later', $later);
        }

        return $chance;
    }

    /** The same as the other sees it. */
    public function turned(float $value): float
    {
        return $this->isPool() ? -$value : 1 - $value;
    }

    private function value(string $what, int $shooter, int $own, int $other): float
    {
        if (!isset($this->values["$what $shooter $own $other"])) {
            $this->solve($shooter, $own, $other);
        }

        return $this->values["$what $shooter $own $other"];
    }

    /** A shot that goes on with a chance, or else is a foul, or else a safety or a miss. */
    private function step(float $goesOn, float $foul, float $tight, int $shooter, int $own, int $other, bool $isThird = false): float
    {
        // To the other.
        $fouled = match (true) {
            $this->isPool() => $this->value('hand', 1 - $shooter, $other, $own) + 1.0 + ($isThird ? self::SERIES : 0.0),
            $isThird => 1.0,
            default => $this->value('hand', 1 - $shooter, $other, $own),
        };
        $passed = $foul * $fouled
            + (1 - $foul) * $tight * $this->value('safe', 1 - $shooter, $other, $own)
            + (1 - $foul) * (1 - $tight) * $this->value('fresh', 1 - $shooter, $other, $own);

        return $goesOn * $this->gain($shooter, $own, $other) + (1 - $goesOn) * $this->turned($passed);
    }

    /**
     * All values for so many balls: those of both players hang on each other, and are brought nearer step by step; each step brings the
     * error down by the chance that neither goes on, which is well below 1.
     */
    private function solve(int $shooter, int $own, int $other): void
    {
        $sides = [[$shooter, $own, $other], [1 - $shooter, $other, $own]];
        foreach ($sides as [$player, $mine, $his]) {
            foreach (self::WHATS as $what) {
                $this->values["$what $player $mine $his"] = $this->isPool() ? 0.0 : ($mine < 1 ? 1.0 : 0.5);
            }
        }
        for ($round = 0; $own > 0 && $other > 0 && $round < self::ROUNDS; ++$round) {
            foreach ($sides as [$player, $mine, $his]) {
                foreach (self::WHATS as $what) {
                    $pace = $this->paces[$player];
                    $this->values["$what $player $mine $his"] = $this->step(
                        $pace->usual($what, $mine), $pace->usual('foul', $mine), $pace->usual('tight', $mine), $player, $mine, $his,
                    );
                }
            }
        }
    }

    /** What is won by going on. */
    private function gain(int $shooter, int $own, int $other): float
    {
        $point = $this->isPool() ? 1.0 : 0.0;
        $less = $this->game->rules()->hasGroups ? $other : $own - 1;

        return $point + (1 === $own ? 1.0 - $point : $this->value('later', $shooter, $own - 1, $less));
    }

    private function isPool(): bool
    {
        return $this->game->rules()->countsBalls;
    }
}
