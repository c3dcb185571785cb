<?php

declare(strict_types=1);

namespace ZigLane\App\Practice;

use ZigLane\App\Entity\DrillSession;
use ZigLane\App\Entity\DrillTry;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Practice\Par;
use ZigLane\Core\Practice\Target;
use ZigLane\Core\Practice\TargetKind;

/** A drill's session as the practice page shows it: the try that is next, and how it stands. */
final readonly class PracticeView
{
    /** Set-ups that a browser is given ahead, for when there is no network. */
    private const AHEAD = 12;

    public PlayedSession $played;
    public DrillCard $card;
    public Layout $layout;
    public bool $isOver;
    public int $player;

    /**
     * @param list<DrillTry>     $tries
     * @param Par|null           $par      of the hand that the player is held against
     * @param list<DrillSession> $sessions of this drill, the latest first
     */
    public function __construct(public DrillSession $session, public array $tries, public ?Par $par, private array $sessions)
    {
        $this->played = new PlayedSession($session, $tries);
        $this->card = new DrillCard($this->played->drill, $this->played->solver->equipment);
        $this->isOver = null !== $session->getEndedAt();
        $this->player = $this->played->player();
        $this->layout = $this->played->attempt()->layout;
    }

    /** The best score before this one; null where there is none. */
    public function bestBefore(): ?float
    {
        $best = null;
        foreach ($this->sessions as $one) {
            $isLike = $one->getLevel() === $this->session->getLevel() && $one->getVersion() === $this->session->getVersion();
            $isBefore = $one !== $this->session && $one->getStartedAt() <= $this->session->getStartedAt();
            if ($isLike && $isBefore && $one->isScored() && null !== $one->getEndedAt()) {
                $best = max($best ?? 0.0, (float) $one->getScore());
            }
        }

        return $best;
    }

    /** Par for as many tries as there were so far, where every try is like the other. */
    public function parSoFar(): ?float
    {
        $drill = $this->played->drill;
        $own = $this->played->series[0];
        if (null === $this->par || 0 === $this->par->runs() || $drill->goesOn || $drill->untilMiss || null !== $drill->moves) {
            return null;
        }

        return $this->par->mean() * min($own->tries, $drill->tries) / $drill->tries;
    }

    /** Whether the cue ball's end has to be told after a try that was done. */
    public function asksSpot(): bool
    {
        return $this->played->drill->goesOn || [] !== array_filter(
            $this->played->drill->targets,
            static fn (Target $target): bool => TargetKind::Opened !== $target->kind,
        );
    }

    public function asksOpened(): ?int
    {
        foreach ($this->played->drill->targets as $target) {
            if (TargetKind::Opened === $target->kind) {
                return $target->least;
            }
        }

        return null;
    }

    public function isInHand(): bool
    {
        return !$this->layout->has(Ball::Cue) && isset($this->played->drill->places[0]);
    }

    /** Whether balls other than the cue ball have to be put where they stopped. */
    public function drags(): bool
    {
        return [] !== array_filter(
            $this->played->drill->targets,
            static fn (Target $target): bool => TargetKind::Hidden === $target->kind || !\in_array($target->ball, [null, Ball::Cue], true),
        );
    }

    /** All that the browser needs to enter a try without the server. */
    public function state(): string
    {
        $drill = $this->played->drill;
        $equipment = $this->played->solver->equipment;
        $last = $this->tries[\count($this->tries) - 1] ?? null;
        $takes = $drill->task->value;

        return json_encode([
            'session' => (string) $this->session->getId(),
            'number' => \count($this->tries),
            'previous' => null === $last ? null : (string) $last->getId(),
            'balls' => (object) $this->spots($this->layout),
            'next' => $this->isOver || [] !== $this->session->getPlayers() ? [] : array_map(
                fn (Layout $layout): object => (object) $this->spots($layout),
                $this->played->series[$this->player]->later(self::AHEAD),
            ),
            'left' => $this->session->isScored() ? max(0, $drill->tries - $this->played->series[$this->player]->tries) : null,
            'task' => $takes,
            'pots' => 'pot' === $takes ? $drill->ball?->label() : null,
            'asksSpot' => $this->asksSpot(),
            'goesOn' => $drill->goesOn,
            'length' => $equipment->table->length,
            'radius' => $equipment->balls->radius,
        ], \JSON_THROW_ON_ERROR | \JSON_HEX_TAG);
    }

    /** @return array<string, array{float, float}> */
    private function spots(Layout $layout): array
    {
        $spots = [];
        foreach ($layout->balls() as $ball) {
            [$long, $short] = $layout->spot($ball)->inDiamonds($this->played->solver->equipment->table);
            $spots[$ball->label()] = [round($long, 4), round($short, 4)];
        }

        return $spots;
    }
}
