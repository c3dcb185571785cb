<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

/** The rules of a room, whatever the game: what it forbids, and how it plays where leagues differ. They come before any plan. */
final readonly class HouseRules
{
    public const FIELDS = ['jump', 'masse', 'hardBreak', 'callsAll', 'noThirdFoul'];

    /**
     * @param bool $jump        jump shots are forbidden
     * @param bool $masse       masse shots are forbidden
     * @param bool $hardBreak   strokes at break speed are forbidden
     * @param bool $callsAll    ball and pocket are called in every game
     * @param bool $noThirdFoul three fouls in a row lose nothing
     */
    public function __construct(
        public bool $jump = false,
        public bool $masse = false,
        public bool $hardBreak = false,
        public bool $callsAll = false,
        public bool $noThirdFoul = false,
    ) {
    }

    /** @param array<mixed> $fields true: it is so */
    public static function fromArray(array $fields): self
    {
        return new self(...array_map(
            static fn (string $field): bool => true === ($fields[$field] ?? false),
            array_combine(self::FIELDS, self::FIELDS),
        ));
    }

    /** What a rack of a game is begun with. A steeply raised cue is what jumps and masses are played with. */
    public function options(Game $game): RuleOptions
    {
        return RuleOptions::of(array_values(array_intersect(RuleOptions::in($game), array_keys(array_filter([
            'callsNine' => $this->callsAll, 'noThirdFoul' => $this->noThirdFoul, 'noRaisedCue' => $this->jump || $this->masse,
            'noHardStroke' => $this->hardBreak,
        ])))));
    }

    /** @return array<string, bool> */
    public function toArray(): array
    {
        return [
            'jump' => $this->jump, 'masse' => $this->masse, 'hardBreak' => $this->hardBreak, 'callsAll' => $this->callsAll,
            'noThirdFoul' => $this->noThirdFoul,
        ];
    }
}
