<?php

declare(strict_types=1);

namespace ZigLane\App\Mail;

use Symfony\Component\Mailer\SentMessage;
use Symfony\Component\Mailer\Transport\AbstractTransport;

/** The stand-in for a mail server: letters are laid in a folder that only the service can read (bin/console lane:mailbox shows them). */
final class Mailbox extends AbstractTransport
{
    public function __construct(private readonly string $folder)
    {
        parent::__construct();
    }

    public function __toString(): string
    {
        return 'mailbox://default';
    }

    protected function doSend(SentMessage $message): void
    {
        if (!is_dir($this->folder) && !@mkdir($this->folder, 0o700, true) && !is_dir($this->folder)) {
            throw new \RuntimeException('The mailbox cannot be made.');
        }
        $name = \sprintf('%s/%s-%s', $this->folder, (new \DateTimeImmutable())->format('Ymd-His-u'), bin2hex(random_bytes(3)));
        if (false === @file_put_contents("$name.new", $message->toString()) || !rename("$name.new", "$name.eml")) {
            throw new \RuntimeException('The letter could not be laid in the mailbox.');
        }
    }
}
