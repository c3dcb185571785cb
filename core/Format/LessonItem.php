<?php

declare(strict_types=1);

namespace ZigLane\Core\Format;

use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Teaching\ItemKind;
use ZigLane\Core\Teaching\Question;

/**
 * One thing of a lesson: words (CommonMark) by themselves, or with a drill, a position and its question, or a run. Lessons go from one
 * account to others, so nothing in them tells how well a player plays: a position is without his errors, a run without odds.
 */
final readonly class LessonItem
{
    private function __construct(
        public ItemKind $kind,
        public string $text,
        public ?DrillFile $drill = null,
        public int $level = 0,
        public ?RackFile $rack = null,
        public ?Question $question = null,
        public ?PlanFile $plan = null,
        public string $id = '',
    ) {
    }

    /** The same under an id of its own, by which it is found in its lesson wherever it stands. */
    public function named(string $id): self
    {
        return new self($this->kind, $this->text, $this->drill, $this->level, $this->rack, $this->question, $this->plan, $id);
    }

    public static function words(string $text): self
    {
        return new self(ItemKind::Text, $text);
    }

    public static function drill(DrillFile $drill, int $level = 0, string $text = ''): self
    {
        return new self(ItemKind::Drill, $text, $drill, $level);
    }

    public static function position(Rack $rack, Question $question, string $text = ''): self
    {
        return new self(ItemKind::Position, $text, rack: new RackFile($rack->withPlayer(new ExecutionErrors())), question: $question);
    }

    public static function run(PlanFile $plan, string $text = ''): self
    {
        return new self(ItemKind::Plan, $text, plan: new PlanFile([$plan->best()->withoutPlayer()]));
    }

    public function withText(string $text): self
    {
        return new self($this->kind, $text, $this->drill, $this->level, $this->rack, $this->question, $this->plan, $this->id);
    }

    /** @return array<string, mixed> as in a file */
    public function toArray(): array
    {
        $json = static fn (string $file): mixed => json_decode($file, true, 64, \JSON_THROW_ON_ERROR);

        return ('' === $this->id ? [] : ['id' => $this->id]) + ['kind' => $this->kind->value, 'text' => $this->text] + match ($this->kind) {
            ItemKind::Text => [],
            ItemKind::Drill => ['drill' => null === $this->drill ? null : $this->drill->document, 'level' => $this->level],
            ItemKind::Position => [
                'rack' => null === $this->rack ? null : $json($this->rack->write()), 'question' => $this->question?->value,
            ],
            ItemKind::Plan => ['plan' => null === $this->plan ? null : $json($this->plan->write())],
        };
    }
}
