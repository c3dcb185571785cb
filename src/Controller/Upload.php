<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\Request;
use ZigLane\App\Words\Refused;

/** A small file that a form sends as `file`. */
final class Upload
{
    /**
     * @param string $refusal what is said where none came or it is too long
     *
     * @throws Refused
     */
    public static function content(Request $request, int $maxBytes, string $refusal): string
    {
        $file = $request->files->get('file');

        return $file instanceof UploadedFile && $file->isValid() && $file->getSize() <= $maxBytes
            ? $file->getContent()
            : throw Refused::because($refusal, ['kib' => intdiv($maxBytes, 1024)]);
    }
}
