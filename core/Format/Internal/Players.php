<?php

declare(strict_types=1);

namespace ZigLane\Core\Format\Internal;

use ZigLane\Core\Player\Biases;
use ZigLane\Core\Player\ErrorGrowth;
use ZigLane\Core\Player\ExecutionErrors;

/**
 * The `player` of a file: standard deviations, with `growth` and `biases` where they are not the usual ones.
 *
 * @internal
 */
final class Players
{
    /** @param array<mixed> $player */
    public static function read(Reader $reader, array $player, string $path): ExecutionErrors
    {
        $growth = new ErrorGrowth(...$reader->numbers($reader->object($player, $path, 'growth'), $path.'.growth', ErrorGrowth::LIMITS));
        $biases = new Biases(...$reader->numbers($reader->object($player, $path, 'biases'), $path.'.biases', Biases::LIMITS));
        unset($player['growth'], $player['biases']);

        return new ExecutionErrors(...$reader->numbers($player, $path, ExecutionErrors::LIMITS), growth: $growth, biases: $biases);
    }
}
