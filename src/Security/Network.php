<?php

declare(strict_types=1);

namespace ZigLane\App\Security;

use Symfony\Component\HttpFoundation\IpUtils;
use Symfony\Component\HttpFoundation\Request;

/** Where a request comes from, for limits: an address of IPv4, or the 64 bits of IPv6 that one customer has all addresses of. */
final class Network
{
    private const CUSTOMER = 64;

    public static function of(Request $request): string
    {
        $address = $request->getClientIp() ?? '';
        $bits = str_contains($address, ':') ? @inet_pton($address) : false;
        if (false === $bits || 16 !== \strlen($bits)) {
            return $address;
        }
        // An address of IPv4 that is written as one of IPv6.
        if (IpUtils::checkIp6($address, '::ffff:0:0/96')) {
            return (string) inet_ntop(substr($bits, 12));
        }

        return inet_ntop(substr($bits, 0, intdiv(self::CUSTOMER, 8)).str_repeat("\0", 8)).'/'.self::CUSTOMER;
    }
}
