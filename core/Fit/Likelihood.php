<?php

declare(strict_types=1);

namespace ZigLane\Core\Fit;

/**
 * How likely a log is with candidate errors: the weighted strokes of its shots, and the prior. Parameters: logarithms of the four
 * deviations, then the four biases.
 *
 * @internal
 */
final readonly class Likelihood
{
    /** The prior of a deviation: a factor of two either way is one standard deviation of its logarithm. */
    public const FACTOR = 0.6931471805599453;
    /** The prior of a bias: its standard deviation as a share of the prior's deviation. */
    public const BIAS = 1.5;

    /** Deviations by which strokes are thinned out, beside those found; and how many are kept. */
    private const ABOUT = 1.5;
    private const COUNTING = 120;

    /** @var list<float> the prior's middle */
    public array $start;

    /** @var list<float> its standard deviations */
    private array $width;

    /** @var list<array<int, float>> the strokes of each shot one after the other: quicker to walk over */
    private array $flat;

    /**
     * @param list<ShotDraws> $draws
     * @param list<float>     $base  the prior's deviations
     */
    public function __construct(public array $draws, public array $base)
    {
        $this->start = [...array_map(log(...), $base), 0.0, 0.0, 0.0, 0.0];
        $this->width = [
            ...array_fill(0, 4, self::FACTOR),
            ...array_map(static fn (float $deviation): float => self::BIAS * $deviation, $base),
        ];
        $this->flat = array_map(static fn (ShotDraws $draw): array => self::flat($draw->kept), $draws);
    }

    /**
     * @param list<array{float, float, float, float, float}> $kept
     *
     * @return array<int, float>
     */
    private static function flat(array $kept): array
    {
        $flat = [];
        foreach ($kept as $stroke) {
            foreach ($stroke as $number) {
                $flat[] = $number;
            }
        }

        return $flat;
    }

    /**
     * @param list<float> $at
     *
     * @return array{float, list<float>, list<list<float>>} the logarithm, its gradient, and the negative matrix of second derivatives
     */
    public function derivatives(array $at): array
    {
        return $this->evaluated($at);
    }

    /**
     * The variance that the finite number of strokes gives to the gradient.
     *
     * @param list<float> $at
     *
     * @return list<list<float>>
     */
    public function noise(array $at): array
    {
        return $this->evaluated($at, true)[2];
    }

    /**
     * With some of its strokes only, drawn by how much they count about there (systematic resampling): quicker, and hardly less true.
     *
     * @param list<float> $at
     */
    public function thinned(array $at): self
    {
        $draws = [];
        foreach ($this->draws as $draw) {
            $shares = [];
            foreach ($draw->kept as $i => $stroke) {
                $square = 0.0;
                for ($k = 0; $k < 4; ++$k) {
                    $wide = self::ABOUT * exp($at[$k]) * $draw->factors[$k] + (0 === $k ? $draw->judgement : 0.0);
                    $square += (($stroke[$k] - $at[4 + $k]) / $wide) ** 2;
                }
                $shares[$i] = $stroke[4] * exp(-0.5 * $square);
            }
            $part = array_sum($shares) / self::COUNTING;
            $sum = 0.0;
            $next = 0.5 * $part;
            $kept = [];
            foreach ($shares as $i => $share) {
                $sum += $share;
                $times = $sum < $next ? 0 : 1 + (int) floor(($sum - $next) / $part);
                if ($times > 0) {
                    [$aim, $speed, $side, $height, $weight] = $draw->kept[$i];
                    $kept[] = [$aim, $speed, $side, $height, $weight * $times * $part / $share];
                    $next += $times * $part;
                }
            }
            $draws[] = $draw->keeping($kept);
        }

        return new self($draws, $this->base);
    }

    /**
     * The logarithm alone.
     *
     * @param list<float> $at
     */
    public function value(array $at): float
    {
        $value = 0.0;
        [$s0, $s1, $s2, $s3] = [exp($at[0]), exp($at[1]), exp($at[2]), exp($at[3])];
        [, , , , $b0, $b1, $b2, $b3] = $at;
        foreach ($this->draws as $d => $draw) {
            [$f0, $f1, $f2, $f3] = $draw->factors;
            $d0 = \sqrt(($s0 * $f0) ** 2 + $draw->judgement ** 2);
            $d1 = $s1 * $f1;
            $d2 = $s2 * $f2;
            $d3 = $s3 * $f3;
            $flat = $this->flat[$d];
            $total = 0.0;
            for ($i = 0, $n = \count($flat); $i < $n; $i += 5) {
                $z0 = ($flat[$i] - $b0) / $d0;
                $z1 = ($flat[$i + 1] - $b1) / $d1;
                $z2 = ($flat[$i + 2] - $b2) / $d2;
                $z3 = ($flat[$i + 3] - $b3) / $d3;
                $total += $flat[$i + 4] * exp(-0.5 * ($z0 * $z0 + $z1 * $z1 + $z2 * $z2 + $z3 * $z3));
            }
            $value += $draw->weight * log($total / ($d0 * $d1 * $d2 * $d3 * $draw->count) + $draw->outlier);
        }
        foreach ($at as $k => $place) {
            $value -= 0.5 * (($place - $this->start[$k]) / $this->width[$k]) ** 2;
        }

        return $value;
    }

    /**
     * The logarithm of likelihood and prior with its derivatives.
     *
     * @param list<float> $at
     *
     * @return array{float, list<float>, list<list<float>>} value, gradient, and the negative matrix of second derivatives; the last of the
     *                                                      noise that the draws have in the gradient instead, where that is asked for
     */
    private function evaluated(array $at, bool $isNoise = false): array
    {
        $deviations = array_map(exp(...), \array_slice($at, 0, 4));
        $value = 0.0;
        $gradient = array_fill(0, 8, 0.0);
        $hessian = array_fill(0, 8, array_fill(0, 8, 0.0));
        foreach ($this->draws as $draw) {
            $sd = $share = [];
            for ($k = 0; $k < 4; ++$k) {
                $own = $deviations[$k] * $draw->factors[$k];
                $sd[$k] = 0 === $k ? hypot($own, $draw->judgement) : $own;
                // How the deviation of this shot grows with the player's own: less where judgement has a part in it.
                $share[$k] = ($own / $sd[$k]) ** 2;
            }
            $norm = 1 / ($sd[0] * $sd[1] * $sd[2] * $sd[3] * $draw->count);
            $total = 0.0;
            $first = array_fill(0, 8, 0.0);
            $second = array_fill(0, 36, 0.0);
            $terms = [];
            foreach ($draw->kept as [$aim, $speed, $side, $height, $weight]) {
                $z0 = ($aim - $at[4]) / $sd[0];
                $z1 = ($speed - $at[5]) / $sd[1];
                $z2 = ($side - $at[6]) / $sd[2];
                $z3 = ($height - $at[7]) / $sd[3];
                $square = $z0 * $z0 + $z1 * $z1 + $z2 * $z2 + $z3 * $z3;
                $p = $norm * $weight * exp(-0.5 * $square);
                if ($p < 1e-300) {
                    continue;
                }
                $total += $p;
                $g = [
                    $share[0] * ($z0 * $z0 - 1), $share[1] * ($z1 * $z1 - 1),
                    $share[2] * ($z2 * $z2 - 1), $share[3] * ($z3 * $z3 - 1),
                    $z0 / $sd[0], $z1 / $sd[1], $z2 / $sd[2], $z3 / $sd[3],
                ];
                if ($isNoise) {
                    $terms[] = [$p, $g];
                    for ($i = 0; $i < 8; ++$i) {
                        $first[$i] += $p * $g[$i];
                    }
                    continue;
                }
                $own = [$z0, $z1, $z2, $z3];
                $at2 = 0;
                for ($i = 0; $i < 8; ++$i) {
                    $pg = $p * $g[$i];
                    $first[$i] += $pg;
                    for ($j = 0; $j <= $i; ++$j) {
                        $second[$at2++] += $pg * $g[$j];
                    }
                }
                // Second derivatives of the logarithm of the density itself, of each pair of deviation and bias.
                for ($k = 0; $k < 4; ++$k) {
                    $zz = $own[$k] * $own[$k];
                    $part = $share[$k];
                    $second[intdiv($k * ($k + 1), 2) + $k] += $p * 2 * $part * ((1 - $part) * ($zz - 1) - $part * $zz);
                    $b = 4 + $k;
                    $second[intdiv($b * ($b + 1), 2) + $k] += $p * -2 * $share[$k] * $own[$k] / $sd[$k];
                    $second[intdiv($b * ($b + 1), 2) + $b] += $p * -1 / $sd[$k] ** 2;
                }
            }
            $all = $total + $draw->outlier;
            $value += $draw->weight * log($all);
            if ($isNoise) {
                self::addNoise($hessian, $terms, $first, $all, $draw->weight);
                continue;
            }
            $at2 = 0;
            for ($i = 0; $i < 8; ++$i) {
                $gradient[$i] += $draw->weight * $first[$i] / $all;
                for ($j = 0; $j <= $i; ++$j) {
                    $hessian[$i][$j] -= $draw->weight * ($second[$at2++] / $all - $first[$i] * $first[$j] / $all ** 2);
                }
            }
        }
        for ($k = 0; $k < 8 && !$isNoise; ++$k) {
            $width = $this->width[$k];
            $off = ($at[$k] - $this->start[$k]) / $width;
            $value -= 0.5 * $off ** 2;
            $gradient[$k] -= $off / $width;
            $hessian[$k][$k] += 1 / $width ** 2;
            for ($j = 0; $j < $k; ++$j) {
                $hessian[$j][$k] = $hessian[$k][$j];
            }
        }

        return [$value, $gradient, array_values(array_map(array_values(...), $hessian))];
    }

    /**
     * Adds the variance that the finite number of strokes gives to a shot's part of the gradient: that of a ratio of two sums.
     *
     * @param array<int, array<int, float>>   $noise
     * @param list<array{float, list<float>}> $terms weight of each stroke, and its gradient
     * @param list<float>                     $first their weighted sum
     */
    private static function addNoise(array &$noise, array $terms, array $first, float $all, float $weight): void
    {
        foreach ($terms as [$p, $gradient]) {
            $share = ($weight * $p / $all) ** 2;
            for ($i = 0; $i < 8; ++$i) {
                $off = $share * ($gradient[$i] - $first[$i] / $all);
                for ($j = 0; $j < 8; ++$j) {
                    $noise[$i][$j] += $off * ($gradient[$j] - $first[$j] / $all);
                }
            }
        }
    }
}
