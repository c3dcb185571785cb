<?php

declare(strict_types=1);

namespace ZigLane\App\Entity;

/** What a job is for; the values are its columns. */
enum JobPlace: string
{
    case Sheet = 'sheet_id';
    case ShotRack = 'shot_rack_id';
}
