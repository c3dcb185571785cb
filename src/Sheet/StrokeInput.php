<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use Symfony\Component\HttpFoundation\InputBag;
use Symfony\Component\HttpKernel\Exception\UnprocessableEntityHttpException;
use ZigLane\App\Words\Refused;
use ZigLane\App\Words\TipUnit;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;

/** A called shot as the page speaks of it: ball, pocket, clock and tips, lengths, degrees. */
final readonly class StrokeInput
{
    public function __construct(
        public string $ball = '',
        public string $pocket = '',
        public string $clock = '12:00',
        public string $tips = '0',
        public string $lengths = '2',
        public string $elevation = '0',
        /** Side of the pocket in millimetres, to the left of its middle seen from the ball. */
        public string $aside = '0',
        /** The cue's own direction in degrees where a shot is aimed by hand; empty: aimed at the pocket. */
        public string $direction = '',
        public TipUnit $unit = TipUnit::Tips,
        /** Nothing is called: the ball is the one that is met first. */
        public bool $isSafety = false,
    ) {
    }

    /** @param InputBag<string> $input */
    public static function of(InputBag $input): self
    {
        return new self(
            $input->getString('ball'),
            $input->getString('pocket'),
            trim($input->getString('clock', '12:00')),
            trim($input->getString('tips', '0')),
            trim($input->getString('lengths', '2')),
            trim($input->getString('elevation', '0')),
            trim($input->getString('aside', '0')),
            trim($input->getString('direction')),
            TipUnit::tryFrom($input->getString('unit')) ?? TipUnit::Tips,
            $input->getBoolean('safety'),
        );
    }

    public static function fromChoice(ShotChoice $choice, ShotUnits $units): self
    {
        $tip = $choice->stroke->tip;
        $minutes = (int) round($tip->hour() * 60) % 720;
        $hour = intdiv($minutes, 60);

        return new self(
            $choice->ball->label(),
            $choice->pocket->value,
            \sprintf('%d:%02d', 0 === $hour ? 12 : $hour, $minutes % 60),
            $units->tipNumber($tip),
            NumberText::plain($units->lengths->lengths($choice->stroke->speed)),
            NumberText::plain($choice->stroke->elevation),
            NumberText::plain(1000 * $choice->aside),
            null === $choice->direction ? '' : \sprintf('%.4f', fmod(rad2deg($choice->direction) + 720, 360)),
            $units->tip,
            $choice->isSafety,
        );
    }

    /** @throws UnprocessableEntityHttpException With a sentence that says what is allowed */
    public function choice(ShotUnits $units): ShotChoice
    {
        $ball = Ball::named($this->ball);
        if (null === $ball || Ball::Cue === $ball) {
            throw Refused::because('objectBall');
        }
        $pocket = Pocket::tryFrom($this->pocket) ?? throw Refused::because('pocket');
        if (1 !== preg_match('/^(\d{1,2})(?::([0-5]?\d))?$/', $this->clock, $found) || (int) $found[1] > 12) {
            throw Refused::because('clock', field: 'clock');
        }
        $hour = (int) $found[1] + (int) ($found[2] ?? 0) / 60;
        $most = floor(100 * $units->lengths->most()) / 100;
        $lengths = NumberText::between($this->lengths, 'The speed', 0.05, $most, ' lengths', 'lengths');
        $tip = Tip::atClock($hour, $units->with($this->unit)->tipFraction($this->tips));

        return new ShotChoice(
            $ball,
            $pocket,
            new Stroke(
                $tip,
                $units->lengths->speed($lengths),
                NumberText::between($this->elevation, 'The elevation', 0, Strike::MAX_ELEVATION_DEGREES, ' degrees', 'elevation'),
            ),
            $this->aside(),
            $this->direction(),
            // A safety is aimed by hand: one whose direction was cleared is a pot again.
            $this->isSafety && '' !== $this->direction,
        );
    }

    private function aside(): float
    {
        $most = 1000 * ShotChoice::MOST_ASIDE;
        $sign = str_starts_with($this->aside, '-') ? -1 : 1;

        return '' === $this->aside
            ? 0.0
            : $sign * NumberText::between(
                ltrim($this->aside, '-'),
                'The side of the pocket',
                0,
                $most,
                ' mm, with a minus to the right',
                'aside',
            ) / 1000;
    }

    private function direction(): ?float
    {
        return '' === $this->direction
            ? null
            : deg2rad(NumberText::between($this->direction, 'The direction of the cue', 0, 360, ' degrees', 'direction'));
    }
}
