<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpFoundation\ResponseHeaderBag;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use Symfony\Component\RateLimiter\RateLimiterFactoryInterface;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use ZigLane\App\Account\AccountCloser;
use ZigLane\App\Account\AccountZip;
use ZigLane\App\Account\Devices;
use ZigLane\App\Account\ImportDesk;
use ZigLane\App\Account\Letters;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Letter;
use ZigLane\App\EventListener\AfterAnswer;
use ZigLane\App\Form\ShownName;
use ZigLane\App\Language\Languages;
use ZigLane\App\Repository\AccountRepository;
use ZigLane\App\Repository\Imports;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Rules\HouseRules;

/** What a person sets for himself: name, address, devices, the rules of his room; all of it out, in, and deleted. */
#[Route('/account')]
final class SettingsController extends AbstractController
{
    private const MAX_NAME = 80;

    public function __construct(
        private readonly EntityManagerInterface $manager,
        private readonly Devices $devices,
        private readonly Languages $languages,
        private readonly Imports $imports,
    ) {
    }

    #[Route('', name: 'account', methods: ['GET'])]
    public function show(Request $request, #[CurrentUser] Account $account): Response
    {
        return $this->render('account/settings.html.twig', [
            'account' => $account,
            // Of the demo player they are other people's.
            'devices' => $account->isDemo() ? [] : $this->devices->of($account),
            'here' => (string) Devices::idOf($request, $account),
            'zones' => \DateTimeZone::listIdentifiers(),
            'languages' => $this->languages->names(),
            'rules' => HouseRules::FIELDS,
            'mib' => ImportDesk::most($account),
            'import' => $this->imports->latest($account),
        ]);
    }

    #[Route('/name', name: 'account_name', methods: ['POST'])]
    #[IsCsrfTokenValid('account')]
    public function rename(Request $request, #[CurrentUser] Account $account): Response
    {
        self::assertOwn($account);
        $name = trim(mb_scrub($request->request->getString('name')));
        if (!ShownName::isOne($name) || mb_strlen($name) > self::MAX_NAME) {
            throw Refused::because('accountName', ['most' => self::MAX_NAME]);
        }
        $account->rename($name);
        $this->manager->flush();

        return $this->back('Your name is changed.');
    }

    #[Route('/life', name: 'account_life', methods: ['POST'])]
    #[IsCsrfTokenValid('account')]
    public function live(Request $request, #[CurrentUser] Account $account): Response
    {
        self::assertOwn($account);
        $zone = $request->request->getString('zone');
        if (!\in_array($zone, \DateTimeZone::listIdentifiers(), true)) {
            throw Refused::because('timeZone');
        }
        $language = $request->request->getString('language');
        if ('' !== $language && !$this->languages->has($language)) {
            throw Refused::because('language');
        }
        $account->read($language);
        $account->live($request->request->getBoolean('coaches'), 'left' === $request->request->getString('hand'), $zone);
        $rules = array_fill_keys(array_filter($request->request->all('rules'), is_string(...)), true);
        $account->playBy(HouseRules::fromArray($rules));
        $this->manager->flush();

        return $this->back('Set.');
    }

    /** The new address is used once its letter has been answered. */
    #[Route('/address', name: 'account_address', methods: ['POST'])]
    #[IsCsrfTokenValid('account')]
    public function move(
        Request $request, #[CurrentUser] Account $account,
        UserPasswordHasherInterface $hasher, RateLimiterFactoryInterface $passwordLimiter,
        AccountRepository $accounts, Letters $letters, AfterAnswer $after,
    ): Response {
        self::assertOwn($account);
        $this->assertPassword($request, $account, $hasher, $passwordLimiter);
        $email = mb_strtolower(trim($request->request->getString('email')));
        if (false === filter_var($email, \FILTER_VALIDATE_EMAIL) || \strlen($email) > 180 || Account::isOfDemo($email)) {
            throw Refused::because('address');
        }
        // Whether it is somebody else's is told to nobody: then no letter is sent.
        $after->do(static function () use ($accounts, $letters, $account, $email): void {
            if (null === $accounts->byEmail($email)) {
                $letters->send($account, Letter::ADDRESS, $email);
            }
        });

        return $this->back('A letter is on its way to the new address. Press its link, and you sign in with it from then on.');
    }

    #[Route('/devices', name: 'account_devices', methods: ['POST'])]
    #[IsCsrfTokenValid('account')]
    public function endDevice(Request $request, #[CurrentUser] Account $account): Response
    {
        self::assertOwn($account);
        $one = $request->request->getString('device');
        '' === $one ? $this->devices->endAll($account, Devices::idOf($request, $account)) : $this->devices->end($account, $one);

        return $this->back('' === $one ? 'Every other device is signed out.' : 'That device is signed out.');
    }

    #[Route('/export', name: 'account_export', methods: ['GET'])]
    public function export(#[CurrentUser] Account $account, AccountZip $zip): Response
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'lane-zip');
        try {
            $zip->write($account, $path);
        } catch (\Throwable $e) {
            @unlink($path);
            throw $e;
        }
        $response = new BinaryFileResponse($path, headers: ['Content-Type' => 'application/zip', 'Cache-Control' => 'no-store, private']);
        $response->setContentDisposition(ResponseHeaderBag::DISPOSITION_ATTACHMENT, 'zig-lane.zip');

        return $response->deleteFileAfterSend();
    }

    #[Route('/import', name: 'account_import', methods: ['POST'])]
    #[IsCsrfTokenValid('account')]
    public function import(Request $request, #[CurrentUser] Account $account, ImportDesk $imports): Response
    {
        self::assertOwn($account);
        $imports->begin($account, $request, false);

        return $this->redirectToRoute('account', ['_fragment' => 'import'], Response::HTTP_SEE_OTHER);
    }

    /** How far a file is that is taken in, or what came of it. */
    #[Route('/import', name: 'account_import_progress', methods: ['GET'])]
    public function importProgress(#[CurrentUser] Account $account): Response
    {
        return $this->render('account/import.html.twig', ['import' => $this->imports->latest($account)]);
    }

    #[Route('/delete', name: 'account_delete', methods: ['POST'])]
    #[IsCsrfTokenValid('account')]
    public function delete(
        Request $request, #[CurrentUser] Account $account,
        UserPasswordHasherInterface $hasher, RateLimiterFactoryInterface $passwordLimiter,
        AccountCloser $closer, Security $security,
    ): Response {
        self::assertOwn($account);
        $this->assertPassword($request, $account, $hasher, $passwordLimiter);
        $closer->close($account);
        $security->logout(false);
        $this->addFlash('notice', 'Your account is closed. It is deleted in seven days; the letter that was sent to you takes that back.');

        return $this->redirectToRoute('sign_in', [], Response::HTTP_SEE_OTHER);
    }

    /** The demo player is everybody who looks round. */
    private static function assertOwn(Account $account): void
    {
        if ($account->isDemo()) {
            throw Refused::because('demo');
        }
    }

    private function assertPassword(
        Request $request, Account $account, UserPasswordHasherInterface $hasher, RateLimiterFactoryInterface $limiter,
    ): void {
        if (!$limiter->create((string) $account->getId())->consume()->isAccepted()) {
            throw new TooManyRequestsHttpException(3600, 'Too many tries. Come back in an hour.');
        }
        if (!$hasher->isPasswordValid($account, $request->request->getString('password'))) {
            throw Refused::because('password');
        }
    }

    private function back(string $notice): Response
    {
        $this->addFlash('notice', $notice);

        return $this->redirectToRoute('account', [], Response::HTTP_SEE_OTHER);
    }
}
