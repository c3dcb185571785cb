<?php

declare(strict_types=1);

namespace ZigLane\App\Practice;

use ZigLane\App\Entity\DrillSession;
use ZigLane\App\Entity\DrillTry;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\IllegalLayout;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Practice\Attempt;
use ZigLane\Core\Practice\Drill;
use ZigLane\Core\Practice\Judge;
use ZigLane\Core\Practice\Series;
use ZigLane\Core\Practice\TryScore;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Table\Spot;

/** A session with its tries scored one after the other: who is to play, what is set up, and what each has. */
final class PlayedSession
{
    public readonly Drill $drill;
    public readonly ShotSolver $solver;
    public ?TryScore $lastScore = null;

    /** @var non-empty-list<Series> by player */
    public readonly array $series;

    private readonly Judge $judge;

    /** @param list<DrillTry> $tries in order */
    public function __construct(public readonly DrillSession $session, public readonly array $tries)
    {
        $this->drill = $session->getDrill();
        $this->solver = new ShotSolver($session->getOwner()->getEquipment());
        // Odds of a next ball are those of a club player: a target is the same for everybody.
        $this->judge = new Judge(
            $this->drill,
            $this->solver,
            ExecutionErrors::presets()[ParDesk::USUAL],
        );
        $series = [];
        for ($player = 0; $player < max(1, \count($session->getPlayers())); ++$player) {
            $series[] = new Series($this->drill, $this->solver->equipment, $session->getSeed(), !$session->isScored());
        }
        $this->series = $series;
        foreach ($tries as $try) {
            $this->play($try);
        }
    }

    /** Whose turn it is: by turns, in a count of tries in a row one after the other. */
    public function player(): int
    {
        $next = 0;
        foreach ($this->series as $i => $one) {
            if ($this->series[$next]->isOver() && !$one->isOver()) {
                $next = $i;
            }
            $isBehind = $one->tries < $this->series[$next]->tries && !$this->drill->goesOn && !$this->drill->untilMiss;
            if (!$one->isOver() && $isBehind) {
                $next = $i;
            }
        }

        return $next;
    }

    public function isOver(): bool
    {
        foreach ($this->series as $one) {
            if (!$one->isOver()) {
                return false;
            }
        }

        return true;
    }

    /** @throws IllegalLayout If the balls cannot be set up */
    public function attempt(): Attempt
    {
        return $this->series[$this->player()]->attempt();
    }

    private function play(DrillTry $try): void
    {
        $series = $this->series[$try->getPlayer()] ?? $this->series[0];
        $attempt = $series->attempt();
        $after = $this->after($try);
        $score = $this->judge->scored($attempt, $try->isDone(), $after ?? Layout::empty(), $try->getOpened());
        $series->add($score, $after, $try->getMade() ?? 0);
        $this->lastScore = $score;
    }

    /** Where the balls lay, as far as it was entered. */
    private function after(DrillTry $try): ?Layout
    {
        $entered = $try->getAfter();
        if (null === $entered) {
            return null;
        }
        $layout = Layout::empty();
        foreach ($entered as $name => [$long, $short]) {
            $ball = Ball::named((string) $name);
            if (null !== $ball) {
                $layout = $layout->with($ball, Spot::diamonds($long, $short, $this->solver->equipment->table));
            }
        }

        return $layout;
    }
}
