<?php

declare(strict_types=1);

namespace ZigLane\App\Drawing;

use ZigLane\Core\Motion\EventKind;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Shot\AimParts;
use ZigLane\Core\Shot\SolvedShot;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Table\Pocket;
use ZigLane\Core\Table\TableGeometry;
use ZigLane\Core\Table\TableProfile;

/** The numbers and sentences of a solved shot, in a player's units; all read from the one simulated outcome. */
final readonly class ShotReport
{
    /** From this speed of the cue ball on, the caution for hard shots is shown, m/s: common practice. */
    private const HARD = 8.0;

    public string $verdict;
    public bool $isGood;
    public string $cut;
    public string $cutSide;
    public string $fraction;
    public float $fractionValue;
    public string $offsetDegrees;
    public string $offsetMillimetres;
    public string $offsetWords;
    public string $squirt;
    public string $stops;
    public string $travel;
    public string $cushions;
    public string $speed;
    public string $duration;
    /** @var list<string> */
    public array $cautions;
    /** Where the ghost ball covers the object ball, in ball diameters: -1 to 1, positive when the cue ball hits its right. */
    public float $overlap;

    public function __construct(private SolvedShot $shot, private TableProfile $table)
    {
        $aim = $shot->aim;
        $ghost = $aim->ghost;
        $this->verdict = $this->told();
        $this->isGood = $shot->goesOn();
        $this->cut = self::number($ghost->cutDegrees, 1).'°';
        $this->cutSide = $ghost->cutDegrees < 0.05 ? 'straight' : ($ghost->cutsLeft ? 'to the left' : 'to the right');
        $this->fractionValue = $ghost->ballHitFraction();
        $this->fraction = self::number($this->fractionValue, 2);
        $offset = abs($aim->offset()) * 1000;
        $degrees = abs($aim->offsetDegrees());
        $this->offsetMillimetres = self::number($offset, 1).' mm';
        $this->offsetDegrees = self::number($degrees, 2).'°';
        $this->offsetWords = $offset < 0.05 && $degrees < 0.005 ? 'on the ghost-ball line' : match (true) {
            $ghost->cutDegrees < 0.5 => $aim->offset() > 0 ? 'left of the ghost ball' : 'right of the ghost ball',
            default => $aim->isFuller() ? 'fuller than the ghost ball' : 'thinner than the ghost ball',
        };
        $squirt = rad2deg($shot->strike->squirt());
        $this->squirt = abs($squirt) < 0.005 ? 'none' : self::number(abs($squirt), 2).'° '.($squirt > 0 ? 'left' : 'right');
        $cue = $shot->outcome->trajectory(Ball::Cue);
        [$long, $short] = $cue->last()->inDiamonds($table);
        $this->stops = null === $shot->scratch() ? \sprintf('%.2f, %.2f', $long, $short) : 'in '.$shot->scratch()->value;
        $this->travel = \sprintf('%.2f m, %.1f lengths', $cue->length(), $cue->length() / $table->length);
        $this->cushions = $this->contacts();
        $this->speed = \sprintf('%.2f m/s, %.1f mph', $shot->strike->speed, $shot->strike->speed * 3600 / 1609.344);
        $this->duration = \sprintf('%.1f s', $shot->outcome->duration());
        $this->cautions = $this->cautionsOf($shot->choice->stroke);
        $this->overlap = sin(deg2rad($ghost->cutDegrees)) * ($ghost->cutsLeft ? 1 : -1);
    }

    /** Throw off the line of centres, with its parts. */
    public function thrown(AimParts $parts): string
    {
        $all = $parts->cutThrow + $parts->spinThrow;
        $sign = $all < 0.0 ? -1 : 1;

        return \sprintf('%s: cut %+.1f, side %+.1f', self::turned($all), $sign * $parts->cutThrow, $sign * $parts->spinThrow);
    }

    public function swerve(AimParts $parts): string
    {
        return self::turned($parts->swerve);
    }

    private static function turned(float $degrees): string
    {
        return abs($degrees) < 0.05 ? '0°' : self::number(abs($degrees), 1).'° '.($degrees > 0 ? 'left' : 'right');
    }

    private function told(): string
    {
        $shot = $this->shot;
        $ball = 'The '.$shot->choice->ball->label();
        $pocket = $shot->choice->pocket;
        $scratch = $shot->scratch();
        if ($shot->isMade()) {
            $moved = array_map(static fn (Ball $ball): string => $ball->spoken(), $shot->disturbed());

            return match (true) {
                null !== $scratch => \sprintf('%s drops in %s, but the cue ball scratches in %s.', $ball, $pocket->value, $scratch->value),
                [] !== $moved => \sprintf('%s drops in %s. On the way %s %s moved.', $ball, $pocket->value, self::list($moved), 1 === \count($moved) ? 'is' : 'are'),
                default => \sprintf('%s drops in %s.', $ball, $pocket->value),
            };
        }
        $end = null === $scratch ? '.' : \sprintf(', and the cue ball scratches in %s.', $scratch->value);
        $blocker = $shot->blocker();

        return match (true) {
            null !== $blocker => \sprintf('%s is in the way: the cue ball meets it first%s', ucfirst($blocker->spoken()), $end),
            $shot->touchesCushionFirst() => \sprintf('The cue ball touches a cushion before %s and does not come as aimed%s', lcfirst($ball), $end),
            null === $shot->outcome->firstContact() => \sprintf('The cue ball does not reach %s%s', lcfirst($ball), $end),
            default => $this->toldOfMiss($ball, $pocket, $end),
        };
    }

    private function toldOfMiss(string $ball, Pocket $pocket, string $end): string
    {
        $outcome = $this->shot->outcome;
        $choice = $this->shot->choice;
        $other = $outcome->pocketOf($choice->ball);
        if (null !== $other) {
            return \sprintf('%s drops in %s instead of %s%s', $ball, $other->value, $pocket->value, $end);
        }
        foreach ($outcome->eventsOf($choice->ball) as $event) {
            if (EventKind::Ball === $event->kind && !$event->involves(Ball::Cue)) {
                $met = $event->ball === $choice->ball ? $event->other : $event->ball;

                return \sprintf('%s meets %s on its way to %s%s', $ball, null === $met ? 'a ball' : $met->spoken(), $pocket->value, $end);
            }
            if (EventKind::Jaw === $event->kind && $event->pocket === $pocket) {
                return \sprintf('%s rattles in the jaws of %s and stays out%s', $ball, $pocket->value, $end);
            }
            if (EventKind::Cushion === $event->kind) {
                return \sprintf('%s meets the %s rail first and does not go in %s%s', $ball, $event->rail->value ?? '', $pocket->value, $end);
            }
        }
        $short = $outcome->trajectory($choice->ball)->last()->distanceTo((new TableGeometry($this->table))->at($pocket)->mouth());

        return \sprintf('%s stops %.0f cm short of %s: strike harder%s', $ball, 100 * $short, $pocket->value, $end);
    }

    private function contacts(): string
    {
        $parts = [];
        foreach ($this->shot->cushions() as $event) {
            if (EventKind::Jaw === $event->kind) {
                $parts[] = 'jaw of '.($event->pocket->value ?? '');
            } elseif (null !== $event->rail) {
                $along = $event->rail->isShort() ? $event->at->y : $event->at->x;
                $parts[] = \sprintf('%s %.1f', $event->rail->value, $along / $this->table->diamond());
            }
        }

        return [] === $parts ? 'none' : implode(', ', $parts);
    }

    /** @return list<string> */
    private function cautionsOf(Stroke $stroke): array
    {
        $cautions = [];
        if ($stroke->elevation >= Stroke::RAISED) {
            $cautions[] = 'A cue raised this steeply (jump or masse) can tear the cloth and throw a ball off the table. Many rooms forbid it: ask first, keep people clear, and follow the house rules.';
        }
        if ($stroke->speed >= self::HARD) {
            $cautions[] = 'At break speed a ball can leave the table. Keep people clear of the far end, and follow the house rules.';
        }

        return $cautions;
    }

    /** @param non-empty-list<string> $words */
    private static function list(array $words): string
    {
        $last = array_pop($words);

        return [] === $words ? $last : implode(', ', $words).' and '.$last;
    }

    private static function number(float $value, int $decimals): string
    {
        return number_format($value, $decimals, '.', '');
    }
}
