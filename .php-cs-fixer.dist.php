<?php

declare(strict_types=1);

$finder = (new PhpCsFixer\Finder())
    ->in([
        __DIR__.'/core', __DIR__.'/src', __DIR__.'/tests', __DIR__.'/config', __DIR__.'/migrations',
        __DIR__.'/public', __DIR__.'/tools', __DIR__.'/benchmarks',
    ])
    ->exclude('symfony/vendor')
    ->notPath('reference.php')
    ->append([__DIR__.'/bin/console', __DIR__.'/importmap.php', __FILE__]);

return (new PhpCsFixer\Config())
    ->setRiskyAllowed(true)
    ->setUsingCache(true)
    ->setCacheFile(__DIR__.'/var/php-cs-fixer.cache')
    ->setRules([
        '@Symfony' => true,
        '@Symfony:risky' => true,
        'declare_strict_types' => true,
        'phpdoc_align' => ['align' => 'vertical'],
        'single_line_throw' => false,
        // Called by its full name, sqrt is known to the compiler as what it is: see docs/performance.md.
        'native_function_invocation' => ['include' => ['@compiler_optimized', 'sqrt'], 'scope' => 'namespaced', 'strict' => true],
        'global_namespace_import' => ['import_classes' => false, 'import_functions' => false, 'import_constants' => false],
    ])
    ->setFinder($finder);
