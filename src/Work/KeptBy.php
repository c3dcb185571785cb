<?php

declare(strict_types=1);

namespace ZigLane\App\Work;

use Symfony\Component\Messenger\Stamp\NonSendableStampInterface;

/** Work that a worker has put aside and holds in its memory: it goes on with it, unless it does not come back to it for a while. */
final readonly class KeptBy implements NonSendableStampInterface
{
    public function __construct(public string $worker)
    {
    }
}
