<?php

declare(strict_types=1);

namespace ZigLane\App\Log;

use ZigLane\App\Analysis\PlanView;
use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\Shot;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Language\SpeedWords;
use ZigLane\App\Sheet\ShotUnits;
use ZigLane\App\Words\ShotReport;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Log\Continuation;
use ZigLane\Core\Log\LoggedShot;
use ZigLane\Core\Log\RackResult;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\Leg;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Rack;

/** A rack at the table as the shoot page shows it: what to shoot now, and what became of the last shot. */
final readonly class TableView
{
    public ?PlanView $run;
    /** Name of the plan in entries. */
    public ?string $plan;
    /** What is shown was planned before the last shot. */
    public bool $isOld;
    public ?PlanJob $job;
    public ?LoggedShot $last;
    /** How the last shot ended the turn; null where it goes on. */
    public ?RackResult $turnEnd;
    public ShotUnits $units;

    /** @param list<Shot> $shots */
    public function __construct(public ShotRack $rack, public array $shots, PlanAtTable $plans)
    {
        $number = \count($shots);
        $this->units = new ShotUnits($rack->getNow()->equipment, $rack->getOwner()->getTipUnit());
        $this->job = $plans->job($rack, $number);
        $this->last = 0 === $number ? null : $shots[$number - 1]->logged();
        $this->turnEnd = null === $this->last ? null : self::endOf($rack->getNow(), $this->last);
        $known = $plans->of($rack, $number);
        $old = null === $known && null === $this->turnEnd ? $plans->before($rack, $number) : null;
        $this->isOld = null !== $old;
        $this->plan = $known[0] ?? $old[0] ?? null;
        $file = $known[1] ?? $old[1] ?? null;
        $this->run = null === $file ? null : new PlanView($file, 0, $old[2] ?? 1);
    }

    private static function endOf(Rack $now, LoggedShot $last): ?RackResult
    {
        try {
            $before = $now->afterShot($last->before);

            return Continuation::of($before, $last->ball, $last->kind, $last->result)->end;
        } catch (CoreError) {
            return null;
        }
    }

    public function leg(): ?Leg
    {
        return $this->run?->leg;
    }

    /** Nothing good is left: the plan says so, or there is none. */
    public function isPoor(): bool
    {
        return null !== $this->run && !$this->isOld && $this->run->plan->isPoor();
    }

    public function isOver(): bool
    {
        return null !== $this->rack->getEnd();
    }

    /** Balls made in a row since the last miss. */
    public function inARow(): int
    {
        $run = 0;
        foreach (array_reverse($this->shots) as $shot) {
            if (true !== $shot->isMade()) {
                break;
            }
            ++$run;
        }

        return $run;
    }

    /** Of how many shots the chalk is due. */
    public function isChalkDue(): bool
    {
        $every = $this->rack->getOwner()->getChalkEvery();

        return $every > 0 && \count($this->shots) > 0 && 0 === \count($this->shots) % $every;
    }

    /** How the aim is off the ghost ball; null for a shot over cushions or other balls. */
    public function aim(): ?Fact
    {
        $shot = $this->run?->shot();

        return null === $shot || null !== $shot->choice->direction ? null : (new ShotReport($shot, $this->rack->getNow()->equipment))->aim;
    }

    /** All that the browser needs to log a shot without the server. */
    public function state(): string
    {
        $table = $this->rack->getNow()->equipment->table;
        $spots = [];
        foreach ($this->rack->getNow()->layout->balls() as $ball) {
            [$long, $short] = $this->rack->getNow()->layout->spot($ball)->inDiamonds($table);
            $spots[$ball->label()] = [round($long, 4), round($short, 4)];
        }
        $last = $this->shots[\count($this->shots) - 1] ?? null;
        $plan = $this->run?->plan;

        return json_encode([
            'rack' => (string) $this->rack->getId(),
            'givesHand' => BallInHand::None !== $this->rack->getGame()->rules()->afterFoul(false),
            'number' => \count($this->shots),
            'previous' => null === $last ? null : (string) $last->getId(),
            'balls' => (object) $spots,
            'inHand' => !$this->rack->getNow()->layout->has(Ball::Cue),
            'place' => null === $plan?->place || $this->isOld ? null : array_map(
                static fn (float $diamonds): float => round($diamonds, 3),
                $plan->place->inDiamonds($table),
            ),
            'isOver' => $this->isOver(),
            'turnEnd' => $this->turnEnd?->value,
            'plan' => $this->plan,
            'leg' => $this->run?->number,
            'drawn' => $this->job?->getDrawn() ?? -1,
            'isPlanning' => null !== $this->job && !$this->job->getState()->isOver(),
            'legs' => null === $plan ? [] : array_map($this->words(...), $plan->legs),
            'length' => $table->length,
            'perTip' => $this->rack->getNow()->equipment->offsetPerTip(),
            'radius' => $this->rack->getNow()->equipment->balls->radius,
        ], \JSON_THROW_ON_ERROR | \JSON_HEX_TAG);
    }

    /** @return array<string, mixed> a leg in the words of the page */
    private function words(Leg $leg): array
    {
        $table = $this->rack->getNow()->equipment->table;
        $stroke = $leg->choice->stroke;
        $lengths = $this->units->lengths->lengths($stroke->speed);
        $landing = $leg->landing?->inDiamonds($table);

        return [
            'number' => $leg->number,
            'ball' => $leg->choice->ball->label(),
            'pocket' => $leg->choice->pocket->value,
            'tip' => $stroke->tip->clock().', '.$this->units->tipText($stroke->tip),
            'side' => $stroke->tip->side,
            'height' => $stroke->tip->height,
            'speed' => \sprintf('%.1f', $lengths),
            'words' => SpeedWords::of($lengths),
            'landing' => null === $landing ? null : [round($landing[0], 2), round($landing[1], 2)],
            'cutsLeft' => null !== $leg->cut && ($this->run->shots[$leg->number - 1]?->aim->ghost->cutsLeft ?? false),
            'isStraight' => null === $leg->cut || $leg->cut < 2.0,
        ];
    }
}
