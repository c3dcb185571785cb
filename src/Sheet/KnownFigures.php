<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use Psr\Cache\CacheItemPoolInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;

/**
 * Figures that have been worked out before, for the same question: chances are simulated from a fixed seed, so the same would come out
 * again. Who goes back a step, or looks at another stroke on a table that he has read, does not wait twice. What is kept are the core's
 * values and facts; words, units and drawings are made of them whenever they are shown, for whoever reads them.
 */
final readonly class KnownFigures
{
    public function __construct(#[Autowire(service: 'lane.looks')] private CacheItemPoolInterface $looks)
    {
    }

    /**
     * @template T
     *
     * @param list<mixed>   $question  all that the figures depend on, as values
     * @param \Closure(): T $workedOut what it throws is not kept
     *
     * @return T
     */
    public function of(array $question, \Closure $workedOut): mixed
    {
        $item = $this->looks->getItem(hash('sha256', serialize($question)));
        if ($item->isHit() && \is_string($kept = $item->get()) && false !== $plain = gzinflate($kept)) {
            /** @var T $known */
            $known = unserialize($plain);

            return $known;
        }
        $found = $workedOut();
        $this->looks->save($item->set(gzdeflate(serialize($found), 1)));

        return $found;
    }
}
