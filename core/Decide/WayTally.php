<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Math\Normal;

/**
 * What came of many tries of one way. Tallies of different tries add up, whoever counted them.
 */
final class WayTally
{
    /** Ends of the balls that are kept, for drawing. */
    private const ENDS = 120;
    /** What a position is worth is itself known to some half a point: tries that all come to the same do not make it surer. */
    private const RESOLUTION = 0.0025;

    public int $tries = 0;
    /** Sum of what the tries are worth, and of the squares. */
    public float $worth = 0.0;
    public float $squares = 0.0;
    public int $legal = 0;
    /** The called ball dropped in the called pocket; and the player goes on with a pot of Plan::ZONE or more, or has won. */
    public int $made = 0;
    public int $position = 0;
    /** Sum of what the made ones are worth. */
    public float $worthMade = 0.0;
    public int $scratches = 0;
    /** Fouls, scratches among them. */
    public int $fouls = 0;
    public int $lost = 0;
    /** A ball dropped that was not meant to. */
    public int $dropped = 0;
    /** The turn passes to an opponent with an easy pot or the ball in hand. */
    public int $soldOut = 0;
    /** Tries after which the turn passes without the ball in hand; of these, he sees no ball on; sums of his best pot and of his value. */
    public int $passes = 0;
    public int $hooks = 0;
    public float $pot = 0.0;
    /** Over all tries after which he comes to the table. */
    public int $turns = 0;
    public float $faced = 0.0;
    /** Of an attack: tries that miss without a foul, and the sum of the pots that they leave. */
    public int $misses = 0;
    public float $left = 0.0;
    /** Tries of which the ply after them was played too: the sum of what that changed, and of the squares. */
    public int $deeper = 0;
    public float $change = 0.0;
    public float $changeSquares = 0.0;

    /** @var list<list<array{float, float}|null>> where the cue ball and the ball met first stop, metres; null for one that drops */
    public array $ends = [];

    /** A try, by what it is worth. */
    public function add(float $worth): void
    {
        ++$this->tries;
        $this->worth += $worth;
        $this->squares += $worth ** 2;
    }

    /** @param list<array{float, float}|null> $end */
    public function end(array $end): void
    {
        if (\count($this->ends) < self::ENDS) {
            $this->ends[] = $end;
        }
    }

    /** What the way is worth: the mean of the tries, with what the deeper of them changed. */
    public function mean(): float
    {
        return $this->worth / max(1, $this->tries) + (0 === $this->deeper ? 0.0 : $this->change / $this->deeper);
    }

    /** Share of the tries that keep the table: a good next shot, or an opponent who has no easy one. */
    public function kept(): float
    {
        return ($this->position + $this->turns - $this->soldOut) / max(1, $this->tries);
    }

    /** @return array{float, float} what it is worth where it is made, and where it is missed; both as the deeper tries move the mean */
    public function madeAndMissed(): array
    {
        $change = 0 === $this->deeper ? 0.0 : $this->change / $this->deeper;

        return [
            $this->worthMade / max(1, $this->made) + $change,
            ($this->worth - $this->worthMade) / max(1, $this->tries - $this->made) + $change,
        ];
    }

    /** Standard error of that. */
    public function error(): float
    {
        if ($this->tries < 2) {
            return \INF;
        }

        $tried = hypot(
            Normal::errorOfMean($this->worth, $this->squares, $this->tries),
            $this->deeper < 2 ? 0.0 : Normal::errorOfMean($this->change, $this->changeSquares, $this->deeper),
        );

        return hypot($tried, self::RESOLUTION);
    }

    /** @return array{float, float} of the mean at 95 percent */
    public function interval(): array
    {
        $half = $this->tries < 2 ? 1.0 : Normal::NINETY_FIVE * $this->error();

        return [$this->mean() - $half, $this->mean() + $half];
    }

    public function share(int $count): float
    {
        return $count / max(1, $this->tries);
    }

    public function plus(self $other): self
    {
        $numbers = [];
        foreach ($this->numbers() as $name => $value) {
            $numbers[$name] = $value + $other->numbers()[$name];
        }
        $sum = self::fromArray($numbers);
        $sum->ends = \array_slice([...$this->ends, ...$other->ends], 0, self::ENDS);

        return $sum;
    }

    /** @param iterable<self> $tallies */
    public static function sum(iterable $tallies): self
    {
        $sum = new self();
        foreach ($tallies as $tally) {
            $sum = $sum->plus($tally);
        }

        return $sum;
    }

    /** @return array<string, int|float> */
    private function numbers(): array
    {
        return [
            'tries' => $this->tries,
            'legal' => $this->legal,
            'made' => $this->made,
            'position' => $this->position,
            'scratches' => $this->scratches,
            'fouls' => $this->fouls,
            'lost' => $this->lost,
            'dropped' => $this->dropped,
            'soldOut' => $this->soldOut,
            'passes' => $this->passes,
            'hooks' => $this->hooks,
            'turns' => $this->turns,
            'misses' => $this->misses,
            'deeper' => $this->deeper,
            'worth' => $this->worth,
            'worthMade' => $this->worthMade,
            'squares' => $this->squares,
            'pot' => $this->pot,
            'faced' => $this->faced,
            'left' => $this->left,
            'change' => $this->change,
            'changeSquares' => $this->changeSquares,
        ];
    }

    /** @return array<string, int|float|list<list<array{float, float}|null>>> */
    public function toArray(): array
    {
        return [...$this->numbers(), 'ends' => $this->ends];
    }

    /** @param array<mixed> $numbers as toArray gives them; what is no number counts as nought */
    public static function fromArray(array $numbers): self
    {
        $number = static fn (string $name): float => is_numeric($numbers[$name] ?? null) ? (float) $numbers[$name] : 0.0;
        $tally = new self();
        $tally->tries = (int) $number('tries');
        $tally->legal = (int) $number('legal');
        $tally->made = (int) $number('made');
        $tally->position = (int) $number('position');
        $tally->scratches = (int) $number('scratches');
        $tally->fouls = (int) $number('fouls');
        $tally->lost = (int) $number('lost');
        $tally->dropped = (int) $number('dropped');
        $tally->soldOut = (int) $number('soldOut');
        $tally->passes = (int) $number('passes');
        $tally->hooks = (int) $number('hooks');
        $tally->turns = (int) $number('turns');
        $tally->misses = (int) $number('misses');
        $tally->deeper = (int) $number('deeper');
        $tally->worth = $number('worth');
        $tally->worthMade = $number('worthMade');
        $tally->squares = $number('squares');
        $tally->pot = $number('pot');
        $tally->faced = $number('faced');
        $tally->left = $number('left');
        $tally->change = $number('change');
        $tally->changeSquares = $number('changeSquares');
        $ends = $numbers['ends'] ?? null;
        foreach (\is_array($ends) ? $ends : [] as $end) {
            $tally->end(array_map(self::spot(...), \is_array($end) ? array_values($end) : []));
        }

        return $tally;
    }

    /** @return array{float, float}|null */
    private static function spot(mixed $spot): ?array
    {
        return \is_array($spot) && is_numeric($spot[0] ?? null) && is_numeric($spot[1] ?? null)
            ? [(float) $spot[0], (float) $spot[1]]
            : null;
    }
}
