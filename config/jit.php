<?php

declare(strict_types=1);

/*
 * How PHP's compiler is used: every function, when it is loaded, with registers allocated locally (1105). With registers allocated over a
 * whole function (`function`, 1205) a signal handler that runs in the middle of a loop changes what is computed; without AVX every way of
 * keeping variables in registers computes wrong numbers (0105, 0205), so there none is kept, a tenth slower (docs/reliability.md).
 */
return str_contains((string) @file_get_contents('/proc/cpuinfo'), ' avx ') ? '1105' : '0005';
