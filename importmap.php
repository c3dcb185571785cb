<?php

declare(strict_types=1);

return [
    'app' => ['path' => './assets/app.js', 'entrypoint' => true],
    'htmx' => ['path' => 'vendor/htmx/htmx.esm.js'],
];
