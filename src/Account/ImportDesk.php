<?php

declare(strict_types=1);

namespace ZigLane\App\Account;

use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Messenger\MessageBusInterface;
use ZigLane\App\Entity\Account;
use ZigLane\App\Message\TakeIn;
use ZigLane\App\Repository\Imports;
use ZigLane\App\Words\Refused;

/** Takes a file that was sent and gives it to a worker: nothing of it is read in a page. */
final readonly class ImportDesk
{
    /** The one limit of files that are taken in, also told to PHP and nginx (config/server): 200,000 shots are 145 MB. */
    public const MIB = 200;
    /** Of who looks round: what he sends is gone tomorrow. */
    private const OF_VISITOR = 4;

    public function __construct(private Imports $imports, private MessageBusInterface $bus)
    {
    }

    /** @return int MiB of a file */
    public static function most(Account $account): int
    {
        return $account->isDemo() ? self::OF_VISITOR : self::MIB;
    }

    /** @throws Refused If no file came, it is too large, or another one is under way */
    public function begin(Account $account, Request $request, bool $isLog): void
    {
        $file = $request->files->get('file');
        $most = self::most($account);
        if (!$file instanceof UploadedFile || !$file->isValid() || $file->getSize() > $most * 1_048_576) {
            throw Refused::because('noFile', ['mib' => $most]);
        }
        $job = $this->imports->begin($account, $isLog, $file->getPathname());
        $this->bus->dispatch(new TakeIn((string) $job->getId(), (string) $account->getId()));
    }
}
