<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use ZigLane\App\Account\AccountCloser;
use ZigLane\App\Account\AccountZip;
use ZigLane\App\Account\Devices;
use ZigLane\App\Account\Letters;
use ZigLane\App\Entity\Letter;
use ZigLane\App\Repository\AccountRepository;

/** What whoever runs the site does for somebody: there are no pages for it. */
#[AsCommand('lane:account', 'Sends a way back in, signs out everywhere, writes out, closes or opens an account')]
final class AccountCommand extends Command
{
    public function __construct(
        private readonly AccountRepository $accounts,
        private readonly Letters $letters,
        private readonly Devices $devices,
        private readonly AccountCloser $closer,
        private readonly AccountZip $zip,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('email', InputArgument::REQUIRED, 'Whose')
            ->addArgument('what', InputArgument::OPTIONAL, 'show, reset, sign-out, export, close, open', 'show')
            ->addOption('out', null, InputOption::VALUE_REQUIRED, 'Where an export goes', 'zig-lane.zip');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        [$email, $what, $out] = [$input->getArgument('email'), $input->getArgument('what'), $input->getOption('out')];
        $account = \is_string($email) ? $this->accounts->byEmail(mb_strtolower($email)) : null;
        if (null === $account || !\is_string($out)) {
            $output->writeln('There is no account with this address.');

            return Command::FAILURE;
        }
        switch ($what) {
            case 'show':
                $output->writeln(\sprintf(
                    '%s, since %s, here last %s, signed in on %d devices%s', $account->getName(), $account->getCreatedAt()->format('Y-m-d'),
                    $account->getSeenOn()?->format('Y-m-d') ?? 'never', \count($this->devices->of($account)),
                    null === $account->getDeletedAt() ? '' : ', closed '.$account->getDeletedAt()->format('Y-m-d'),
                ));
                break;
            case 'reset':
                $this->letters->send($account, Letter::RESET);
                $output->writeln('A letter with a link to a new password is on its way.');
                break;
            case 'sign-out':
                $this->devices->endAll($account);
                $output->writeln('Every device is signed out.');
                break;
            case 'export':
                $this->zip->write($account, $out);
                $output->writeln("Written to $out.");
                break;
            case 'close':
                $this->closer->close($account);
                $output->writeln('Closed; it is deleted in seven days, and a letter takes that back.');
                break;
            case 'open':
                $this->closer->open($account);
                $output->writeln('Open again.');
                break;
            default:
                $output->writeln('One of show, reset, sign-out, export, close and open is allowed.');

                return Command::INVALID;
        }

        return Command::SUCCESS;
    }
}
