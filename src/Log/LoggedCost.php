<?php

declare(strict_types=1);

namespace ZigLane\App\Log;

use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Plan\ShotCost;
use ZigLane\Core\Shot\ShotChoice;

/** What a logged shot cost, as it is kept with its rack. */
final readonly class LoggedCost
{
    private function __construct(
        public float $best,
        public float $chosen,
        public float $after,
        public float $decision,
        public float $execution,
        public bool $isTold,
        public ?ShotChoice $passed,
    ) {
    }

    /** @return array<string, mixed> */
    public static function toArray(ShotCost $cost): array
    {
        return [
            'best' => round($cost->best, 4),
            'chosen' => round($cost->chosen, 4),
            'after' => round($cost->after, 4),
            'decision' => round($cost->decision(), 4),
            'execution' => round($cost->execution(), 4),
            'isTold' => $cost->isTold(),
            'passed' => null === $cost->passed ? null : RackFile::shotToArray($cost->passed),
        ];
    }

    /** Null where nothing could be worked out. */
    public static function read(mixed $kept): ?self
    {
        if (!\is_array($kept)) {
            return null;
        }
        $number = static fn (string $field): float => is_numeric($kept[$field] ?? null) ? (float) $kept[$field] : 0.0;
        try {
            $passed = \is_array($kept['passed'] ?? null) ? RackFile::shotFromArray($kept['passed']) : null;
        } catch (InvalidFile) {
            $passed = null;
        }

        return new self(
            $number('best'),
            $number('chosen'),
            $number('after'),
            $number('decision'),
            $number('execution'),
            true === ($kept['isTold'] ?? false),
            $passed,
        );
    }

    /** All that was lost; below nought: gained. */
    public function lost(): float
    {
        return $this->decision + $this->execution;
    }
}
