<?php

declare(strict_types=1);

namespace ZigLane\Tests\Architecture;

/** The rooms of a part of the code, its folders of the first level, and which of them know which. */
final class Rooms
{
    /** @return array<string, array<string, string>> rooms by the room that knows them, each with a file that does */
    public static function known(string $folder, string $namespace): array
    {
        $known = [];
        $tree = new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator($folder, \FilesystemIterator::SKIP_DOTS));
        foreach ($tree as $file) {
            \assert($file instanceof \SplFileInfo);
            $room = strtok(substr($file->getPathname(), \strlen($folder) + 1), '/');
            if (false === $room || 'php' !== $file->getExtension() || $room === $file->getFilename()) {
                continue;
            }
            $known[$room] ??= [];
            $code = (string) file_get_contents($file->getPathname());
            preg_match_all('/^use '.preg_quote($namespace, '/').'\\\\(\w+)\\\\/m', $code, $found);
            foreach (array_diff(array_unique($found[1]), [$room]) as $other) {
                $known[$room][$other] ??= $file->getFilename();
            }
        }

        return $known;
    }

    /**
     * Rooms from which a way leads back to themselves.
     *
     * @param array<string, array<string, string>> $known
     *
     * @return list<string> steps of the ways, each with its file
     */
    public static function circles(array $known): array
    {
        $steps = [];
        foreach ($known as $room => $others) {
            foreach ($others as $other => $file) {
                if (isset(self::reached($known, $other)[$room])) {
                    $steps[] = "$room knows $other ($file)";
                }
            }
        }
        sort($steps);

        return $steps;
    }

    /**
     * @param array<string, array<string, string>> $known
     *
     * @return array<string, true> every room that a way leads to
     */
    private static function reached(array $known, string $from): array
    {
        $reached = [$from => true];
        $left = [$from];
        while (null !== $room = array_pop($left)) {
            foreach (array_keys($known[$room] ?? []) as $other) {
                if (!isset($reached[$other])) {
                    $reached[$other] = true;
                    $left[] = $other;
                }
            }
        }

        return $reached;
    }
}
