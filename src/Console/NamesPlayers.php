<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Symfony\Component\Console\Exception\InvalidOptionException;
use Symfony\Component\Console\Input\InputInterface;
use ZigLane\Core\Player\ExecutionErrors;

/** Options that name a player by his level. */
trait NamesPlayers
{
    private static function presets(): string
    {
        return implode(', ', array_keys(ExecutionErrors::PRESETS));
    }

    /** @return ExecutionErrors|null null where none is named */
    private function named(InputInterface $input, string $option): ?ExecutionErrors
    {
        $name = $input->getOption($option);
        if (!\is_string($name)) {
            return null;
        }
        // "club" stands for "club player".
        foreach (ExecutionErrors::PRESETS as $preset => $errors) {
            if ($name === $preset || $name.' player' === $preset) {
                return new ExecutionErrors(...$errors);
            }
        }

        throw new InvalidOptionException(\sprintf('%s: found "%s"; %s are allowed', $option, $name, self::presets()));
    }
}
