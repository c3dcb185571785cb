<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use Psr\Cache\CacheItemPoolInterface;
use Symfony\Component\DependencyInjection\Attribute\Target;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use ZigLane\App\Analysis\AnalysisKind;
use ZigLane\App\Entity\RackSheet;
use ZigLane\Core\Rules\Rack;

/**
 * Answers that have been worked out before, for the same question of the same balls: chances are simulated from a fixed seed, so the same
 * would come out again. Who goes back a step, or looks at another stroke on a table that he has read, does not wait twice.
 */
final readonly class KnownLooks
{
    /** Fields of the stroke: reading a table does not depend on them. */
    private const STROKE = [
        'clock', 'tips', 'lengths', 'elevation', 'aside', 'direction', 'safety', 'target', 'spot', 'odds', 'next', 'next_pocket', 'after',
    ];

    public function __construct(#[Target('lane.looks')] private CacheItemPoolInterface $looks)
    {
    }

    /** @param \Closure(): array{Response, bool} $workedOut the answer, and whether it is one to keep: a refusal is not */
    public function answer(Request $request, RackSheet $sheet, Rack $rack, \Closure $workedOut): Response
    {
        $query = $request->query->all();
        if (AnalysisKind::Read->value === ($query['look'] ?? null)) {
            $query = array_diff_key($query, array_flip(self::STROKE));
        }
        ksort($query);
        $item = $this->looks->getItem(hash('sha256', serialize([
            $request->getPathInfo(), $rack, $query, $request->cookies->get('lane-upright'),
            $sheet->getOwner()->getTipUnit(),
        ])));
        if ($item->isHit() && \is_string($item->get())) {
            return new Response($item->get());
        }
        [$response, $isKept] = $workedOut();
        if ($isKept) {
            $this->looks->save($item->set($response->getContent()));
        }

        return $response;
    }
}
