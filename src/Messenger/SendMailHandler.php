<?php

declare(strict_types=1);

namespace ZigLane\App\Messenger;

use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;
use Symfony\Component\Mailer\Transport\TransportInterface;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Mime\Address;
use Symfony\Component\Mime\Email;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Message\SendMail;

/** Hands a letter to the mail server; where that is away the queue tries again, for hours. */
#[AsMessageHandler]
final readonly class SendMailHandler
{
    public function __construct(private TransportInterface $mail, private Connection $connection, private ClockInterface $clock)
    {
    }

    public function __invoke(SendMail $message): void
    {
        $this->mail->send(
            (new Email())->from(new Address($message->from, 'Zig Lane'))->to(new Address($message->to))
                ->subject($message->subject)->text($message->text),
        );
        if (null !== $message->invitationId) {
            $this->connection->executeStatement(
                'UPDATE invitation SET sent_at = ? WHERE id = ?',
                [$this->clock->now()->format('Y-m-d H:i:s'), Uuid::fromString($message->invitationId)->toBinary()],
            );
        }
    }
}
