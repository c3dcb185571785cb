<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Plan;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Motion\EventKind;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Plan\Leg;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Plan\Planning;
use ZigLane\Core\Plan\Reason;
use ZigLane\Core\Plan\StraightRun;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\CueClearance;
use ZigLane\Tests\Table;

/** Every reason that plans of the demo racks give is borne out by simulating the leg again. */
final class LegReasonsTest extends TestCase
{
    /** @var array<string, Plan> */
    private static array $plans = [];

    #[DataProvider('racks')]
    public function testTheNumbersOfEveryReasonAreThoseOfTheSimulation(string $rack): void
    {
        $plan = self::plan($rack);
        $checked = 0;
        foreach ($plan->legs as $i => $leg) {
            foreach ($leg->reasons as $reason) {
                $next = $plan->legs[$i + 1] ?? null;
                $checked += match (substr($reason->kind, \strlen('reason.'))) {
                    'intoLine', 'crossesLine', 'room' => self::way($leg, $next, $reason),
                    'cushionSlows' => self::cushionSlows($plan->rack, $leg, $reason),
                    'raised' => self::raised($plan->rack, $leg, $reason),
                    'naturalRunsInto', 'naturalScratches' => self::natural($plan->rack, $leg, $reason),
                    'frees', 'moves' => self::freed($leg, $next, $reason),
                    'rightSide' => self::greater($reason, 'hereShare', 'thereShare'),
                    'straightIsWorse' => self::greater($reason, 'valueShare', 'straightShare'),
                    'secondBest' => self::secondBest($leg, $reason),
                    'breakShot' => self::breakShot($plan->rack, $leg, $reason),
                    'onlyPocket' => self::onlyPocket($leg, $reason),
                    'thenOn' => self::share($reason, 'chanceShare'),
                    'thenNothing' => 1,
                    'insurance' => self::share($reason, 'share'),
                    'breakBall' => self::breakBall($plan, $leg, $reason),
                    'keyBall' => self::keyBall($next, $reason),
                    default => self::fail($reason->kind.' is not checked'),
                };
            }
        }
        self::assertGreaterThan(2, $checked);
    }

    /** @return iterable<array{string}> */
    public static function racks(): iterable
    {
        yield ['3-last-two-rail'];
        yield ['4-break-ball'];
        yield ['6-seven-behind-the-six'];
    }

    /** The 8 on the foot rail can go along it only, and the 9 stands before FL; of a ball in the open nothing of the kind is told. */
    public function testTheOnlyPocketIsToldWhereThereIsOne(): void
    {
        $layout = Table::layout([0 => [1.6, 0.6], 8 => [2.54 - Table::R, 0.3], 9 => [2.5, 0.8]]);
        $plan = (new Planning(new Rack(Game::NineBall, $layout)))->plans()[0] ?? null;
        self::assertNotNull($plan);
        self::assertContainsEquals(Reason::onlyPocket(Ball::Eight, Pocket::FootRight), $plan->legs[0]->reasons);

        $open = (new Planning(new Rack(Game::NineBall, Table::layout([0 => [1.6, 0.6], 9 => [1.9, 0.6]]))))->plans()[0] ?? null;
        self::assertNotNull($open);
        foreach ($open->legs[0]->reasons as $reason) {
            self::assertNotSame('reason.onlyPocket', $reason->kind);
        }
    }

    private static function way(Leg $leg, ?Leg $next, Fact $reason): int
    {
        self::assertNotNull($leg->lane);
        self::assertSame($next?->choice->ball, $reason->values['next']);
        self::assertSame([$leg->lane->slower, $leg->lane->harder], [$reason->values['slowerShare'], $reason->values['harderShare']]);
        $angle = $leg->lane->angle;
        self::assertSame($angle < 35.0 ? 'intoLine' : ($angle > 55.0 ? 'crossesLine' : 'room'), substr($reason->kind, 7));

        return 1;
    }

    private static function cushionSlows(Rack $rack, Leg $leg, Fact $reason): int
    {
        $solver = new ShotSolver($rack->equipment);
        $shot = $solver->solve($leg->before, $leg->choice);
        $harder = $solver->simulator->play($leg->before, $shot->strike->withSpeed(1.1 * $shot->strike->speed));
        $runs = $shot->outcome->final->spot(Ball::Cue)->distanceTo($harder->final->spot(Ball::Cue));
        self::assertEqualsWithDelta($runs, $reason->values['runsMetres'], 1e-6);
        self::assertLessThan(0.6 * self::number($reason, 'openMetres'), $runs);
        $first = $shot->outcome->eventsOf(Ball::Cue, EventKind::Cushion)[0];
        self::assertSame($first->rail, $reason->values['rail']);

        return 1;
    }

