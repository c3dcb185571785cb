<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpFoundation\StreamedResponse;

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

    /** @param iterable<string> $pieces that are made as they are sent */
    public static function stream(iterable $pieces, string $name, string $type = 'application/json'): StreamedResponse
    {
        return new StreamedResponse($pieces, 200, [
            'Content-Type' => $type,
            'Content-Disposition' => HeaderUtils::makeDisposition(HeaderUtils::DISPOSITION_ATTACHMENT, $name),
            'X-Accel-Buffering' => 'no',
        ]);
    }
}
