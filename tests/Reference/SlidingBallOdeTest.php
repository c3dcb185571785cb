<?php

declare(strict_types=1);

namespace ZigLane\Tests\Reference;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\OpenCloth;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/**
 * One sliding and rolling ball with side against an ordinary differential equation that knows nothing of parabolas: Coulomb
 * friction m g mu at the contact point against its slip, Euler's equation for the spin, a constant moment against rolling and
 * turning. Integrated here with Runge-Kutta steps of 20 microseconds. Source of the equations: Coriolis, Theorie mathematique
 * des effets du jeu de billard (1835); Marlow, The Physics of Pocket Billiards (1995).
 */
final class SlidingBallOdeTest extends TestCase
{
    private const R = 0.028575;
    private const G = 9.81;
    private const SLIDE = 0.20;
    private const ROLL = 0.010;
    private const DECAY = 10.0;

    /** @param array{float, float, float, float, float} $stroke */
    #[DataProvider('strokes')]
    public function testThePathOfAStruckBall(array $stroke): void
    {
        $strike = Strike::degrees(...$stroke);
        $path = (new OpenCloth(new Equipment()))->path(Spot::metres(0.0, 0.0), $strike);
        $state = [0.0, 0.0, ...$strike->velocities(self::R)];
        $step = 2e-5;
        $checks = 0;
        for ($i = 1; $i <= 60000; ++$i) {
            $state = self::rungeKutta($state, $step);
            if (0 === $i % 5000 && $i * $step < $path->end()) {
                $spot = $path->at($i * $step);
                // Where sliding ends the equation jumps, and a step there may leave 0.04 mm/s: a tenth of a millimetre in all.
                self::assertEqualsWithDelta($state[0], $spot->x, 1e-4);
                self::assertEqualsWithDelta($state[1], $spot->y, 1e-4);
                ++$checks;
            }
        }
        self::assertGreaterThan(4, $checks);
    }

    /** @return iterable<string, array{array{float, float, float, float, float}}> direction, speed, side, height, elevation */
    public static function strokes(): iterable
    {
        yield 'stun' => [[20.0, 2.0, 0.0, 0.0, 0.0]];
        yield 'draw' => [[0.0, 3.0, 0.0, -0.45, 0.0]];
        yield 'force follow' => [[100.0, 4.0, 0.0, 0.48, 0.0]];
        yield 'raised cue with right side' => [[-40.0, 1.5, 0.35, -0.2, 30.0]];
        yield 'masse' => [[10.0, 1.8, -0.3, -0.35, 65.0]];
    }

    /**
     * Rates of x, y, vx, vy, wx, wy, wz.
     *
     * @param array<int, float> $s
     *
     * @return array<int, float>
     */
    private static function rates(array $s): array
    {
        [, , $vx, $vy, $wx, $wy, $wz] = $s;
        $ux = $vx - self::R * $wy;
        $uy = $vy + self::R * $wx;
        $slip = hypot($ux, $uy);
        $speed = hypot($vx, $vy);
        // Below a slip that one step could reverse, the ball rolls: friction is what rolling asks for.
        if ($slip > 1.5e-4) {
            $fx = -self::SLIDE * self::G * $ux / $slip;
            $fy = -self::SLIDE * self::G * $uy / $slip;
            $turn = 2.5 / self::R;
            // Moment of the friction about the centre: (-R z) x F over 2/5 m R^2.
            $rates = [$vx, $vy, $fx, $fy, $turn * $fy, -$turn * $fx];
        } else {
            $slow = $speed > 1e-9 ? -self::ROLL * self::G / $speed : 0.0;
            $rates = [$vx, $vy, $slow * $vx, $slow * $vy, -$slow * $vy / self::R, $slow * $vx / self::R];
        }
        $rates[] = abs($wz) > self::DECAY * 2e-5 ? ($wz > 0 ? -self::DECAY : self::DECAY) : 0.0;

        return $rates;
    }

    /**
     * @param array<int, float> $s
     *
     * @return array<int, float>
     */
    private static function rungeKutta(array $s, float $h): array
    {
        $k1 = self::rates($s);
        $k2 = self::rates(self::ahead($s, $k1, 0.5 * $h));
        $k3 = self::rates(self::ahead($s, $k2, 0.5 * $h));
        $k4 = self::rates(self::ahead($s, $k3, $h));
        foreach ($s as $i => $value) {
            $s[$i] = $value + $h / 6 * ($k1[$i] + 2 * $k2[$i] + 2 * $k3[$i] + $k4[$i]);
        }

        return $s;
    }

    /**
     * @param array<int, float> $s
     * @param array<int, float> $rates
     *
     * @return array<int, float>
     */
    private static function ahead(array $s, array $rates, float $h): array
    {
        foreach ($s as $i => $value) {
            $s[$i] = $value + $h * $rates[$i];
        }

        return $s;
    }
}
