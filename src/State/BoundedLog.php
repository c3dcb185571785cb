<?php

declare(strict_types=1);

namespace ZigLane\App\State;

use Monolog\Handler\HandlerInterface;
use Monolog\Handler\HandlerWrapper;
use Monolog\Level;
use Monolog\LogRecord;

/**
 * A log that cannot fill the disk: the same message is written sixty times a minute at most, with a word when it is passed over, and a file
 * that has reached its size grows no more that day.
 */
final class BoundedLog extends HandlerWrapper
{
    private const IN_A_MINUTE = 60;
    private const MOST_BYTES = 50_000_000;

    /** @var array<string, int> messages of this minute */
    private array $counts = [];
    private int $minute = 0;

    public function __construct(HandlerInterface $handler, private readonly string $folder, private readonly string $environment)
    {
        parent::__construct($handler);
    }

    public function handle(LogRecord $record): bool
    {
        $minute = intdiv($record->datetime->getTimestamp(), 60);
        if ($minute !== $this->minute) {
            [$this->minute, $this->counts] = [$minute, []];
        }
        $key = $record->channel.$record->level->value.$record->message;
        $count = $this->counts[$key] = ($this->counts[$key] ?? 0) + 1;
        if ($count > self::IN_A_MINUTE + 1 || $this->isFull($record)) {
            return true;
        }
        if ($count > self::IN_A_MINUTE) {
            $record = $record->with(
                message: 'This message came so often that it is not written again this minute: '.$record->message,
                level: Level::Warning,
                context: [],
            );
        }

        return parent::handle($record);
    }

    private function isFull(LogRecord $record): bool
    {
        $file = \sprintf('%s/%s-%s.log', $this->folder, $this->environment, $record->datetime->format('Y-m-d'));
        clearstatcache(true, $file);

        return (int) @filesize($file) > self::MOST_BYTES;
    }
}
