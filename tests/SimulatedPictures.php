<?php

declare(strict_types=1);

namespace ZigLane\Tests;

use ZigLane\Core\Camera\Finder;
use ZigLane\Core\Camera\Scene;
use ZigLane\Core\Camera\View;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Scattered;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/** Rendered pictures of tables whose balls are known, from heights, tilts, light and cloths that are drawn. */
final readonly class SimulatedPictures
{
    private const CLOTHS = [
        [38.0, 110.0, 118.0], [30.0, 96.0, 150.0], [44.0, 122.0, 72.0], [128.0, 40.0, 58.0], [120.0, 118.0, 116.0], [176.0, 148.0, 96.0],
    ];
    /** Farther from the truth than this a ball was not found, metres. */
    private const FOUND = 0.03;

    public function __construct(private int $seed, private float $tap = 3.0)
    {
    }

    /** @return array{Layout, View, \GdImage, list<array{float, float}>} with taps at the corners */
    public function picture(int $number, int $width = 960, int $height = 540): array
    {
        $chance = new Chance(1000 * $this->seed + $number);
        $equipment = new Equipment();
        $random = new Randomness(1 + 7919 * $this->seed + $number);
        $layout = Scattered::balls(Game::EightBall, $chance->int(3, 15), $equipment, $random);
        $layout = $this->frozen($layout, $chance, $equipment);
        $view = View::looking(
            [$chance->float(0.7, 1.9), $chance->float(-1.3, -0.2), $chance->float(2.1, 2.9)],
            [1.27 + $chance->float(-0.05, 0.05), $chance->float(0.5, 0.62), 0.0],
            $width * $chance->float(0.62, 0.7), $width, $height, $chance->float(-0.03, 0.03),
        );
        $scene = new Scene(
            $equipment, $layout, $view, self::CLOTHS[$chance->int(0, \count(self::CLOTHS) - 1)],
            [$chance->float(0.9, 1.7), $chance->float(0.4, 0.9), $chance->float(1.2, 2.0)], $chance->float(1.5, 5.0),
        );
        $taps = [];
        foreach (Finder::cornersIn($view, $equipment) as [$x, $y]) {
            $taps[] = [$x + $this->tap * $chance->normal(), $y + $this->tap * $chance->normal()];
        }

        return [$layout, $view, $scene->image($number + 1), $taps];
    }

    /** @return array{balls: int, named: int, missed: int, made: int, off: list<float>, confused: list<string>, seconds: float} */
    public function scene(int $number): array
    {
        [$layout, , $image, $taps] = $this->picture($number);
        $start = hrtime(true);
        $seen = Finder::find($image, $taps, new Equipment()) ?? [];
        $seconds = (hrtime(true) - $start) / 1e9;
        $off = $confused = [];
        $named = $missed = 0;
        $left = $seen;
        foreach ($layout->balls() as $ball) {
            $best = null;
            foreach ($left as $i => $one) {
                $distance = $one->spot->distanceTo($layout->spot($ball));
                $best = null === $best || $distance < $best[0] ? [$distance, $i] : $best;
            }
            if (null === $best || $best[0] > self::FOUND) {
                ++$missed;
                $confused[] = $ball->label().' missed';
                continue;
            }
            $off[] = $best[0];
            $as = $left[$best[1]]->ball;
            unset($left[$best[1]]);
            $named += $as === $ball ? 1 : 0;
            if ($as !== $ball) {
                $confused[] = $ball->label().' as '.$as->label();
            }
        }

        return [
            'balls' => $layout->count(), 'named' => $named, 'missed' => $missed, 'made' => \count($left), 'off' => $off, 'confused' => $confused,
            'seconds' => $seconds,
        ];
    }

    /** Now and then a ball is frozen to another. */
    private function frozen(Layout $layout, Chance $chance, Equipment $equipment): Layout
    {
        $balls = $layout->balls();
        if (\count($balls) > 4 && $chance->float(0, 1) < 0.5) {
            $at = $layout->spot($balls[1]);
            $angle = $chance->float(0.0, 2 * \M_PI);
            $spot = Spot::metres($at->x + 0.05716 * cos($angle), $at->y + 0.05716 * sin($angle));
            $moved = $layout->with($balls[2], $spot);
            if ([] === (new \ZigLane\Core\Position\LayoutRules($equipment))->faults($moved)) {
                return $moved;
            }
        }

        return $layout;
    }
}
