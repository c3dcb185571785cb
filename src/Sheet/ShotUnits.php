<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use Symfony\Component\HttpKernel\Exception\UnprocessableEntityHttpException;
use ZigLane\App\Words\TipUnit;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Stroke\LengthScale;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Equipment;

/** The units in which a player speaks of strokes on one table: speed in lengths, the tip in the unit that he prefers. */
final readonly class ShotUnits
{
    public LengthScale $lengths;

    public function __construct(public Equipment $equipment, public TipUnit $tip = TipUnit::Tips)
    {
        $this->lengths = new LengthScale($equipment);
    }

    public function with(TipUnit $unit): self
    {
        return $unit === $this->tip ? $this : new self($this->equipment, $unit);
    }

    /** How many of a unit make the radius of the cue ball. */
    public function perRadius(?TipUnit $unit = null): float
    {
        return match ($unit ?? $this->tip) {
            TipUnit::Tips => 1 / $this->equipment->offsetPerTip(),
            TipUnit::Percent => 100.0,
            TipUnit::Millimetres => 1 / $this->equipment->perMillimetre(),
        };
    }

    /** @return array<string, float> how many of each unit make the radius, by the unit's value */
    public function allPerRadius(): array
    {
        $all = [];
        foreach (TipUnit::cases() as $unit) {
            $all[$unit->value] = $this->perRadius($unit);
        }

        return $all;
    }

    /** A tip's offset as the field holds it. */
    public function tipNumber(Tip $tip): string
    {
        return NumberText::plain(round($tip->offset() * $this->perRadius(), TipUnit::Tips === $this->tip ? 2 : 1));
    }

    /** The same in a sentence. */
    public function tipText(Tip $tip): string
    {
        return $this->tipNumber($tip).match ($this->tip) {
            TipUnit::Tips => '1' === $this->tipNumber($tip) ? ' tip' : ' tips',
            TipUnit::Percent => ' % R',
            TipUnit::Millimetres => ' mm',
        };
    }

    /**
     * An offset as a fraction of the radius, typed in the player's unit or with one of its own ("1.2 tips", "27 %", "7.7 mm").
     *
     * @throws UnprocessableEntityHttpException With a sentence that says what is allowed
     */
    public function tipFraction(string $typed): float
    {
        $unit = $this->tip;
        if (1 === preg_match('/^([\d.]+)\s*(tips?|%|mm)$/i', $typed, $found)) {
            $typed = $found[1];
            $unit = match (strtolower($found[2])) {
                '%' => TipUnit::Percent,
                'mm' => TipUnit::Millimetres,
                default => TipUnit::Tips,
            };
        }

        return match ($unit) {
            TipUnit::Tips => NumberText::between(
                $typed,
                'The tip offset',
                0,
                5,
                ' tips; 27 % of the radius and 8 mm are understood as well',
                'tips',
            ),
            TipUnit::Percent => NumberText::between($typed, 'The tip offset', 0, 100, ' % of the radius', 'tips'),
            TipUnit::Millimetres => NumberText::between($typed, 'The tip offset', 0, $this->perRadius(TipUnit::Millimetres), ' mm', 'tips'),
        } / $this->perRadius($unit);
    }

    /** A stroke in a few words: clock, tip, lengths, and where they are unusual elevation and side of the pocket. */
    public function strokeText(ShotChoice $choice): string
    {
        $stroke = $choice->stroke;
        $aside = 1000 * $choice->aside;

        return implode(', ', array_filter([
            $stroke->tip->clock().' '.$this->tipText($stroke->tip),
            \sprintf('%.1f lengths', $this->lengths->lengths($stroke->speed)),
            $stroke->elevation < 5.0 ? '' : \sprintf('raised %.0f°', $stroke->elevation),
            abs($aside) < 0.5 ? '' : \sprintf('%.0f mm to the %s of the pocket', abs($aside), $aside > 0 ? 'left' : 'right'),
        ]));
    }

    /** @return array<string, string> what a stroke puts into the fields of the desk */
    public function taken(ShotChoice $choice): array
    {
        $input = StrokeInput::fromChoice($choice, $this);

        return [
            'ball' => $input->ball,
            'pocket' => $input->pocket,
            'direction' => $input->direction,
            'elevation' => $input->elevation,
            'clock' => $input->clock,
            'tips' => $input->tips,
            'unit' => $input->unit->value,
            'lengths' => $input->lengths,
            'aside' => $input->aside,
            'safety' => $input->isSafety ? '1' : '',
        ];
    }
}