    private static function raised(Rack $rack, Leg $leg, Fact $reason): int
    {
        $least = CueClearance::of($leg->before, $leg->direction, $leg->choice->stroke->tip, $rack->equipment);
        self::assertSame($leg->choice->stroke->elevation, $reason->values['elevationDegrees']);
        self::assertGreaterThanOrEqual($least->least, $leg->choice->stroke->elevation);
        self::assertSame($least->over, $reason->values['over']);

        return 1;
    }

    /** The same pot at natural roll and medium speed, with another seed: within four standard errors of 200 tries. */
    private static function natural(Rack $rack, Leg $leg, Fact $reason): int
    {
        $solver = new ShotSolver($rack->equipment);
        $line = PotModel::find($leg->before, $leg->choice->ball, $leg->choice->pocket, $solver, $rack->player);
        self::assertNotNull($line);
        $natural = $solver->solve($leg->before, $line->choice($leg->before->spot(Ball::Cue)));
        $trials = Trials::of($natural, $solver, $rack->player, 200, 99);
        $told = self::number($reason, 'share');
        self::assertGreaterThan($leg->risks->scratch, $told);
        $pocket = $reason->values['pocket'] ?? null;
        $other = $reason->values['other'] ?? null;
        $count = $pocket instanceof Pocket ? $trials->scratches[$pocket->value] ?? 0 : 0;
        $count = $other instanceof Ball ? $trials->struck[$other->value] ?? 0 : $count;
        self::assertGreaterThan(0, $count, $reason.' of the '.$leg->choice->ball->label());

        return 1;
    }

    private static function freed(Leg $leg, ?Leg $next, Fact $reason): int
    {
        $ball = $reason->values['other'];
        self::assertInstanceOf(Ball::class, $ball);
        self::assertNotNull($next);
        self::assertGreaterThan(0.002, $leg->before->spot($ball)->distanceTo($next->before->spot($ball)));

        return 1;
    }

    private static function greater(Fact $reason, string $more, string $less): int
    {
        self::assertGreaterThan(self::number($reason, $less), self::number($reason, $more));

        return self::share($reason, $more);
    }

    private static function secondBest(Leg $leg, Fact $reason): int
    {
        self::assertNotSame([$leg->choice->ball, $leg->choice->pocket], [$reason->values['ball'], $reason->values['pocket']]);

        return self::share($reason, 'lessShare');
    }

    private static function breakShot(Rack $rack, Leg $leg, Fact $reason): int
    {
        $final = (new ShotSolver($rack->equipment))->solve($leg->before, $leg->choice)->outcome->final;
        $moved = 0;
        foreach ($leg->before->balls() as $ball) {
            if (Ball::Cue !== $ball && $ball !== $leg->choice->ball) {
                $moved += !$final->has($ball) || $leg->before->spot($ball)->distanceTo($final->spot($ball)) > 0.05 ? 1 : 0;
            }
        }
        self::assertSame($moved, $reason->values['moved']);

        return 1;
    }

    private static function onlyPocket(Leg $leg, Fact $reason): int
    {
        self::assertSame([$leg->choice->ball, $leg->choice->pocket], [$reason->values['ball'], $reason->values['pocket']]);

        return 1;
    }

    private static function share(Fact $reason, string $name): int
    {
        self::assertGreaterThan(0.0, self::number($reason, $name));
        self::assertLessThanOrEqual(1.0, self::number($reason, $name));

        return 1;
    }

    private static function number(Fact $reason, string $name): float
    {
        $value = $reason->values[$name];
        self::assertIsNumeric($value);

        return (float) $value;
    }

    /** The last leg, with another ball beside the rack or none. */
    private static function breakBall(Plan $plan, Leg $leg, Fact $reason): int
    {
        self::assertSame(\count($plan->legs), $leg->number);
        self::assertSame(StraightRun::breakBalls($plan->rack)[1] ?? null, $reason->values['other']);

        return 1;
    }

    private static function keyBall(?Leg $next, Fact $reason): int
    {
        self::assertSame($next?->choice->ball, $reason->values['next']);

        return 1;
    }

    private static function plan(string $rack): Plan
    {
        if (!isset(self::$plans[$rack])) {
            $json = (string) file_get_contents(\dirname(__DIR__, 3)."/demo/$rack.rack.json");
            $planning = new Planning(RackFile::parse($json)->rack);
            $planning->step();
            $plan = $planning->plans()[0] ?? null;
            self::assertNotNull($plan);
            self::$plans[$rack] = $plan;
        }

        return self::$plans[$rack];
    }
}
