<?php

declare(strict_types=1);

namespace ZigLane\App\Analysis;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\PositionPlay\Fan;
use ZigLane\Core\PositionPlay\FanShot;
use ZigLane\Core\PositionPlay\Landing;

/** The same pot with other tips or at other speeds. */
final readonly class FanAnalysis implements ShotAnalysis
{
    private function __construct(public Fan $fan)
    {
    }

    public static function overTips(AnalysisRequest $request): self
    {
        return new self(Fan::overTips($request->solver, $request->shot->layout, $request->shot->choice));
    }

    public static function overSpeeds(AnalysisRequest $request): self
    {
        return new self(Fan::overSpeeds($request->solver, $request->shot->layout, $request->shot->choice, $request->lengths));
    }

    public function facts(): array
    {
        return [new Fact([] === $this->fan->shots ? 'fan.none' : 'fan.some')];
    }

    public function suggestions(): array
    {
        return array_map(static function (FanShot $fanned): Suggestion {
            $scratch = $fanned->shot->scratch();

            return new Suggestion(
                $fanned->shot->choice,
                self::label($fanned),
                null === $scratch ? self::route(Landing::routeOf($fanned->shot)) : new Fact('route.scratches', ['pocket' => $scratch]),
            );
        }, $this->fan->shots);
    }

    /** What is different in a shot of the fan. */
    public static function label(FanShot $fanned): Fact
    {
        $tip = $fanned->shot->choice->stroke->tip;

        return match (true) {
            null !== $fanned->lengths => new Fact('fan.speed', ['lengths' => round($fanned->lengths, 1)]),
            $tip->offset() < 1e-9 => new Fact('fan.centre'),
            default => new Fact('fan.tip', ['clock' => $tip->clock()]),
        };
    }

    /** @param list<\ZigLane\Core\Name\Rail|\ZigLane\Core\Name\Pocket> $route */
    public static function route(array $route): Fact
    {
        return [] === $route ? new Fact('route.direct') : new Fact('route.over', ['cushions' => $route]);
    }

    public function hasMore(): bool
    {
        return false;
    }
}
