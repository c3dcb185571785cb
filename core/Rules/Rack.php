<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\IllegalLayout;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Table\Cue;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/**
 * A layout with the game it belongs to and the equipment and the player that it is for. Every ball is used in the game and
 * lies where it can; spots are kept to GRAIN, so that a rack file holds exactly what is computed with.
 */
final readonly class Rack
{
    /** Decimals of a diamond to which spots are kept: a third of a micrometre. */
    public const GRAIN = 6;

    public Layout $layout;

    /**
     * @throws IllegalLayout If a ball is not used in the game or cannot lie where it is: the first fault
     */
    public function __construct(
        public Game $game,
        Layout $layout,
        public Equipment $equipment = new Equipment(),
        public ExecutionErrors $player = new ExecutionErrors(),
        public BallInHand $ballInHand = BallInHand::None,
        public ?Group $group = null,
        public RuleOptions $rules = new RuleOptions(),
        public Standing $standing = new Standing(),
    ) {
        $this->layout = $layout->grained($equipment->table, self::GRAIN);
        foreach (self::faults($game, $this->layout, $equipment) as $fault) {
            throw $fault;
        }
    }

    /** @throws IllegalLayout If the balls cannot lie so in this game */
    public function withLayout(Layout $layout): self
    {
        return $this->but($layout, $this->player, $this->ballInHand, $this->group, $this->rules);
    }

    /** @return list<Ball> the object balls on the table, in the order of the game */
    public function objectBalls(): array
    {
        return $this->game->rules()->lying($this->layout);
    }

    public function withPlayer(ExecutionErrors $player): self
    {
        return $this->but($this->layout, $player, $this->ballInHand, $this->group, $this->rules);
    }

    /** The rack with the cue ball in hand: it is taken off. */
    public function inHand(BallInHand $where): self
    {
        return $this->but(
            BallInHand::None === $where ? $this->layout : $this->layout->without(Ball::Cue),
            $this->player,
            $where,
            $this->group,
            $this->rules,
        );
    }

    /** The rack before a shot that follows another: the cue ball lies where it lies, and nothing that came before counts any more. */
    public function afterShot(Layout $layout): self
    {
        return new self($this->game, $layout, $this->equipment, $this->player, BallInHand::None, $this->group, $this->rules);
    }

    public function withGroup(?Group $group): self
    {
        return $this->but($this->layout, $this->player, $this->ballInHand, $group, $this->rules);
    }

    /** The rack by other choices of the rules. */
    public function withRules(RuleOptions $rules): self
    {
        return $this->but($this->layout, $this->player, $this->ballInHand, $this->group, $rules);
    }

    private function but(Layout $layout, ExecutionErrors $player, BallInHand $inHand, ?Group $group, RuleOptions $rules): self
    {
        return new self($this->game, $layout, $this->equipment, $player, $inHand, $group, $rules, $this->standing);
    }

    /**
     * On another table: the balls lie where they lay in diamonds.
     *
     * @throws IllegalLayout If they cannot lie so there
     */
    public function onTable(Equipment $equipment): self
    {
        $layout = $this->layout->onTable($this->equipment->table, $equipment->table);
        foreach (self::faults($this->game, $layout, $equipment) as $fault) {
            throw $fault;
        }

        return new self($this->game, $layout, $equipment, $this->player, $this->ballInHand, $this->group, $this->rules, $this->standing);
    }

    /** With what came before this shot. */
    public function withStanding(Standing $standing): self
    {
        return new self(
            $this->game,
            $this->layout,
            $this->equipment,
            $this->player,
            $this->ballInHand,
            $this->group,
            $this->rules,
            $standing,
        );
    }

    /** @throws IllegalLayout If the ball cannot lie there */
    public function withBall(Ball $ball, Spot $spot): self
    {
        return $this->withLayout($this->layout->with($ball, $spot));
    }

    /** @return list<IllegalLayout> every fault of such a layout in such a game */
    public static function faults(Game $game, Layout $layout, Equipment $equipment): array
    {
        $faults = [];
        foreach ($layout->balls() as $ball) {
            if (!$game->uses($ball)) {
                $faults[] = IllegalLayout::notInTheGame($ball, $game->value, $game->rules()->highest);
            }
        }

        return [...$faults, ...(new LayoutRules($equipment))->faults($layout)];
    }
}
