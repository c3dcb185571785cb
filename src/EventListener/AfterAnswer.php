<?php

declare(strict_types=1);

namespace ZigLane\App\EventListener;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\TerminateEvent;

/** What is done when the browser has its answer: how long it takes tells nobody anything. */
final class AfterAnswer
{
    /** @var list<\Closure(): void> */
    private array $work = [];

    /** @param \Closure(): void $work */
    public function do(\Closure $work): void
    {
        $this->work[] = $work;
    }

    #[AsEventListener]
    public function answered(TerminateEvent $event): void
    {
        while (null !== $work = array_shift($this->work)) {
            $work();
        }
    }
}
