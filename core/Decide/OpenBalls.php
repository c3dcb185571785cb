<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Sight;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Table\Equipment;

/** Which balls have a free way to some pocket, whatever the cue ball does: what of a layout stays good or bad for a player for a while. */
final class OpenBalls
{
    /** Layouts that are kept: most tries move only a few balls, and many none. */
    private const KEPT = 500;

    private readonly Sight $sight;

    /** @var array<string, array{float, float}> */
    private array $known = [];

    public function __construct(private readonly Equipment $equipment)
    {
        $this->sight = new Sight($equipment->balls);
    }

    /** @return \Generator<Pocket> to which a ball's way is free */
    public function pockets(Layout $layout, Ball $ball): \Generator
    {
        $others = $layout->without($ball)->without(Ball::Cue);
        $spot = $layout->spot($ball);
        foreach (Pocket::cases() as $pocket) {
            if ($this->sight->isFree($others, $spot, $this->equipment->geometry->at($pocket)->target($spot), Sight::TIGHT)) {
                yield $pocket;
            }
        }
    }

    /**
     * The shares of the balls of the shooter and of the other player that are open; in games with common balls twice the same.
     *
     * @return array{float, float}
     */
    public function shares(Situation $situation): array
    {
        $layout = $situation->layout->without(Ball::Cue);
        $key = ($situation->group->value ?? '').json_encode($layout->places(), \JSON_THROW_ON_ERROR);
        if (\count($this->known) > self::KEPT) {
            $this->known = [];
        }

        return $this->known[$key] ??= $this->counted($situation, $layout);
    }

    /** @return array{float, float} */
    private function counted(Situation $situation, Layout $layout): array
    {
        $open = $all = [0, 0];
        foreach ($layout->balls() as $ball) {
            $isOpen = $this->pockets($layout, $ball)->valid() ? 1 : 0;
            foreach ($this->whose($situation, $ball) as $player) {
                $open[$player] += $isOpen;
                ++$all[$player];
            }
        }

        return [$open[0] / max(1, $all[0]), $open[1] / max(1, $all[1])];
    }

    /** @return list<int> 0 the shooter, 1 the other */
    private function whose(Situation $situation, Ball $ball): array
    {
        if (!$situation->game->rules()->hasGroups || Ball::Eight === $ball) {
            return [0, 1];
        }
        $group = $situation->group ?? Group::Open;

        return Group::Open === $group ? [0, 1] : [$group->has($ball) ? 0 : 1];
    }
}
