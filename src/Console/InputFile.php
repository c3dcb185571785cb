<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Symfony\Component\Console\Input\InputInterface;

/** What the commands are given: a file or standard input, and numbers with their limits. */
final class InputFile
{
    /** @return string|null the content, one byte more than allowed at the most; null if it cannot be read */
    public static function read(string $file, int $maxBytes): ?string
    {
        $content = '-' === $file || is_file($file) ? @file_get_contents('-' === $file ? 'php://stdin' : $file, length: max(0, $maxBytes) + 1) : false;

        return false === $content ? null : $content;
    }

    /**
     * A whole number given as an option.
     *
     * @param list<string> $faults gets a line where it is none
     */
    public static function number(InputInterface $input, string $option, int $least, int $most, array &$faults): int
    {
        $value = $input->getOption($option);
        $number = \is_string($value) ? filter_var($value, \FILTER_VALIDATE_INT, ['options' => ['min_range' => $least, 'max_range' => $most]]) : false;
        if (false === $number) {
            $faults[] = \sprintf('%s: found %s; a whole number from %d to %d is allowed', $option, \is_string($value) ? $value : 'nothing', $least, $most);

            return $least;
        }

        return $number;
    }
}
