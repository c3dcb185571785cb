<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Symfony\Component\HttpFoundation\Request;

/** How a page's screen is held. */
final class HeldScreen
{
    /** Whether the page has said (by a cookie, since the server draws) that its screen is narrow: the table is drawn upright. */
    public static function isUpright(Request $request): bool
    {
        return '1' === $request->cookies->get('lane-upright');
    }
}
