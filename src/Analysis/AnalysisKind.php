<?php

declare(strict_types=1);

namespace ZigLane\App\Analysis;

use ZigLane\Core\Error\CoreError;

/** What can be laid over the table beside the route; the values are the words of the page. */
enum AnalysisKind: string
{
    /** The route alone. */
    case Route = 'route';
    case Spread = 'spread';
    case Tips = 'tips';
    case Speeds = 'speeds';
    case Zone = 'zone';
    case Read = 'read';
    case Indirect = 'indirect';
    case Land = 'land';

    /**
     * @return ShotAnalysis|null null for the route alone
     *
     * @throws CoreError If it cannot be made
     */
    public function of(AnalysisRequest $request): ?ShotAnalysis
    {
        return match ($this) {
            self::Route => null,
            self::Spread => SpreadAnalysis::of($request),
            self::Tips => FanAnalysis::overTips($request),
            self::Speeds => FanAnalysis::overSpeeds($request),
            self::Zone => ZoneAnalysis::of($request),
            self::Read => ReadingAnalysis::of($request),
            self::Indirect => IndirectAnalysis::of($request),
            self::Land => LandingAnalysis::of($request),
        };
    }
}
