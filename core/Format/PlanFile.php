<?php

declare(strict_types=1);

namespace ZigLane\Core\Format;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Format\Internal\PlanReader;
use ZigLane\Core\Format\Internal\PlanWriter;
use ZigLane\Core\Format\Internal\Reader;
use ZigLane\Core\Plan\Plan;

/**
 * A plan as a file: the rack that it answers, its legs, and other plans. Format "zig-lane/plan", version 2; what is written is read back.
 * Version 1 had no layouts before the legs, no stops of the lane, and reasons as sentences: it is read as far as it goes.
 */
final readonly class PlanFile
{
    public const FORMAT = 'zig-lane/plan';
    public const VERSION = 2;
    public const MAX_BYTES = 4194304;
    public const MOST_LEGS = 20;
    /** Plans beside the best that are read. */
    public const MOST_ALTERNATIVES = 10;

    /**
     * @param non-empty-list<Plan> $plans     the best first
     * @param float                $seconds   that it took
     * @param int                  $simulated shots that were simulated for it
     */
    public function __construct(public array $plans, public float $seconds = 0.0, public int $simulated = 0)
    {
    }

    public function best(): Plan
    {
        return $this->plans[0];
    }

    /** One of the plans, from 0; the best where there is none of that number. */
    public function plan(int $number): Plan
    {
        return $this->plans[$number] ?? $this->plans[0];
    }

    public function write(): string
    {
        $best = $this->plans[0];
        $document = [
            'format' => self::FORMAT,
            'version' => self::VERSION,
            'rack' => json_decode((new RackFile($best->rack))->write(), true, 32, \JSON_THROW_ON_ERROR),
            ...PlanWriter::plan($best),
            'seconds' => round($this->seconds, 1),
            'simulated' => $this->simulated,
            'alternatives' => array_map(PlanWriter::plan(...), \array_slice($this->plans, 1)),
        ];

        return json_encode(
            $document,
            \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_SLASHES | \JSON_UNESCAPED_UNICODE,
        );
    }

    /** @throws InvalidFile With every fault that was found */
    public static function parse(string $json, int $maxBytes = self::MAX_BYTES): self
    {
        $document = Reader::document($json, $maxBytes, self::FORMAT, [1, self::VERSION]);
        $reader = new Reader();
        $rack = RackFile::inside($reader, $document);
        $alternatives = $document['alternatives'] ?? [];
        $plans = [];
        try {
            $plans[] = (new PlanReader($reader, $rack, ''))->plan($document);
            foreach (\is_array($alternatives) ? \array_slice(array_values($alternatives), 0, self::MOST_ALTERNATIVES) : [] as $i => $plan) {
                $plans[] = (new PlanReader($reader, $rack, "alternatives.$i."))->plan(\is_array($plan) ? $plan : []);
            }
        } catch (CoreError $e) {
            $reader->because('legs', $e->fact());
        }
        $reader->finish();
        $plans = array_values(array_filter($plans));
        \assert([] !== $plans);
        $seconds = $document['seconds'] ?? 0;
        $simulated = $document['simulated'] ?? 0;

        return new self($plans, is_numeric($seconds) ? (float) $seconds : 0.0, \is_int($simulated) ? $simulated : 0);
    }
}
