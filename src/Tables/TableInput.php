<?php

declare(strict_types=1);

namespace ZigLane\App\Tables;

use Symfony\Component\HttpFoundation\InputBag;
use ZigLane\App\Sheet\NumberText;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Format\TableFile;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Cue;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\IllegalTable;
use ZigLane\Core\Table\TableProfile;
use ZigLane\Core\Table\TableSize;

/** What a form says of a table, in the units in which it is measured: centimetres, degrees. */
final class TableInput
{
    private const FRICTION = ['frictionFloor' => 0, 'frictionFall' => 0];

    /** @return array<string, string> what the form of a table holds, so far as it can be compared */
    public static function fields(TableFile $file): array
    {
        $e = $file->equipment;

        return [
            'name' => $file->name,
            'mouth' => number_format(100 * $e->table->cornerMouth, 1, '.', ''),
            'side' => number_format(100 * $e->table->sideMouth, 1, '.', ''),
            'slope' => (string) round($e->table->slope, 2),
            'towards' => (string) round(fmod($e->table->slopeDirection + 360, 360)),
            'weight' => number_format($e->balls->cueBallWeight, 3, '.', ''),
            'dirt' => number_format($e->balls->dirt(), 2, '.', ''),
            'end' => (string) round($e->cue->endMassRatio),
            'notes' => $file->notes,
        ];
    }

    /**
     * @param InputBag<string> $typed
     *
     * @throws Refused|IllegalTable If it is not understood or not allowed
     */
    public static function file(InputBag $typed, TableFile $before): TableFile
    {
        $name = trim(mb_scrub($typed->getString('name')));
        if ('' === $name || mb_strlen($name) > TableFile::MAX_NAME) {
            throw Refused::because('tableName', ['most' => TableFile::MAX_NAME]);
        }
        $size = TableSize::tryFrom($typed->getInt('size'));
        $table = $before->equipment->table->toArray();
        $number = static function (string $field, string $what, float $least, float $most, string $unit) use ($typed): ?float {
            $text = trim($typed->getString($field));

            return '' === $text ? null : NumberText::between($text, $what, $least, $most, $unit);
        };
        $mouth = $number('mouth', 'The mouth of a corner pocket', 9.0, 15.0, ' cm');
        // By balls laid side by side into it, where there is no tape.
        $fits = $number('fits', 'The balls that fit into a corner pocket', 1.6, 2.6, '');
        $mouth = null === $fits ? $mouth : 100 * $fits * $before->equipment->balls->diameter();
        $side = $number('side', 'The mouth of a side pocket', 9.0, 17.0, ' cm');
        $changed = [
            'length' => $size?->length(),
            'cornerMouth' => null === $mouth ? null : $mouth / 100,
            'sideMouth' => null === $side ? null : $side / 100,
            'slope' => $number('slope', 'The slope', 0.0, 1.0, ' degrees'),
            'slopeDirection' => $number('towards', 'The direction of the slope', 0.0, 360.0, ' degrees'),
        ];
        $weight = $number('weight', 'The weight of the cue ball over that of the others', 0.8, 1.3, '');
        $dirt = $number('dirt', 'How dirty the balls are', 1.0, 2.0, '');
        $balls = $before->equipment->balls;
        if (null !== $dirt) {
            $clean = new BallSet(...[...$balls->toArray(), ...array_intersect_key((new BallSet())->toArray(), self::FRICTION)]);
            $balls = $clean->dirtier($dirt);
        }
        if (null !== $weight) {
            $balls = new BallSet(...[...$balls->toArray(), 'cueBallWeight' => $weight]);
        }
        $end = $number('end', 'The end of the cue', 10.0, 90.0, '');

        return new TableFile(
            $name,
            new Equipment(
                new TableProfile(...[...$table, ...array_filter($changed, static fn (?float $one): bool => null !== $one)]),
                $balls,
                null === $end ? $before->equipment->cue : new Cue($end),
            ),
            mb_substr(trim(mb_scrub($typed->getString('notes'))), 0, 1000),
        );
    }
}
