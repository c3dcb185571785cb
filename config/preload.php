<?php

declare(strict_types=1);

// The environment whose servers are starting: prod, or the one that bin/test gives its browser.
$environment = getenv('APP_ENV') ?: 'prod';
$list = sprintf('%s/var/cache/%s/ZigLane_App_Kernel%sContainer.preload.php', dirname(__DIR__), $environment, ucfirst($environment));
if (file_exists($list)) {
    require $list;
}
