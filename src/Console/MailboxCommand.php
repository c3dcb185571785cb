<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;

/** Shows what the stand-in for a mail server has taken. */
#[AsCommand('lane:mailbox', 'Shows the latest letters of the stand-in mailbox, or those to one address')]
final class MailboxCommand extends Command
{
    private const LATEST = 10;

    public function __construct(#[Autowire('%kernel.project_dir%/var/mailbox/%kernel.environment%')] private readonly string $folder)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('to', InputArgument::OPTIONAL, 'An address');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $to = $input->getArgument('to');
        $shown = [];
        foreach (array_reverse(glob($this->folder.'/*.eml') ?: []) as $path) {
            $letter = (string) file_get_contents($path);
            if (!\is_string($to) || 1 === preg_match('/^To: .*'.preg_quote($to, '/').'/mi', $letter)) {
                $shown[] = quoted_printable_decode($letter);
            }
            if (\count($shown) >= self::LATEST) {
                break;
            }
        }
        $output->writeln([] === $shown ? 'No letters.' : implode("\n----\n", array_reverse($shown)), OutputInterface::OUTPUT_RAW);

        return Command::SUCCESS;
    }
}
