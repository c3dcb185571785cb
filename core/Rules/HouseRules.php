<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

/** What the rules of a room forbid, whatever the game: they come before any plan. */
final readonly class HouseRules
{
    /** What can be forbidden. */
    public const FIELDS = ['jump', 'masse', 'hardBreak', 'raisedCue'];

    public function __construct(
        public bool $jump = false,
        public bool $masse = false,
        public bool $hardBreak = false,
        /** Any cue raised on purpose. */
        public bool $raisedCue = false,
    ) {
    }

    /** @param array<mixed> $fields true: forbidden */
    public static function fromArray(array $fields): self
    {
        return new self(...array_map(
            static fn (string $field): bool => true === ($fields[$field] ?? false),
            array_combine(self::FIELDS, self::FIELDS),
        ));
    }

    /** @return array<string, bool> */
    public function toArray(): array
    {
        return ['jump' => $this->jump, 'masse' => $this->masse, 'hardBreak' => $this->hardBreak, 'raisedCue' => $this->raisedCue];
    }
}
