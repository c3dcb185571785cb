<?php

declare(strict_types=1);

namespace ZigLane\Core\Breaking;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Plan\Option;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/**
 * A break shot of straight pool: the break ball and the cue ball in diamonds beside fourteen that are racked, the pocket (null: the
 * likeliest), speed in m/s and tip as fractions of the radius.
 */
final readonly class BreakOffShot
{
    public const BALL = Ball::Fifteen;
    /** Least and most. */
    public const LIMITS = [
        'long' => [0.2, 7.8], 'short' => [0.2, 3.8], 'cueLong' => [0.2, 7.8], 'cueShort' => [0.2, 3.8], 'speed' => [1.0, 9.0],
        'side' => [-0.4, 0.4], 'height' => [-0.4, 0.4],
    ];
    /** Where break balls are left on purpose: common practice. */
    public const USUAL = [
        'beside' => ['long' => 6.15, 'short' => 3.0, 'cueLong' => 4.9, 'cueShort' => 3.05, 'speed' => 4.4, 'side' => 0.0, 'height' => 0.3],
        'behind' => ['long' => 7.25, 'short' => 2.5, 'cueLong' => 7.55, 'cueShort' => 3.6, 'speed' => 4.4, 'side' => 0.0, 'height' => 0.1],
        'fromSide' => ['long' => 5.4, 'short' => 1.6, 'cueLong' => 5.2, 'cueShort' => 0.8, 'speed' => 4.4, 'side' => 0.0, 'height' => 0.2],
    ];
    private const ELEVATION = 2.0;

    public function __construct(
        public float $long,
        public float $short,
        public float $cueLong,
        public float $cueShort,
        public float $speed,
        public float $side = 0.0,
        public float $height = 0.0,
        public ?Pocket $pocket = null,
    ) {
    }

    /** @param array<mixed> $values numbers that are not there or not allowed are those of the usual shot, or the nearest allowed */
    public static function fromArray(array $values, string $usual = 'beside'): self
    {
        $read = [];
        foreach (self::USUAL[$usual] ?? self::USUAL['beside'] as $field => $default) {
            $value = $values[$field] ?? null;
            [$least, $most] = self::LIMITS[$field];
            $read[$field] = is_numeric($value) && is_finite((float) $value) ? max($least, min($most, (float) $value)) : $default;
        }
        $pocket = $values['pocket'] ?? null;

        return new self(...$read, pocket: \is_string($pocket) ? Pocket::tryFrom($pocket) : null);
    }

    /** Fourteen racked, the break ball and the cue ball; null where these lie in the rack, a rail or each other. */
    public function layout(Equipment $equipment): ?Layout
    {
        $table = $equipment->table;
        $place = static fn (float $long, float $short): Spot => Spot::diamonds($long, $short, $table);
        $cue = Layout::empty()->with(Ball::Cue, $place($this->cueLong, $this->cueShort));

        return Racking::fourteen($cue->with(self::BALL, $place($this->long, $this->short)), $equipment);
    }

    /** The shot as it is meant; null where the ball goes straight into no pocket, or the called one. */
    public function aimed(Layout $racked, ShotSolver $solver, ExecutionErrors $player): ?Option
    {
        $alone = Layout::empty()->with(self::BALL, $racked->spot(self::BALL));
        $cue = $racked->spot(Ball::Cue);
        $pockets = null === $this->pocket ? Pocket::cases() : [$this->pocket];
        $lines = PotModel::findAll($alone, self::BALL, $pockets, $solver, $player);
        usort($lines, static fn (PotModel $a, PotModel $b): int => $b->chance($cue) <=> $a->chance($cue));
        $stroke = new Stroke(Tip::fractions($this->side, $this->height), $this->speed, self::ELEVATION);
        $first = null;
        foreach ($lines as $line) {
            $pocket = $line->choice($cue)->pocket;
            try {
                $shot = $solver->aimed($racked, new ShotChoice(self::BALL, $pocket, $stroke, $line->asideMetres()));
            } catch (CoreError) {
                continue;
            }

            $option = Option::of($shot, $line->chance($cue));
            // What of the rack stands in the way shows when it is played.
            if (null !== $this->pocket || $solver->simulator->play($racked, $shot->strike)->pocketOf(self::BALL) === $pocket) {
                return $option;
            }
            $first ??= $option;
        }

        return $first;
    }

    public function isHard(): bool
    {
        return $this->speed >= BreakStroke::HARD;
    }

    /** @return array<string, float|string> by LIMITS, and the pocket */
    public function toArray(): array
    {
        return [
            'long' => $this->long, 'short' => $this->short, 'cueLong' => $this->cueLong, 'cueShort' => $this->cueShort,
            'speed' => $this->speed, 'side' => $this->side, 'height' => $this->height, 'pocket' => $this->pocket->value ?? '',
        ];
    }
}
