<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use ZigLane\App\Words\Refused;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\TableProfile;

/** A whole layout as it is typed or pasted: a ball and its spot on each line or between semicolons, like `cue 2,1.5; 3 5.1,0.9`. */
final class LayoutText
{
    private const MOST = 2000;

    /** @throws Refused If a line is not a ball and a spot, or a ball stands twice */
    public static function read(string $text, TableProfile $table): Layout
    {
        $layout = Layout::empty();
        $lines = preg_split('/[\r\n;]+/', mb_substr(mb_scrub($text), 0, self::MOST), -1, \PREG_SPLIT_NO_EMPTY) ?: [];
        foreach ($lines as $line) {
            if ('' === trim($line)) {
                continue;
            }
            if (1 !== preg_match('/^\s*(cue|\d{1,2})\s*[:=\s]\s*(.+)$/i', $line, $found)) {
                throw Refused::because('layoutLine', ['line' => mb_strimwidth(trim($line), 0, 40, '...')]);
            }
            $ball = Ball::named(strtolower($found[1])) ?? ('0' === $found[1] ? Ball::Cue : throw Refused::because('ball'));
            if ($layout->has($ball)) {
                throw Refused::because('ballTwice', ['ball' => $ball->label()]);
            }
            $layout = $layout->with($ball, SpotText::spot($found[2], $table));
        }

        return [] === $layout->balls() ? throw Refused::because('layoutLine', ['line' => '']) : $layout;
    }

    /** The layout as such lines. */
    public static function write(Layout $layout, TableProfile $table): string
    {
        $lines = [];
        foreach ($layout->balls() as $ball) {
            [$long, $short] = $layout->spot($ball)->inDiamonds($table);
            $lines[] = \sprintf('%s %s,%s', $ball->label(), self::number($long), self::number($short));
        }

        return implode("\n", $lines);
    }

    private static function number(float $diamonds): string
    {
        return rtrim(rtrim(number_format($diamonds, 3, '.', ''), '0'), '.');
    }
}
