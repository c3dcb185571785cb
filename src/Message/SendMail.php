<?php

declare(strict_types=1);

namespace ZigLane\App\Message;

/** Send a letter. */
final readonly class SendMail implements OfAccount
{
    /** @param string|null $invitationId of the invitation that it carries: marked when it is sent */
    public function __construct(
        public string $from,
        public string $to,
        public string $subject,
        #[\SensitiveParameter]
        public string $text,
        public string $accountId,
        public ?string $invitationId = null,
    ) {
    }

    public function accountId(): string
    {
        return $this->accountId;
    }

    public function about(): string
    {
        return $this->invitationId ?? '';
    }
}
