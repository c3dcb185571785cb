<?php

declare(strict_types=1);

namespace ZigLane\App\Twig;

use Twig\Attribute\AsTwigFunction;
use ZigLane\App\Words\Words;

/** The one place that writes an interval: its ends differ, hold what they belong to, and stay within 0 to 100 percent. */
final readonly class RangeFunction
{
    private const MOST_DECIMALS = 2;

    public function __construct(private Words $words)
    {
    }

    /**
     * "66 to 76", of shares.
     *
     * @param array{float, float} $interval 0 to 1
     * @param float|null          $share    what it belongs to, which is written beside it in whole percent
     */
    #[AsTwigFunction('percent_range')]
    public function percent(array $interval, ?float $share = null): string
    {
        [$low, $high] = array_map(static fn (float $edge): float => 100 * max(0.0, min(1.0, $edge)), $interval);
        $told = null === $share ? null : round(100 * max(0.0, min(1.0, $share)));

        return $this->range($low, $high, 0, $told);
    }

    /**
     * "4.1 to 5.3", of balls, millimetres or degrees.
     *
     * @param array{float, float} $interval
     */
    #[AsTwigFunction('number_range')]
    public function number(array $interval, int $decimals = 1, float $per = 1.0): string
    {
        return $this->range($interval[0] * $per, $interval[1] * $per, $decimals, null);
    }

    private function range(float $low, float $high, int $decimals, ?float $told): string
    {
        $most = $decimals + self::MOST_DECIMALS;
        for ($at = $decimals; $at < $most && round($low, $at) === round($high, $at); ++$at) {
        }
        [$from, $to] = [round($low, $at), round($high, $at)];
        if (null !== $told) {
            [$from, $to] = [min($from, $told), max($to, $told)];
        }

        return $from === $to ? self::text($from) : $this->words->said('range', ['from' => self::text($from), 'to' => self::text($to)]);
    }

    private static function text(float $value): string
    {
        return (string) (0.0 === $value ? 0 : $value);
    }
}
