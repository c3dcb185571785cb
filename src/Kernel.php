<?php

declare(strict_types=1);

namespace ZigLane\App;

use Symfony\Bundle\FrameworkBundle\Kernel\MicroKernelTrait;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\HttpKernelInterface;
use Symfony\Component\HttpKernel\Kernel as BaseKernel;
use ZigLane\App\EventListener\PlainErrors;
use ZigLane\App\EventListener\WarningsFail;

final class Kernel extends BaseKernel
{
    use MicroKernelTrait;

    /** How often a request is handled again that the database has taken back whole: a deadlock, or a conflict of a cluster's nodes. */
    private const AGAIN = 3;

    /** Logs may lie on another disk: LANE_LOG_DIR. */
    public function getLogDir(): string
    {
        $folder = $_SERVER['LANE_LOG_DIR'] ?? '';

        return \is_string($folder) && '' !== $folder ? $folder : parent::getLogDir();
    }

    public function boot(): void
    {
        parent::boot();
        WarningsFail::install();
    }

    public function handle(Request $request, int $type = HttpKernelInterface::MAIN_REQUEST, bool $catch = true): Response
    {
        for ($try = 1;; ++$try) {
            $response = parent::handle($request, $type, $catch);
            if ($try > self::AGAIN || !$request->attributes->getBoolean(PlainErrors::AGAIN)) {
                return $response;
            }
            usleep(random_int(5_000, 20_000) * $try);
            $request = $request->duplicate(attributes: []);
        }
    }
}
