<?php

declare(strict_types=1);

namespace ZigLane\Core\Fit;

use ZigLane\Core\Player\Biases;
use ZigLane\Core\Player\ExecutionErrors;

/** A player's errors as his log shows them. */
final readonly class LogFit
{
    public const FIELDS = ['aim', 'speed', 'tipSide', 'tipHeight'];

    /**
     * @param int                         $shots      in the log
     * @param int                         $used       of them: with a meant stroke, a layout that can be, and something noted
     * @param array<string, FittedNumber> $deviations by field: aim degrees, speed share, tip millimetres
     * @param array<string, FittedNumber> $biases     by field, in the same units
     */
    public function __construct(
        public int $shots,
        public int $used,
        public array $deviations,
        public array $biases,
        private ExecutionErrors $prior,
    ) {
    }

    /** @return list<string> what the log cannot tell and is kept at the prior: "deviations.aim", "biases.tipSide" and the like */
    public function unidentified(): array
    {
        $names = [];
        foreach (['deviations' => $this->deviations, 'biases' => $this->biases] as $kind => $numbers) {
            foreach ($numbers as $field => $number) {
                if (!$number->isLearned) {
                    $names[] = "$kind.$field";
                }
            }
        }

        return $names;
    }

    /** The player with these errors. */
    public function player(): ExecutionErrors
    {
        $value = static fn (FittedNumber $number): float => $number->value;

        return new ExecutionErrors(
            ...array_map($value, $this->deviations),
            growth: $this->prior->growth,
            biases: new Biases(...array_map($value, $this->biases)),
        );
    }
}
