<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\BallsOn;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Spotting;
use ZigLane\Core\Rules\Standing;
use ZigLane\Core\Rules\Turn;
use ZigLane\Core\Rules\Verdict;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/** A position between two shots, with the one of two players who comes to it: 0, for whom the options are, or 1, the opponent. */
final readonly class Situation
{
    /**
     * @param Layout     $layout without the cue ball where it is in hand
     * @param Group|null $group  of the shooter, in eight-ball
     */
    public function __construct(
        public Game $game,
        public Layout $layout,
        public int $shooter = 0,
        public ?Group $group = null,
        public BallInHand $inHand = BallInHand::None,
        public Standing $standing = new Standing(),
    ) {
    }

    public static function of(Rack $rack): self
    {
        return new self(
            $rack->game,
            BallInHand::None === $rack->ballInHand ? $rack->layout : $rack->layout->without(Ball::Cue),
            0,
            $rack->game->rules()->group($rack->group),
            $rack->ballInHand,
            $rack->standing,
        );
    }

    public function turn(): Turn
    {
        return new Turn($this->group, BallInHand::Kitchen === $this->inHand, $this->standing->fouls);
    }

    public function isInHand(): bool
    {
        return BallInHand::None !== $this->inHand;
    }

    /** The cue ball placed, where it is in hand; the shot from behind the head string is still one. */
    public function placed(?Spot $spot): Layout
    {
        return null === $spot ? $this->layout : $this->layout->with(Ball::Cue, $spot);
    }

    /** What a shot leaves, and to whom; not asked where it has decided the rack. */
    public function after(Ending $ending, Verdict $verdict, Equipment $equipment): self
    {
        $layout = Spotting::back($ending->final, $verdict->spots, $equipment);
        $inHand = $verdict->goesOn ? BallInHand::None : $verdict->inHand;
        $standing = $this->standing->after($verdict->isFoul());

        return new self(
            $this->game,
            BallInHand::None === $inHand ? $layout : $layout->without(Ball::Cue),
            $verdict->goesOn ? $this->shooter : 1 - $this->shooter,
            $verdict->goesOn ? $verdict->group : $verdict->group?->other(),
            $inHand,
            $verdict->goesOn ? $standing : new Standing($standing->otherFouls, $standing->fouls, false, $verdict->othersChoice),
        );
    }

    /** The shot given back: the other player comes to the same position, and has to play. */
    public function passed(): self
    {
        $group = $this->group?->other();

        return new self($this->game, $this->layout, 1 - $this->shooter, $group, $this->inHand, $this->standing->turned());
    }

    /** @return list<Ball> that the shooter may meet first */
    public function on(): array
    {
        return BallsOn::of($this->game, $this->layout, $this->group);
    }

    /** @return list<Ball> that he may shoot at a pocket: on an open table not the 8 */
    public function shootable(): array
    {
        return BallsOn::toPot($this->game, $this->layout, $this->group);
    }

    /**
     * Balls that the shooter still has to make, and those of the other: in eight-ball the group and the 8, in the others all that are
     * left, in straight pool but for the last, with which the next rack is opened.
     *
     * @return array{int, int}
     */
    public function left(): array
    {
        $all = $this->layout->without(Ball::Cue)->count();
        if (!$this->game->rules()->hasGroups) {
            $left = $this->game->rules()->countsBalls ? max(0, $all - 1) : $all;

            return [$left, $left];
        }
        $solids = $stripes = 0;
        foreach ($this->layout->balls() as $ball) {
            $solids += Group::Solids->has($ball) ? 1 : 0;
            $stripes += Group::Stripes->has($ball) ? 1 : 0;
        }

        return match ($this->group) {
            Group::Solids => [$solids + 1, $stripes + 1],
            Group::Stripes => [$stripes + 1, $solids + 1],
            default => [min($solids, $stripes) + 1, max($solids, $stripes) + 1],
        };
    }
}
