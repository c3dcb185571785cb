<?php

declare(strict_types=1);

return [
    'app' => ['path' => './assets/app.js', 'entrypoint' => true],
    'uplot' => ['path' => 'vendor/uplot/uPlot.esm.js'],
    'htmx' => ['path' => './assets/vendor/htmx.js'],
    'qr' => ['path' => './assets/vendor/qr.js'],
];
