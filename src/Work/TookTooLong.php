<?php

declare(strict_types=1);

namespace ZigLane\App\Work;

use Symfony\Component\Messenger\Exception\UnrecoverableMessageHandlingException;

/** Work has had all the time of its kind. It is not tried again: it would take as long. */
final class TookTooLong extends UnrecoverableMessageHandlingException
{
    public function __construct(public readonly float $seconds)
    {
        parent::__construct(\sprintf('It took more than %d seconds of a processor and was stopped.', $seconds));
    }
}
