<?php

declare(strict_types=1);

namespace ZigLane\Core\Position;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableProfile;

/**
 * Which balls lie on a table and where. The order is the order in which they were laid out and is kept. A layout by itself
 * may be unfinished or impossible; LayoutRules says whether the balls can lie so.
 */
final readonly class Layout
{
    /** @param array<int, Spot> $spots keyed by the ball's number, 0 for the cue ball */
    private function __construct(private array $spots)
    {
    }

    public static function empty(): self
    {
        return new self([]);
    }

    /** @return list<Ball> in the order in which they were laid out */
    public function balls(): array
    {
        return array_map(Ball::from(...), array_keys($this->spots));
    }

    public function has(Ball $ball): bool
    {
        return isset($this->spots[$ball->value]);
    }

    /** @throws IllegalLayout If the ball is not on the table */
    public function spot(Ball $ball): Spot
    {
        return $this->spots[$ball->value] ?? throw IllegalLayout::notOnTheTable($ball);
    }

    /** @return list<array{float, float}> metres, of its balls in their order */
    public function places(): array
    {
        return array_map(static fn (Spot $spot): array => [$spot->x, $spot->y], array_values($this->spots));
    }

    /** The same spots in diamonds on another table. */
    public function onTable(TableProfile $from, TableProfile $to): self
    {
        return new self(array_map(
            static fn (Spot $spot): Spot => Spot::diamonds(...[...$spot->inDiamonds($from), $to]),
            $this->spots,
        ));
    }

    /** As in a mirror along the middle of the table: right and left rail change places. */
    public function mirrored(TableProfile $table): self
    {
        return new self(array_map(static fn (Spot $spot): Spot => Spot::metres($spot->x, $table->width() - $spot->y), $this->spots));
    }

    /** Turned round, as seen from the foot rail. */
    public function turned(TableProfile $table): self
    {
        return new self(array_map(
            static fn (Spot $spot): Spot => Spot::metres($table->length - $spot->x, $table->width() - $spot->y),
            $this->spots,
        ));
    }

    /**
     * The same layout with every spot rounded to so many decimals of a diamond: as it is kept in files.
     *
     * @param int $decimals of a diamond
     */
    public function grained(TableProfile $table, int $decimals): self
    {
        $spots = [];
        foreach ($this->spots as $number => $spot) {
            [$long, $short] = $spot->inDiamonds($table);
            $spots[$number] = Spot::diamonds(round($long, $decimals), round($short, $decimals), $table);
        }

        return new self($spots);
    }

    /** The same layout with the ball on that spot; a ball that lay on the table keeps its place in the order. */
    public function with(Ball $ball, Spot $spot): self
    {
        $spots = $this->spots;
        $spots[$ball->value] = $spot;

        return new self($spots);
    }

    public function without(Ball $ball): self
    {
        $spots = $this->spots;
        unset($spots[$ball->value]);

        return new self($spots);
    }

    public function count(): int
    {
        return \count($this->spots);
    }
}
