<?php

declare(strict_types=1);

namespace ZigLane\Core\Format;

use ZigLane\Core\Decide\Judged;
use ZigLane\Core\Decide\Options;
use ZigLane\Core\Decide\Way;
use ZigLane\Core\Decide\WayKind;
use ZigLane\Core\Decide\WayTally;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\Internal\Arrays;
use ZigLane\Core\Format\Internal\Players;
use ZigLane\Core\Format\Internal\Reader;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Table\Spot;

/**
 * The options of a position as a file, the best first. Format "zig-lane/options", version 1 (docs/formats.md, its schema in docs/schema):
 * what is written is read back, but for what comes of each shot as it is meant, of which only where it ends is written.
 */
final readonly class OptionsFile
{
    public const FORMAT = 'zig-lane/options';
    public const MAX_BYTES = 1048576;
    /** Decimals of chances, of balls, and of diamonds. */
    private const SHARE = 4;
    /** Of an interval: what lies behind it is not known finer. */
    private const EDGE = 3;
    private const BALLS = 2;
    private const SPOT = 3;

    /**
     * @param float $seconds   that it took
     * @param int   $simulated shots that were simulated for it
     */
    public function __construct(public Options $options, public float $seconds = 0.0, public int $simulated = 0)
    {
    }

    public function write(): string
    {
        $options = $this->options;

        return json_encode([
            'format' => self::FORMAT,
            'version' => 1,
            'rack' => json_decode((new RackFile($options->rack))->write(), true, 32, \JSON_THROW_ON_ERROR),
            'opponent' => $options->opponent->toArray(),
            'seconds' => round($this->seconds, 1),
            'simulated' => $this->simulated,
            'breakEven' => null === $options->breakEven() ? null : round($options->breakEven(), self::SHARE),
            'notes' => array_map(static fn (Fact $fact): array => $fact->toArray(), $options->notes),
            'options' => array_map(fn (Judged $judged): array => $this->option($judged), $options->list),
        ], \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_SLASHES | \JSON_UNESCAPED_UNICODE);
    }

    /** @throws InvalidFile With every fault that was found */
    public static function parse(string $json, int $maxBytes = self::MAX_BYTES): self
    {
        $document = Reader::document($json, $maxBytes, self::FORMAT);
        $reader = new Reader();
        $rack = RackFile::inside($reader, $document);
        $opponent = Players::read($reader, $reader->object($document, '', 'opponent'), 'opponent');
        $list = \is_array($document['options'] ?? null) ? $document['options'] : [];
        $judged = [];
        foreach (array_values($list) as $i => $option) {
            $judged[] = self::judged($reader, \is_array($option) ? $option : [], "options.$i", $rack);
        }
        $reader->finish();
        $seconds = $document['seconds'] ?? 0;
        $simulated = $document['simulated'] ?? 0;

        return new self(
            new Options($rack, $opponent, $judged, self::facts($document['notes'] ?? null)),
            is_numeric($seconds) ? (float) $seconds : 0.0,
            \is_int($simulated) ? $simulated : 0,
        );
    }

    /** @return array<string, mixed> */
    private function option(Judged $judged): array
    {
        [$way, $tally] = [$judged->way, $judged->tally];
        $isAttack = WayKind::Attack === $way->kind;
        $choice = $way->choice;
        $strike = $way->strike;

        return [
            'kind' => $way->kind->value,
            'call' => $isAttack && null !== $choice ? ['ball' => $choice->ball->label(), 'pocket' => $choice->pocket->value] : null,
            'stroke' => null === $strike ? null : [
                'direction' => rad2deg($strike->direction),
                'speed' => $strike->speed,
                'side' => $strike->side,
                'height' => $strike->height,
                'elevation' => rad2deg($strike->elevation),
            ],
            'place' => null === $way->place ? null : Arrays::spot($way->place, $this->options->rack->equipment->table, Rack::GRAIN),
            ...$this->worth($tally),
            'make' => $isAttack ? round($tally->share($tally->made), self::SHARE) : null,
            'position' => $isAttack ? round($tally->share($tally->position), self::SHARE) : null,
            'legal' => round($tally->share($tally->legal), self::SHARE),
            'risks' => array_map(static fn (int $count): float => round($tally->share($count), self::SHARE), [
                'scratch' => $tally->scratches,
                'foul' => $tally->fouls,
                'sellOut' => $tally->soldOut,
                'dropped' => $tally->dropped,
                'lost' => $tally->lost,
            ]),
            'opponent' => [
                'sees' => null === $judged->hook() ? null : round(1 - $judged->hook(), self::SHARE),
                'pot' => null === $judged->opponentPot() ? null : round($judged->opponentPot(), self::SHARE),
                $this->options->isInBalls() ? 'balls' : 'win' => null === $judged->opponentWin()
                    ? null
                    : round($judged->opponentWin(), self::SHARE),
            ],
            'missLeaves' => null === $judged->missLeaves() ? null : round($judged->missLeaves(), self::SHARE),
            'twoWay' => $judged->isTwoWay(),
            'landing' => $this->landing($judged),
            'tries' => $tally->tries,
            'reasons' => array_map(static fn (Fact $fact): array => $fact->toArray(), $judged->reasons),
            'shot' => null === $choice ? null : RackFile::shotToArray($choice),
            'counts' => $tally->toArray(),
        ];
    }

    /** @return array<string, mixed> chance to win, or balls, with the interval at 95 percent */
    private function worth(WayTally $tally): array
    {
        [$low, $high] = $tally->interval();
        if ($this->options->isInBalls()) {
            return [
                'balls' => round($tally->mean(), self::BALLS),
                'interval' => [round($low, self::BALLS), round($high, self::BALLS)],
            ];
        }

        return [
            'win' => round(max(0.0, min(1.0, $tally->mean())), self::SHARE),
            'interval' => [round(max(0.0, $low), self::EDGE), round(min(1.0, $high), self::EDGE)],
        ];
    }

    /** @return object by ball: where those that the shot moves end when nothing goes wrong, diamonds */
    private function landing(Judged $judged): object
    {
        $landing = [];
        if (null !== $judged->meant) {
            foreach ($judged->meant->final->balls() as $ball) {
                if (Ball::Cue === $ball || \in_array($ball, $judged->meant->struck, true)) {
                    $spot = $judged->meant->final->spot($ball);
                    $landing[$ball->label()] = Arrays::spot($spot, $this->options->rack->equipment->table, self::SPOT);
                }
            }
        }

        return (object) $landing;
    }

    /** @param array<mixed> $option */
    private static function judged(Reader $reader, array $option, string $path, Rack $rack): Judged
    {
        $kind = $reader->choice($option, $path, 'kind', WayKind::class, true) ?? WayKind::Safety;
        $shot = $option['shot'] ?? null;
        $choice = null;
        try {
            $choice = \is_array($shot) ? RackFile::shotFromArray($shot) : null;
        } catch (InvalidFile $e) {
            foreach ($e->faults as $fault) {
                $reader->because("$path.$fault->path", $fault->fact);
            }
        }
        $place = $option['place'] ?? null;
        $spot = \is_array($place) && is_numeric($place[0] ?? null) && is_numeric($place[1] ?? null)
            ? Spot::diamonds((float) $place[0], (float) $place[1], $rack->equipment->table)
            : null;
        $tally = WayTally::fromArray(\is_array($option['counts'] ?? null) ? $option['counts'] : []);

        return new Judged(new Way($kind, $choice, null, null, $spot), $tally, null, self::facts($option['reasons'] ?? null));
    }

    /** @return list<Fact> */
    private static function facts(mixed $list): array
    {
        return array_values(array_filter(array_map(
            static fn (mixed $fact): ?Fact => \is_array($fact) ? Fact::fromArray($fact) : null,
            \is_array($list) ? array_values($list) : [],
        )));
    }
}
