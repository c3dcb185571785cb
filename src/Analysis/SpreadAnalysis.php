<?php

declare(strict_types=1);

namespace ZigLane\App\Analysis;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Plan\Leave;
use ZigLane\Core\Plan\MissLeave;
use ZigLane\Core\Rules\Referee;
use ZigLane\Core\Rules\Turn;

/** Where the cue ball stops in many tries with the player's errors, and what else happens in them. */
final readonly class SpreadAnalysis implements ShotAnalysis
{
    private const TRIES = 300;
    /** Chance of a miscue from which on it is told. */
    private const TOLD = 0.002;
    /** Pots of the other player that are looked at after a miss. */
    private const LOOKED = 2;

    private function __construct(public Trials $trials, private Ball $ball, private ?Ball $next, private MissLeave $misses)
    {
    }

    public static function of(AnalysisRequest $request): self
    {
        $rack = $request->rack;
        $shot = $request->shot;
        $trials = Trials::of($shot, $request->solver, $rack->player, self::TRIES, 1, $request->next);
        $misses = MissLeave::of(
            $trials->misses,
            $shot->layout,
            Turn::first($rack),
            $shot->choice,
            Referee::of($rack),
            new Leave($rack, $request->solver, self::LOOKED),
        );

        return new self($trials, $shot->choice->ball, $request->next, $misses);
    }

    public function facts(): array
    {
        $share = $this->trials->shareOf(...);
        $risks = [];
        foreach ($this->trials->scratches as $pocket => $count) {
            $risks[] = new Fact('risk.scratchIn', ['pocket' => Pocket::from($pocket), 'share' => $share($count)]);
        }
        foreach ($this->trials->struck as $number => $count) {
            $risks[] = new Fact('risk.struck', ['ball' => Ball::from($number), 'share' => $share($count)]);
        }
        if (null !== $this->next && $this->trials->hooked > 0) {
            $risks[] = new Fact('risk.hookedOn', ['next' => $this->next, 'share' => $share($this->trials->hooked)]);
        }
        if ($this->trials->miscue >= self::TOLD) {
            $risks[] = new Fact('risk.miscue', ['share' => $this->trials->miscue]);
        }

        $misses = $this->misses->fact();

        return [
            new Fact('spread.tries', ['tries' => $this->trials->count, 'madeShare' => $share($this->trials->made), 'ball' => $this->ball]),
            [] === $risks ? new Fact('spread.noRisks') : new Fact('spread.risks', ['risks' => $risks]),
            ...(null === $misses ? [] : [$misses]),
        ];
    }

    public function suggestions(): array
    {
        return [];
    }

    public function hasMore(): bool
    {
        return false;
    }
}
