<?php

declare(strict_types=1);

namespace ZigLane\App\Drawing;

use ZigLane\App\Log\ReviewView;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Table\Spot;

/** A shot of a rack as drawn for its review: what was meant faint, what came of it strong. */
final readonly class ReviewDrawing
{
    private const TRUE = 0.002;

    public TableDrawing $table;
    /** The route that was meant, as path data; empty where none is known. */
    public string $meant;
    /** @var array{float, float}|null where the cue ball was meant to stop, and where it did */
    public ?array $landing;
    /** @var array{float, float}|null */
    public ?array $real;

    public function __construct(ReviewView $view, bool $upright)
    {
        $shot = $view->shot();
        $this->table = new TableDrawing($view->before(), $upright);
        $projection = $this->table->projection;
        $outcome = $view->meant();
        $landing = $shot->landing ?? (true === $outcome?->final->has(Ball::Cue) ? $outcome->final->spot(Ball::Cue) : null);
        $this->meant = null === $outcome ? '' : $projection->path($outcome->trajectory(Ball::Cue)->points(self::TRUE));
        $this->landing = null === $landing ? null : $projection->point($landing);
        $real = null !== $shot && $shot->result->after->has(Ball::Cue) ? $shot->result->after->spot(Ball::Cue) : null;
        $this->real = $real instanceof Spot ? $projection->point($real) : null;
    }
}
