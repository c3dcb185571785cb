<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

use ZigLane\Core\Stroke\Caution;
use ZigLane\Core\Stroke\Stroke;

/** Where leagues and rooms differ from each other. The defaults are the world standard rules (WPA; from memory). */
final readonly class RuleOptions
{
    public const NAMES = ['callsNine', 'tenLast', 'eightOnBreak', 'eightReracks', 'noThirdFoul', 'noRaisedCue', 'noHardStroke'];

    /** Those of a room: they forbid strokes, in any game. */
    public const OF_A_ROOM = ['noRaisedCue', 'noHardStroke'];

    /** Names of earlier files that say what is now the default. */
    public const OLD = ['tenAnyTime'];

    /**
     * @param bool $callsNine    nine-ball: ball and pocket are called, as in ten-ball; else any ball that drops on a legal shot counts
     * @param bool $tenLast      ten-ball: the 10 must be the last ball, and is spotted before; else it wins whenever it drops as called on
     *                           a legal shot, but for the break and a push-out
     * @param bool $eightOnBreak eight-ball: the 8 wins when it drops on a legal break; else it is spotted or the rack broken again
     * @param bool $eightReracks eight-ball: after an 8 on the break the rack is broken again; else the 8 is spotted
     * @param bool $noThirdFoul  nine- and ten-ball: a third foul in a row is a foul like any other; else it loses the rack
     * @param bool $noRaisedCue  the room forbids a cue that is raised steeply (jump, masse): none is planned
     * @param bool $noHardStroke the room forbids strokes at break speed
     */
    public function __construct(
        public bool $callsNine = false,
        public bool $tenLast = false,
        public bool $eightOnBreak = false,
        public bool $eightReracks = false,
        public bool $noThirdFoul = false,
        public bool $noRaisedCue = false,
        public bool $noHardStroke = false,
    ) {
    }

    /** @param list<int|string> $chosen names of those that are chosen; others do not count */
    public static function of(array $chosen): self
    {
        return new self(...array_fill_keys(array_values(array_intersect(self::NAMES, $chosen)), true));
    }

    /** @return list<string> names of the choices that a game has */
    public static function in(Game $game): array
    {
        return [...$game->rules()->options, ...self::OF_A_ROOM];
    }

    /** Whether the room forbids a stroke, for what it can hurt. */
    public function forbids(Caution $caution): bool
    {
        return match ($caution) {
            Caution::RaisedCue => $this->noRaisedCue,
            Caution::BreakSpeed => $this->noHardStroke,
        };
    }

    /** The same of a stroke by its numbers: elevation in radians, speed in m/s. */
    public function forbidsStroke(float $elevation, float $speed): bool
    {
        return ($this->noRaisedCue && rad2deg($elevation) >= Stroke::RAISED - 1e-9) || ($this->noHardStroke && $speed >= Stroke::HARD);
    }

    /** @return array<string, true> those that differ from the world standard rules */
    public function chosen(): array
    {
        return array_filter(array_combine(
            self::NAMES,
            [
                $this->callsNine, $this->tenLast, $this->eightOnBreak, $this->eightReracks, $this->noThirdFoul, $this->noRaisedCue,
                $this->noHardStroke,
            ],
        ));
    }
}
