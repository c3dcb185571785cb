<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

use ZigLane\Core\Table\Spot;

/** The path of one ball through a shot: pieces that follow each other in time without a gap. */
final readonly class Trajectory
{
    /** @param non-empty-list<Segment> $segments */
    public function __construct(public array $segments)
    {
    }

    /**
     * @param list<array{float, int, float, float, float, float, float, float, float, float, float}> $track since, phase, x, y, vx, vy, ax,
     *                                                                                                      ay, wx, wy, wz of each piece;
     *                                                                                                      those without duration are
     *                                                                                                      dropped
     */
    public static function fromTrack(array $track): self
    {
        $segments = [];
        $last = \count($track) - 1;
        foreach ($track as $i => [$since, $phase, $x, $y, $vx, $vy, $ax, $ay, $wx, $wy, $wz]) {
            $duration = $i < $last ? $track[$i + 1][0] - $since : 0.0;
            if ($duration > 0.0 || $i === $last) {
                $segments[] = new Segment($since, $duration, Phase::from($phase), $x, $y, $vx, $vy, $ax, $ay, $wx, $wy, $wz);
            }
        }

        if ([] === $segments) {
            throw new \LogicException('A trajectory needs a track.');
        }

        return new self($segments);
    }

    public function moves(): bool
    {
        foreach ($this->segments as $segment) {
            if (Phase::Sliding === $segment->phase || Phase::Rolling === $segment->phase) {
                return true;
            }
        }

        return false;
    }

    /** Where the centre is at a time (seconds after the strike); before the strike the start, after the end the last spot. */
    public function at(float $time): Spot
    {
        $segment = $this->segmentAt($time);

        return $segment->at(max($segment->start, min($segment->end(), $time)));
    }

    /** Speed in m/s at a time (seconds after the strike). */
    public function speed(float $time): float
    {
        $segment = $this->segmentAt($time);
        [$vx, $vy] = $segment->velocity(max($segment->start, min($segment->end(), $time)));

        return hypot($vx, $vy);
    }

    public function phase(float $time): Phase
    {
        return $this->segmentAt($time)->phase;
    }

    /** Total length of the path in metres. */
    public function length(): float
    {
        return array_sum(array_map(static fn (Segment $segment): float => $segment->length(), $this->segments));
    }

    /**
     * Points of a polygon that is nowhere farther from the path than the given distance (metres): the sagitta of a parabola
     * falls with the square of the number of its parts, so each piece has as few as that needs.
     *
     * @return non-empty-list<Spot>
     */
    public function points(float $within = 0.0005): array
    {
        $points = [$this->segments[0]->at($this->segments[0]->start)];
        foreach ($this->segments as $segment) {
            if (0.0 === $segment->vx && 0.0 === $segment->vy) {
                continue;
            }
            $sagitta = 0.125 * hypot($segment->ax, $segment->ay) * $segment->duration ** 2;
            // On a straight piece the acceleration lies along the path: no part is needed for it.
            $bend = abs(
                $segment->vx * $segment->ay - $segment->vy * $segment->ax,
            ) > 1e-9 * (hypot($segment->vx, $segment->vy) * hypot($segment->ax, $segment->ay) + 1e-30);
            $parts = $bend ? max(1, (int) ceil(\sqrt($sagitta / $within))) : 1;
            for ($i = 1; $i <= $parts; ++$i) {
                $points[] = $segment->at($segment->start + $segment->duration * $i / $parts);
            }
        }

        return $points;
    }

    public function last(): Spot
    {
        $segment = $this->segments[array_key_last($this->segments)];

        return $segment->at($segment->end());
    }

    public function end(): float
    {
        return $this->segments[array_key_last($this->segments)]->end();
    }

    /** The piece of the path at a time: the later one where two meet. */
    public function segmentAt(float $time): Segment
    {
        $low = 0;
        $high = \count($this->segments) - 1;
        // Ends: the stretch is halved.
        while ($low < $high) {
            $middle = intdiv($low + $high + 1, 2);
            if ($this->segments[$middle]->start <= $time) {
                $low = $middle;
            } else {
                $high = $middle - 1;
            }
        }

        return $this->segments[$low];
    }
}
