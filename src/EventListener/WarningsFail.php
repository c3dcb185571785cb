<?php

declare(strict_types=1);

namespace ZigLane\App\EventListener;

/**
 * A warning or a notice of code in core/ or src/ ends that piece of work with an exception, in pages, workers and commands alike: what was
 * computed with a value that was not there is wrong, and a loop over it may not end. Warnings of packages, which they deal with themselves
 * (a database that is gone), go on to whoever handled errors before.
 */
final class WarningsFail
{
    private static bool $isInstalled = false;

    public static function install(): void
    {
        if (self::$isInstalled) {
            return;
        }
        self::$isInstalled = true;
        $root = \dirname(__DIR__, 2).'/';
        $own = [$root.'core/', $root.'src/'];
        $previous = null;
        $previous = set_error_handler(
            static function (int $type, string $message, string $file = '', int $line = 0, mixed ...$more) use (&$previous, $own): bool {
                $isOwn = str_starts_with($file, $own[0]) || str_starts_with($file, $own[1]);
                // Code that silences a warning with @ checks the result itself.
                if ($isOwn && 0 !== (error_reporting() & $type) && 0 === ($type & (\E_DEPRECATED | \E_USER_DEPRECATED))) {
                    throw new \ErrorException($message, 0, $type, $file, $line);
                }

                return null !== $previous && false !== $previous($type, $message, $file, $line, ...$more);
            },
        );
    }
}
