<?php

declare(strict_types=1);

namespace ZigLane\App\Words;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Motion\EventKind;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Shot\AimParts;
use ZigLane\Core\Shot\ShotVerdict;
use ZigLane\Core\Shot\SolvedShot;
use ZigLane\Core\Stroke\Caution;
use ZigLane\Core\Table\Equipment;

/** The numbers of a solved shot in a player's units; all read from the one simulated outcome. */
final readonly class ShotReport
{
    /** Less than so much off the ghost-ball line is on it: metres, degrees. */
    private const ON_LINE = [0.00005, 0.005];

    public Fact $verdict;
    public bool $isGood;
    /** The cut as aimed; of a shot aimed by hand, as the cue ball meets the ball. Null where it does not meet it. */
    public ?string $cut;
    public Fact $cutSide;
    public string $fraction;
    /** Where the cue points beside the ghost ball. */
    public Fact $aim;
    /** @var non-empty-list<Fact> squirt, and swerve where no cushion comes first */
    public array $turns;
    public ?AimParts $parts;
    public Fact $stops;
    public Fact $travel;
    /** @var list<Fact> rail and diamond, or the jaw of a pocket, in order */
    public array $cushions;
    public string $speed;
    public string $duration;
    /** @var list<Caution> */
    public array $cautions;
    /** Where the ghost ball covers the object ball, in ball diameters: -1 to 1, positive when the cue ball hits its right. */
    public float $overlap;

    public function __construct(SolvedShot $shot, Equipment $equipment)
    {
        $table = $equipment->table;
        $ghost = $shot->aim->ghost;
        $this->verdict = ShotVerdict::of($shot, $equipment->geometry);
        $this->isGood = $shot->goesOn();
        $this->parts = AimParts::of($shot, $equipment);
        $isByHand = null !== $shot->choice->direction;
        $cut = match (true) {
            !$isByHand => $ghost->cutsLeft ? $ghost->cutDegrees : -$ghost->cutDegrees,
            null === $shot->blocker() => $this->parts?->cut,
            default => null,
        };
        $this->cut = null === $cut ? null : self::number(abs($cut), 1).'°';
        $this->cutSide = new Fact('cut.'.(abs($cut ?? 0.0) < 0.05 ? 'straight' : ($cut > 0.0 ? 'toLeft' : 'toRight')));
        $this->fraction = self::number(1 - sin(deg2rad(abs($cut ?? 90.0))), 2);
        $this->aim = self::aim($shot);
        $swerve = $this->parts?->swerve;
        $this->turns = [self::turned(rad2deg($shot->strike->squirt()), 2), ...null === $swerve ? [] : [self::turned($swerve, 1)]];
        $cue = $shot->outcome->trajectory(Ball::Cue);
        [$long, $short] = $cue->last()->inDiamonds($table);
        $scratch = $shot->scratch();
        $this->stops = null === $scratch
            ? new Fact('stops.at', ['long' => self::number($long, 2), 'short' => self::number($short, 2)])
            : new Fact('stops.in', ['pocket' => $scratch]);
        $this->travel = new Fact('report.travel', [
            'metres' => self::number($cue->length(), 2), 'lengths' => self::number($cue->length() / $table->length, 1),
        ]);
        $this->cushions = self::contacts($shot, $table->diamond());
        $this->speed = \sprintf('%.2f m/s, %.1f mph', $shot->strike->speed, $shot->strike->speed * 3600 / 1609.344);
        $this->duration = \sprintf('%.1f s', $shot->outcome->duration());
        $this->cautions = $shot->choice->stroke->cautions();
        $this->overlap = sin(deg2rad($cut ?? 0.0));
    }

    private static function aim(SolvedShot $shot): Fact
    {
        $aim = $shot->aim;
        $offset = abs($aim->offset());
        $degrees = abs($aim->offsetDegrees());
        if ($offset < self::ON_LINE[0] && $degrees < self::ON_LINE[1]) {
            return new Fact('aimed.onLine');
        }
        $kind = $aim->ghost->cutDegrees < 0.5 ? ($aim->offset() > 0 ? 'left' : 'right') : ($aim->isFuller() ? 'fuller' : 'thinner');

        return new Fact('aimed.'.$kind, ['mm' => self::number(1000 * $offset, 1), 'degrees' => self::number($degrees, 2)]);
    }

    /** Throw off the line of centres, with its parts. */
    public function thrown(AimParts $parts): Fact
    {
        $all = $parts->cutThrow + $parts->spinThrow;
        $sign = $all < 0.0 ? -1 : 1;

        return new Fact('report.throw', [
            'all' => self::turned($all, 1),
            'cut' => \sprintf('%+.1f', $sign * $parts->cutThrow),
            'spin' => \sprintf('%+.1f', $sign * $parts->spinThrow),
        ]);
    }

    private static function turned(float $degrees, int $decimals): Fact
    {
        $isNone = abs($degrees) < 0.5 * 10 ** -$decimals;

        return new Fact('report.turned', [
            'degrees' => self::number($isNone ? 0.0 : abs($degrees), $isNone ? 0 : $decimals),
            'side' => $isNone ? 'none' : ($degrees > 0 ? 'left' : 'right'),
        ]);
    }

    /** @return list<Fact> */
    private static function contacts(SolvedShot $shot, float $diamond): array
    {
        $parts = [];
        foreach ($shot->cushions() as $event) {
            if (EventKind::Jaw === $event->kind) {
                $parts[] = new Fact('report.jaw', ['pocket' => $event->pocket]);
            } elseif (null !== $event->rail) {
                $along = $event->rail->isShort() ? $event->at->y : $event->at->x;
                $parts[] = new Fact('report.cushion', ['rail' => $event->rail, 'diamond' => self::number($along / $diamond, 1)]);
            }
        }

        return $parts;
    }

    private static function number(float $value, int $decimals): string
    {
        return number_format($value, $decimals, '.', '');
    }
}
