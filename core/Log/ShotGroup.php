<?php

declare(strict_types=1);

namespace ZigLane\Core\Log;

/** Kinds of shots that a player's percentages are told apart by. A shot is in several of them. */
enum ShotGroup: string
{
    case Short = 'short';
    case Long = 'long';
    case Straight = 'straight';
    case Medium = 'medium';
    case Thin = 'thin';
    case CutLeft = 'cutLeft';
    case CutRight = 'cutRight';
    case Soft = 'soft';
    case Firm = 'firm';
    case Draw = 'draw';
    case Follow = 'follow';
    case Side = 'side';
    case Rail = 'rail';
    case Corner = 'corner';
    case SidePocket = 'sidePocket';
    case Bank = 'bank';
    case Combination = 'combination';

    /** Metres from the cue ball to the ghost ball: short below, long above. */
    private const SHORT = 0.6;
    private const LONG = 1.3;
    /** Degrees. */
    private const FULL = 10.0;
    private const THIN = 45.0;
    /** Metres a second. */
    private const SOFT = 1.5;
    private const FIRM = 3.0;
    /** Of the tip, as shares of the radius. */
    private const SPIN = 0.12;

    /** The bit that stands for it where sets of kinds are kept: never changed, whatever the order of the cases, since rows hold it. */
    public function bit(): int
    {
        return 1 << match ($this) {
            self::Short => 0,
            self::Long => 1,
            self::Straight => 2,
            self::Medium => 3,
            self::Thin => 4,
            self::CutLeft => 5,
            self::CutRight => 6,
            self::Soft => 7,
            self::Firm => 8,
            self::Draw => 9,
            self::Follow => 10,
            self::Side => 11,
            self::Rail => 12,
            self::Corner => 13,
            self::SidePocket => 14,
            self::Bank => 15,
            self::Combination => 16,
        };
    }

    /** Whether a shot is of this kind. */
    public function has(LoggedShot $shot, ShotFeatures $features): bool
    {
        $cut = $features->cut;
        $meant = $shot->meant;
        if (ShotKind::Pot !== $shot->kind) {
            return match ($this) {
                self::Bank => ShotKind::Bank === $shot->kind,
                self::Combination => ShotKind::Combination === $shot->kind || ShotKind::Carom === $shot->kind,
                default => false,
            };
        }

        return match ($this) {
            self::Short => null !== $features->distance && $features->distance < self::SHORT,
            self::Long => null !== $features->distance && $features->distance > self::LONG,
            self::Straight => null !== $cut && abs($cut) < self::FULL,
            self::Medium => null !== $cut && abs($cut) >= self::FULL && abs($cut) <= self::THIN,
            self::Thin => null !== $cut && abs($cut) > self::THIN,
            self::CutLeft => null !== $cut && $cut >= self::FULL,
            self::CutRight => null !== $cut && $cut <= -self::FULL,
            self::Soft => null !== $meant && $meant->speed < self::SOFT,
            self::Firm => null !== $meant && $meant->speed > self::FIRM,
            self::Draw => null !== $meant && $meant->height < -self::SPIN,
            self::Follow => null !== $meant && $meant->height > self::SPIN,
            self::Side => null !== $meant && abs($meant->side) > self::SPIN,
            self::Rail => $features->isOnRail,
            self::Corner => null !== $shot->pocket && !$shot->pocket->isSide(),
            self::SidePocket => true === $shot->pocket?->isSide(),
            self::Bank, self::Combination => false,
        };
    }
}
