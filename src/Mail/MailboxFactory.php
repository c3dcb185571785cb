<?php

declare(strict_types=1);

namespace ZigLane\App\Mail;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Mailer\Exception\UnsupportedSchemeException;
use Symfony\Component\Mailer\Transport\Dsn;
use Symfony\Component\Mailer\Transport\TransportFactoryInterface;
use Symfony\Component\Mailer\Transport\TransportInterface;

/** MAILER_DSN=mailbox://default. */
#[AutoconfigureTag('mailer.transport_factory')]
final readonly class MailboxFactory implements TransportFactoryInterface
{
    public function __construct(#[Autowire('%kernel.project_dir%/var/mailbox/%kernel.environment%')] private string $folder)
    {
    }

    public function create(Dsn $dsn): TransportInterface
    {
        return $this->supports($dsn) ? new Mailbox($this->folder) : throw new UnsupportedSchemeException($dsn, 'mailbox', ['mailbox']);
    }

    public function supports(Dsn $dsn): bool
    {
        return 'mailbox' === $dsn->getScheme();
    }
}
