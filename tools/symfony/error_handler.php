<?php

declare(strict_types=1);

// Stands in for symfony/polyfill-php85, which the registry we build from does not serve: composer.json replaces it.
// Of that polyfill, Symfony 7.4 calls this one function.
if (!function_exists('get_error_handler')) {
    function get_error_handler(): ?callable
    {
        $handler = set_error_handler(null);
        restore_error_handler();

        return $handler;
    }
}
