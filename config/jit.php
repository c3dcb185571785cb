<?php

declare(strict_types=1);

/*
 * How PHP's compiler is used: every function, when it is loaded. Without AVX PHP 8.2 has been seen to compute wrong numbers where it keeps
 * variables in registers (docs/performance.md): there without, a tenth slower.
 */
return str_contains((string) @file_get_contents('/proc/cpuinfo'), ' avx ') ? 'function' : '0005';
