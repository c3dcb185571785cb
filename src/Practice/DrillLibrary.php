<?php

declare(strict_types=1);

namespace ZigLane\App\Practice;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use ZigLane\Core\Format\DrillFile;

/** The drills that come with the program: files of the folder `drills`, by the names of the files. */
final class DrillLibrary
{
    /** @var array<string, DrillFile>|null */
    private ?array $all = null;

    public function __construct(#[Autowire('%kernel.project_dir%/drills')] private readonly string $folder)
    {
    }

    /** @return array<string, DrillFile> by key */
    public function all(): array
    {
        if (null === $this->all) {
            $this->all = [];
            foreach (glob($this->folder.'/*.drill.json') ?: [] as $path) {
                $this->all[basename($path, '.drill.json')] = DrillFile::parse((string) file_get_contents($path));
            }
        }

        return $this->all;
    }

    public function find(string $key): ?DrillFile
    {
        $path = $this->folder.'/'.$key.'.drill.json';

        return 1 === preg_match('/^[a-z0-9-]{1,60}$/', $key) && is_file($path) ? DrillFile::parse((string) file_get_contents($path)) : null;
    }
}
