<?php

declare(strict_types=1);

namespace ZigLane\App\Work;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;
use ZigLane\App\Message\OfAccount;
use ZigLane\Core\Fact\Fact;

/** A handler of work that may be given up: it then ends what a page waits for. */
#[AutoconfigureTag]
interface LongWork
{
    /** @return class-string<OfAccount> the message that it handles */
    public static function message(): string;

    /** Ends the work: nothing waits for it any more. What was found by then stands. */
    public function giveUp(OfAccount $message, Fact $why): void;
}
