<?php

declare(strict_types=1);

namespace ZigLane\Core\Format\Internal;

/**
 * Finds a name that stands twice in one object of a valid JSON text: a parser would keep the last without a word, and one of two 9s
 * would be gone.
 *
 * @internal
 */
final class Twice
{
    /** @return string|null the path of the first one, like "layout.9"; null if there is none */
    public static function in(string $json): ?string
    {
        // Strings, with the colon that makes one a name, and what opens and closes.
        preg_match_all('/"((?:[^"\\\\]|\\\\.)*)"(\s*:)?|[{}\[\]]/s', $json, $tokens, \PREG_SET_ORDER);
        $path = $seen = [];
        $last = '';
        foreach ($tokens as $token) {
            if ('{' === $token[0] || '[' === $token[0]) {
                $path[] = $last;
                $seen[] = [];
                $last = '';
            } elseif ('}' === $token[0] || ']' === $token[0]) {
                $last = '';
                array_pop($path);
                array_pop($seen);
            } elseif (isset($token[2])) {
                $depth = \count($seen) - 1;
                $last = self::name($token[1] ?? '');
                if ($depth < 0) {
                    return null;
                }
                if (isset($seen[$depth]['.'.$last])) {
                    return implode('.', array_filter([...$path, $last], static fn (string $name): bool => '' !== $name));
                }
                $seen[$depth]['.'.$last] = true;
            } else {
                $last = '';
            }
        }

        return null;
    }

    /** A name without its escapes. */
    private static function name(string $written): string
    {
        $name = json_decode('"'.$written.'"');

        return \is_string($name) ? $name : $written;
    }
}
