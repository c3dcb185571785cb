<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use Symfony\Component\HttpKernel\Exception\ConflictHttpException;

/** The sheet was changed in another window since this page was drawn. */
final class StaleSheet extends ConflictHttpException
{
    public function __construct(?\Throwable $previous = null)
    {
        parent::__construct(
            'This sheet was changed in another window. Nothing was saved here: reload the page to see it as it is now.',
            $previous,
        );
    }
}
