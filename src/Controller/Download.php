<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Response;

/** A file that the browser keeps instead of showing it. */
final class Download
{
    public static function of(string $content, string $name, string $type = 'application/json'): Response
    {
        return new Response($content, 200, [
            'Content-Type' => $type,
            'Content-Disposition' => HeaderUtils::makeDisposition(HeaderUtils::DISPOSITION_ATTACHMENT, $name),
        ]);
    }
}
