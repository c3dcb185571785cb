<?php

declare(strict_types=1);

namespace ZigLane\App\Teaching;

use Symfony\Component\HttpFoundation\RequestStack;
use ZigLane\App\Sharing\Sights;
use ZigLane\App\Words\Markdown;
use ZigLane\App\Words\TipUnit;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Format\LessonFile;
use ZigLane\Core\Format\LessonItem;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Teaching\ItemKind;

/**
 * A lesson as its page shows it: each thing with its words as HTML and its drawing. Which leg of a run is drawn the address says
 * (leg3=2).
 */
final readonly class LessonView
{
    public function __construct(private Sights $sights, private Markdown $markdown, private RequestStack $requests)
    {
    }

    /** @return list<array<string, mixed>> of each item: item, html, sight */
    public function of(?LessonFile $file, bool $isUpright, TipUnit $tips, Equipment $equipment = new Equipment()): array
    {
        $items = [];
        foreach ($file->items ?? [] as $i => $item) {
            try {
                $sight = $this->sight($item, $i, $isUpright, $tips, $equipment);
                $error = null;
            } catch (CoreError) {
                [$sight, $error] = [null, true];
            }
            $items[] = ['item' => $item, 'html' => $this->markdown->html($item->text), 'sight' => $sight, 'error' => $error];
        }

        return $items;
    }

    /** @return array<string, mixed>|null */
    private function sight(LessonItem $item, int $number, bool $isUpright, TipUnit $tips, Equipment $equipment): ?array
    {
        $leg = $this->requests->getMainRequest()?->query->getInt("leg$number", 1) ?? 1;

        return match ($item->kind) {
            ItemKind::Text => null,
            ItemKind::Drill => null === $item->drill ? null : $this->sights->drill($item->drill, $item->level, $equipment, $isUpright),
            ItemKind::Position => null === $item->rack ? null : $this->sights->layout($item->rack->rack, $isUpright),
            ItemKind::Plan => null === $item->plan ? null : $this->sights->run($item->plan, 0, $leg, $isUpright, $tips),
        };
    }
}
