<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use Symfony\Component\HttpFoundation\InputBag;
use Symfony\Component\HttpKernel\Exception\UnprocessableEntityHttpException;
use ZigLane\Core\Fit\ErrorFit;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;

/** What a player says of his errors: a preset, three results of his own, or the deviations themselves. */
final readonly class PlayerInput
{
    /** @var array<string, array{string, float, float, string}> of each result: what it is, least and most, unit */
    private const RESULTS = [
        'made' => ['The pots made of ten', 0.0, 10.0, ''],
        'lag' => ['The distance of the lags', 0.5, 120.0, ' cm'],
        'drift' => ['The drift of the stop shots', 0.0, 60.0, ' cm'],
    ];
    /** @var array<string, array{string, float, string}> of each deviation: what it is, units of the page in one of the core, unit */
    private const DEVIATIONS = [
        'aim' => ['The aim', 1.0, ' degrees'],
        'speed' => ['The speed', 100.0, ' %'],
        'tipSide' => ['The tip sideways', 1.0, ' mm'],
        'tipHeight' => ['The tip up and down', 1.0, ' mm'],
    ];

    /**
     * @param InputBag<string> $input
     *
     * @throws UnprocessableEntityHttpException With a sentence that says what is allowed
     */
    public static function errors(InputBag $input, Rack $rack): ExecutionErrors
    {
        $preset = $input->getString('preset');
        if (isset(ExecutionErrors::PRESETS[$preset])) {
            return new ExecutionErrors(...ExecutionErrors::PRESETS[$preset]);
        }
        if ('tests' === $input->getString('by')) {
            $result = static fn (string $name): float => NumberText::between(trim($input->getString($name)), ...self::RESULTS[$name]);

            return (new ErrorFit(new ShotSolver($rack->equipment)))->fit($result('made'), $result('lag') / 100, $result('drift') / 100);
        }
        $fields = [];
        foreach (self::DEVIATIONS as $name => [$what, $scale, $unit]) {
            [, $least, $most] = ExecutionErrors::LIMITS[$name];
            $fields[] = NumberText::between(trim($input->getString($name)), $what, $least * $scale, $most * $scale, $unit) / $scale;
        }

        return new ExecutionErrors(...$fields);
    }
}
