<?php

declare(strict_types=1);

namespace ZigLane\App\Messenger;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Shot;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Log\LoggedCost;
use ZigLane\App\Message\CostRack;
use ZigLane\App\Message\OfAccount;
use ZigLane\App\Repository\ShotLog;
use ZigLane\App\Work\LongWork;
use ZigLane\App\Work\Workbench;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Log\Continuation;
use ZigLane\Core\Log\LoggedShot;
use ZigLane\Core\Log\RackResult;
use ZigLane\Core\Log\ShotKind;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\PlanSearch;
use ZigLane\Core\Plan\ShotValues;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;

/**
 * What each shot of a rack cost, from the last to the first: the best from there less the stroke that was chosen, and that less what came
 * of it. Written down after every shot, so that the page can show how far it is.
 */
#[AsMessageHandler]
final readonly class CostRackHandler implements LongWork
{
    /** For a position, seconds. */
    private const SECONDS = 3.0;
    /** For a rack, seconds of a processor: a hundred shots and more. */
    private const LONGEST = 600.0;

    public function __construct(private ShotLog $log, private EntityManagerInterface $manager, private Workbench $bench)
    {
    }

    public function __invoke(CostRack $message): void
    {
        $this->bench->work($message, self::LONGEST, fn () => $this->cost($message));
    }

    private function cost(CostRack $message): void
    {
        $rack = $this->manager->find(ShotRack::class, Uuid::fromString($message->rackId));
        if (null === $rack || $rack->isDeleted()) {
            return;
        }
        $shots = array_map(static fn (Shot $shot): LoggedShot => $shot->logged(), $this->log->shots($rack));
        $costs = [];
        $now = $rack->getNow();
        $after = null;
        for ($i = \count($shots) - 1; $i >= 0; --$i) {
            $this->bench->beat();
            $shot = $shots[$i];
            [$before, $next] = $this->positions($now, $shot);
            $worth = match (true) {
                null === $next || !$next->goesOn => null !== $next && $next->isOver && RackResult::Out === $next->end ? 1.0 : 0.0,
                default => $after ?? ($this->values($next->rack)?->best()[0] ?? null)?->score() ?? 0.0,
            };
            $values = null === $before ? null : $this->values($before);
            $cost = $values?->cost(self::choice($shot), $worth);
            $after = null === $values || null === $values->best() ? null : $values->best()[0]->score();
            $costs[$i] = null === $cost ? null : LoggedCost::toArray($cost);
            $this->write($rack, $costs, \count($shots));
        }
        if ([] === $shots) {
            $this->write($rack, [], 0);
        }
    }

    /** @return array{Rack|null, Continuation|null} the rack before the shot, and what followed */
    private function positions(Rack $now, LoggedShot $shot): array
    {
        try {
            $before = $now->afterShot($shot->before);
            $next = Continuation::of($before, $shot->ball, $shot->kind, $shot->result);

            return [ShotKind::Break === $shot->kind || null !== PlanSearch::refusal($before) ? null : $before, $next];
        } catch (CoreError) {
            return [null, null];
        }
    }

    private function values(Rack $rack): ?ShotValues
    {
        try {
            return null === PlanSearch::refusal($rack) ? new ShotValues($rack, self::SECONDS) : null;
        } catch (CoreError) {
            return null;
        }
    }

    private static function choice(LoggedShot $shot): ?ShotChoice
    {
        $meant = $shot->meant;
        if (null === $meant || null === $shot->ball || null === $shot->pocket || !$shot->before->has(Ball::Cue)) {
            return null;
        }

        return new ShotChoice(
            $shot->ball,
            $shot->pocket,
            new Stroke(Tip::fractions($meant->side, $meant->height), $meant->speed, rad2deg($meant->elevation)),
            0.0,
            ShotKind::Pot === $shot->kind ? null : $meant->direction,
        );
    }

    /** @param array<int, array<string, mixed>|null> $costs by number from 0 */
    private function write(ShotRack $rack, array $costs, int $of): void
    {
        ksort($costs);
        $this->manager->getConnection()->executeStatement(
            'UPDATE shot_rack SET costs = ? WHERE id = ?',
            [json_encode(['of' => $of, 'shots' => (object) $costs], \JSON_THROW_ON_ERROR), $rack->getId()->toBinary()],
        );
    }

    public static function message(): string
    {
        return CostRack::class;
    }

    public function giveUp(OfAccount $message, Fact $why): void
    {
        $rack = $this->manager->find(ShotRack::class, Uuid::fromString($message->about()));
        if (null !== $rack) {
            // The shots that were weighed stand.
            $this->manager->refresh($rack);
            $shots = $rack->getCosts()['shots'] ?? [];
            $shots = \is_array($shots) ? $shots : [];
            $this->manager->getConnection()->executeStatement(
                'UPDATE shot_rack SET costs = ? WHERE id = ?',
                [json_encode(['of' => \count($shots), 'shots' => (object) $shots], \JSON_THROW_ON_ERROR), $rack->getId()->toBinary()],
            );
        }
    }
}
