<?php

declare(strict_types=1);

namespace ZigLane\App\Log;

use Symfony\Component\Uid\Uuid;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Log\ShotKind;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Side;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableProfile;

/**
 * A shot as the page at the table writes it down. It names the shot before it, so that entries that come late, twice or from two phones
 * are told apart.
 */
final readonly class ShotEntry
{
    /** A clock that is wrong by more than this is not believed, seconds. */
    private const CLOCK = 30 * 86400;
    private const AHEAD = 300;

    /**
     * @param Uuid                     $id       made in the browser
     * @param Uuid|null                $previous the last shot of the rack that the page knew of
     * @param int|null                 $leg      of the plan that was followed, from 1; null: something else was shot
     * @param string|null              $plan     id of the plan's job, or "start"
     * @param array{float, float}|null $tip      of a shot that was not planned: side and height, shares of the radius
     * @param float|null               $lengths  likewise its speed
     * @param Spot|null                $cue      where the cue ball was placed, with ball in hand
     * @param Layout                   $after    all balls that lie on the table
     */
    private function __construct(
        public Uuid $id,
        public ?Uuid $previous,
        public \DateTimeImmutable $at,
        public ShotKind $kind,
        public ?Ball $ball,
        public ?Pocket $pocket,
        public ?string $plan,
        public ?int $leg,
        public ?array $tip,
        public ?float $lengths,
        public ?float $guess,
        public ?Spot $cue,
        public ?bool $isMade,
        public ?Side $missed,
        public bool $scratch,
        public ?Pocket $in,
        public bool $foul,
        public bool $miscue,
        public ?bool $position,
        public Layout $after,
    ) {
    }

    /** @throws Refused If it is not understood: each with a sentence */
    public static function parse(string $json, TableProfile $table, \DateTimeImmutable $now): self
    {
        $entry = json_decode($json, true, 16);
        if (!\is_array($entry) || \strlen($json) > 20_000) {
            throw Refused::because('entry');
        }
        $id = $entry['id'] ?? null;
        $previous = $entry['previous'] ?? null;
        if (!\is_string($id) || !Uuid::isValid($id) || (null !== $previous && (!\is_string($previous) || !Uuid::isValid($previous)))) {
            throw Refused::because('entry');
        }
        $after = Layout::empty();
        foreach (\is_array($entry['after'] ?? null) ? $entry['after'] : [] as $name => $spot) {
            $ball = Ball::named((string) $name) ?? throw Refused::because('ball');
            $after = $after->with($ball, self::spot($spot, $table) ?? throw Refused::because('spot'));
        }
        $ball = isset($entry['ball']) ? self::enum($entry['ball'], static fn (string $name): ?Ball => Ball::named($name)) : null;
        $number = static fn (mixed $value, float $least, float $most): ?float => is_numeric($value)
            ? max($least, min($most, (float) $value))
            : null;
        $tip = \is_array($entry['tip'] ?? null) ? $entry['tip'] : null;
        $guess = $number($entry['guess'] ?? null, 0, 100);
        $scratch = $entry['scratch'] ?? null;

        return new self(
            Uuid::fromString($id),
            null === $previous ? null : Uuid::fromString($previous),
            self::time($entry['at'] ?? null, $now),
            self::enum($entry['kind'] ?? 'pot', ShotKind::tryFrom(...)),
            Ball::Cue === $ball ? throw Refused::because('ball') : $ball,
            isset($entry['pocket']) ? self::enum($entry['pocket'], Pocket::tryFrom(...)) : null,
            \is_string($entry['plan'] ?? null) ? $entry['plan'] : null,
            \is_int($entry['leg'] ?? null) && $entry['leg'] > 0 ? $entry['leg'] : null,
            null === $tip ? null : [$number($tip[0] ?? 0, -0.5, 0.5) ?? 0.0, $number($tip[1] ?? 0, -0.5, 0.5) ?? 0.0],
            $number($entry['lengths'] ?? null, 0.05, 20.0),
            null === $guess ? null : 0.01 * $guess,
            self::spot($entry['cue'] ?? null, $table),
            \is_bool($entry['made'] ?? null) ? $entry['made'] : null,
            isset($entry['missed']) ? self::enum($entry['missed'], Side::tryFrom(...)) : null,
            null !== $scratch && false !== $scratch,
            \is_string($scratch) ? Pocket::tryFrom($scratch) : null,
            true === ($entry['foul'] ?? false),
            true === ($entry['miscue'] ?? false),
            \is_bool($entry['position'] ?? null) ? $entry['position'] : null,
            $after,
        );
    }

    /**
     * @template T of object
     *
     * @param \Closure(string): (T|null) $find
     *
     * @return T
     */
    private static function enum(mixed $value, \Closure $find): object
    {
        return \is_string($value) ? $find($value) ?? throw Refused::because('entry') : throw Refused::because('entry');
    }

    private static function spot(mixed $spot, TableProfile $table): ?Spot
    {
        return \is_array($spot) && is_numeric($spot[0] ?? null) && is_numeric($spot[1] ?? null)
            ? Spot::diamonds((float) $spot[0], (float) $spot[1], $table)
            : null;
    }

    /** When it was shot, as the browser says; the server's time where its clock cannot be right. */
    private static function time(mixed $at, \DateTimeImmutable $now): \DateTimeImmutable
    {
        try {
            $time = \is_string($at) && '' !== $at && \strlen($at) < 40 ? new \DateTimeImmutable($at) : $now;
        } catch (\Exception) {
            return $now;
        }
        $off = $now->getTimestamp() - $time->getTimestamp();

        return $off > self::CLOCK || $off < -self::AHEAD ? $now : $time->setTimezone(new \DateTimeZone('UTC'));
    }
}
