<?php

declare(strict_types=1);

namespace ZigLane\App\Log;

use Symfony\Component\Serializer\Encoder\CsvEncoder;
use ZigLane\Core\Log\LoggedRack;
use ZigLane\Core\Log\LoggedShot;
use ZigLane\Core\Log\Outing;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;

/** A log as a table for a spreadsheet, a shot a row. */
final readonly class LogCsv
{
    /**
     * @param iterable<Outing> $outings
     *
     * @return iterable<string>
     */
    public function stream(iterable $outings): iterable
    {
        // Cells that a spreadsheet would take for a formula get an apostrophe.
        $csv = new CsvEncoder([CsvEncoder::ESCAPE_FORMULAS_KEY => true]);
        yield strtok($csv->encode([self::heads()], 'csv'), "\n")."\n";
        foreach ($outings as $outing) {
            $rows = [];
            foreach ($outing->racks as $rack) {
                foreach ($rack->shots as $i => $shot) {
                    $rows[] = self::row($outing, $rack, $shot, $i + 1);
                }
            }
            if ([] !== $rows) {
                yield $csv->encode($rows, 'csv', [CsvEncoder::NO_HEADERS_KEY => true]);
            }
        }
    }

    /** @return array<string, string> */
    private static function heads(): array
    {
        return array_fill_keys([
            'date', 'place', 'rack', 'game', 'kind of rack', 'shot', 'at', 'kind', 'ball', 'pocket', 'stated pot',
            'stated position', 'guess', 'made', 'missed', 'scratch', 'foul', 'miscue', 'position', 'cue before',
            'cue after', 'speed m/s', 'side', 'height',
        ], '');
    }

    /** @return array<string, string|int|float> */
    private static function row(Outing $outing, LoggedRack $rack, LoggedShot $shot, int $number): array
    {
        $word = static fn (?bool $value): string => null === $value ? '' : ($value ? 'yes' : 'no');
        $result = $shot->result;
        $spot = static function (Layout $layout) use ($shot): string {
            if (!$layout->has(Ball::Cue)) {
                return '';
            }

            return vsprintf('%.2f, %.2f', $layout->spot(Ball::Cue)->inDiamonds($shot->equipment->table));
        };

        return array_combine(array_keys(self::heads()), [
            $outing->date->format('Y-m-d'), $outing->place, $rack->id, $rack->game->value, $rack->kind->value, $number,
            $shot->at?->format('Y-m-d H:i:s') ?? '', $shot->kind->value, $shot->ball?->label() ?? '', $shot->pocket->value ?? '',
            $shot->make ?? '', $shot->position ?? '', $shot->guess ?? '', $word($result->isMade), $result->missed->value ?? '',
            $result->scratch ? $result->in->value ?? 'yes' : '', $word($result->foul), $word($result->miscue), $word($result->position),
            $spot($shot->before), $spot($result->after), $shot->meant->speed ?? '', $shot->meant->side ?? '', $shot->meant->height ?? '',
        ]);
    }
}
