<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use Symfony\Component\HttpKernel\Exception\UnprocessableEntityHttpException;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\BallSet;

/** What a player counts the distance of the tip from the centre of the cue ball in. */
enum TipUnit: string
{
    case Tips = 'tips';
    case Percent = 'percent';
    case Millimetres = 'mm';

    public function label(): string
    {
        return match ($this) {
            self::Tips => 'Tips',
            self::Percent => '% of R',
            self::Millimetres => 'mm',
        };
    }

    /** How many make the radius of the cue ball. */
    public function perRadius(): float
    {
        return match ($this) {
            self::Tips => Tip::inTips(1.0),
            self::Percent => 100.0,
            self::Millimetres => 1000 * (new BallSet())->radius,
        };
    }

    /** A tip's offset as the field holds it. */
    public function number(Tip $tip): string
    {
        return NumberText::plain(round(hypot($tip->side, $tip->height) * $this->perRadius(), self::Tips === $this ? 2 : 1));
    }

    /** The same in a sentence. */
    public function text(Tip $tip): string
    {
        return $this->number($tip).match ($this) {
            self::Tips => '1' === $this->number($tip) ? ' tip' : ' tips',
            self::Percent => ' % R',
            self::Millimetres => ' mm',
        };
    }

    /**
     * An offset as a fraction of the radius, typed in this unit or with one of its own ("1.2 tips", "27 %", "7.7 mm").
     *
     * @throws UnprocessableEntityHttpException With a sentence that says what is allowed
     */
    public function fraction(string $typed): float
    {
        $unit = $this;
        if (1 === preg_match('/^([\d.]+)\s*(tips?|%|mm)$/i', $typed, $found)) {
            $typed = $found[1];
            $unit = match (strtolower($found[2])) {
                '%' => self::Percent,
                'mm' => self::Millimetres,
                default => self::Tips,
            };
        }

        return match ($unit) {
            self::Tips => NumberText::between($typed, 'The tip offset', 0, 5, ' tips; 27 % of the radius and 8 mm are understood as well'),
            self::Percent => NumberText::between($typed, 'The tip offset', 0, 100, ' % of the radius'),
            self::Millimetres => NumberText::between($typed, 'The tip offset', 0, self::Millimetres->perRadius(), ' mm'),
        } / $unit->perRadius();
    }
}
