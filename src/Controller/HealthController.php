<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Doctrine\DBAL\Connection;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;

/** Tells a script whether the page and its database answer. */
final class HealthController
{
    #[Route('/healthy', name: 'healthy', methods: ['GET'])]
    public function __invoke(Connection $connection): Response
    {
        $connection->executeQuery('SELECT 1');

        return new Response("ready\n", 200, ['Content-Type' => 'text/plain']);
    }
}
