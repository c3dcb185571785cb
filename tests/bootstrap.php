<?php

declare(strict_types=1);

use Symfony\Component\Dotenv\Dotenv;

require dirname(__DIR__).'/vendor/autoload.php';

// Where the machine's own .env.local must not reach in: bin/test gives the real values as environment variables.
(new Dotenv())->loadEnv(dirname(__DIR__).'/.env', 'APP_ENV', 'test');
