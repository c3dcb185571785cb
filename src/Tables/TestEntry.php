<?php

declare(strict_types=1);

namespace ZigLane\App\Tables;

use Symfony\Component\HttpFoundation\InputBag;
use ZigLane\App\Sheet\NumberText;
use ZigLane\App\Sheet\SpotText;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Calibration\Prediction;
use ZigLane\Core\Calibration\UsualTests;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\Measured;
use ZigLane\Core\Motion\Outcome;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Table\Equipment;

/** One of the usual tests on a table: what is to be done and measured, and what was typed of it. */
final readonly class TestEntry
{
    /** A person does not lay balls and aim better than that: metres, seconds. */
    private const SPOT = 0.025;
    private const WATCH = 0.2;
    /** Cushion points that are asked for. */
    private const CUSHIONS = 3;

    /** What happens on the table as its profile has it. */
    public Outcome $outcome;
    private Measured $expected;

    public function __construct(public UsualTests $test, public Equipment $equipment)
    {
        $layout = $test->layout($equipment->table);
        $strike = $test->strike($equipment->cue->endMassRatio);
        $simulator = new EventSimulator($equipment);
        $this->outcome = $simulator->play($layout, $strike);
        $this->expected = $simulator->measurements($layout)->play($strike);
    }

    /** @return list<Rail> cushions of the cue ball that are asked for, in order */
    public function rails(): array
    {
        return $this->test->wantsCushions()
            ? \array_slice(array_column($this->expected->cushionsOf(Ball::Cue), 0), 0, self::CUSHIONS)
            : [];
    }

    /**
     * What was typed, as a test of a table-tests file.
     *
     * @param InputBag<string> $typed
     *
     * @return array<mixed>
     *
     * @throws Refused If it is not understood, or says nothing
     */
    public function read(InputBag $typed): array
    {
        $table = $this->equipment->table;
        $observed = [];
        foreach ($this->test->ends() as $ball) {
            $text = trim($typed->getString('end_'.$ball->label()));
            if ('' !== $text) {
                [$long, $short] = SpotText::spot($text, $table)->inDiamonds($table);
                if ($long < -0.2 || $long > 8.2 || $short < -0.2 || $short > 4.2) {
                    throw Refused::because('spot');
                }
                $observed[$ball->label()] = [round($long, 4), round($short, 4)];
            }
        }
        $cushions = [];
        foreach ($this->rails() as $i => $rail) {
            $text = trim($typed->getString("rail_$i"));
            if ('' === $text) {
                break;
            }
            $met = ['ball' => 'cue', 'rail' => $rail->value];
            if ('?' !== $text) {
                $most = $rail->isShort() ? 4.0 : 8.0;
                $met['diamond'] = NumberText::between($text, 'The place on the cushion', 0.0, $most, ' diamonds');
            }
            $cushions[] = $met;
        }
        if ([] !== $cushions) {
            $observed['cushions'] = $cushions;
        } elseif ($this->test->isClear() && [] !== $observed) {
            // Whoever met a cushion was asked to do it again.
            $observed['noCushion'] = ['cue'];
        }
        $seconds = trim($typed->getString('seconds'));
        if ('' !== $seconds) {
            $observed['seconds'] = NumberText::between($seconds, 'The time', 0.3, 60.0, ' seconds');
        }
        if ([] === array_diff_key($observed, ['noCushion' => true])) {
            throw Refused::because('nothingMeasured');
        }
        $strike = $this->test->strike();
        $layout = [];
        foreach ($this->test->layout($table)->balls() as $ball) {
            $layout[$ball->label()] = array_map(
                static fn (float $diamonds): float => round($diamonds, 4),
                $this->test->layout($table)->spot($ball)->inDiamonds($table),
            );
        }

        return [
            'name' => $this->test->value,
            'layout' => $layout,
            'stroke' => [
                'direction' => rad2deg($strike->direction), 'side' => $strike->side, 'height' => $strike->height, 'elevation' => 0.0,
            ],
            'speed' => null,
            'observed' => $observed,
            'measured' => ['spot' => self::SPOT, 'seconds' => self::WATCH],
        ];
    }

    /** What is predicted of a cushion point, diamonds from the right or head end. */
    public function expectedAt(int $cushion): ?float
    {
        $met = $this->expected->cushionsOf(Ball::Cue)[$cushion] ?? null;

        return null === $met ? null : Prediction::along(...$met) / $this->equipment->table->diamond();
    }
}
