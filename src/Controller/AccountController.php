<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\Form\FormError;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use Symfony\Component\RateLimiter\RateLimiterFactoryInterface;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Core\Exception\InvalidCsrfTokenException;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use Symfony\Component\Security\Http\Authentication\AuthenticationUtils;
use Symfony\Component\Validator\Validator\ValidatorInterface;
use ZigLane\App\Account\DemoVisit;
use ZigLane\App\Account\Devices;
use ZigLane\App\Entity\Account;
use ZigLane\App\Form\Registration;
use ZigLane\App\Form\RegistrationType;
use ZigLane\App\Mail\Post;
use ZigLane\App\Repository\AccountRepository;
use ZigLane\App\Security\Network;
use ZigLane\App\Words\LengthUnit;
use ZigLane\App\Words\Refused;
use ZigLane\App\Words\SpeedUnit;
use ZigLane\App\Words\TipUnit;

final class AccountController extends AbstractController
{
    #[Route('/sign-in', name: 'sign_in', methods: ['GET', 'POST'])]
    public function signIn(Request $request, AuthenticationUtils $authentication): Response
    {
        if (null !== $this->getUser()) {
            return $this->redirectToRoute('sheets');
        }
        $error = $authentication->getLastAuthenticationError();

        return $this->render('account/sign_in.html.twig', [
            'error' => $error,
            'email' => $authentication->getLastUsername(),
            'ended' => $request->query->has('ended') && null === $error,
        ], new Response(status: null === $error ? 200 : 422));
    }

    #[Route('/sign-out', name: 'sign_out', methods: ['POST'])]
    public function signOut(): never
    {
        throw new \LogicException('The firewall answers this address.');
    }

    /** One button makes a demo of the visitor's own and signs him in, where the demo is switched on. */
    #[Route('/demo', name: 'demo_sign_in', methods: ['POST'])]
    #[IsCsrfTokenValid('demo')]
    public function demo(
        Request $request,
        AccountRepository $accounts,
        Security $security,
        DemoVisit $visit,
        RateLimiterFactoryInterface $demoLimiter,
        bool $demo,
    ): Response {
        if (!$demo || null === $accounts->byEmail(Account::DEMO_EMAIL)) {
            throw $this->createNotFoundException();
        }
        if (!$demoLimiter->create(Network::of($request))->consume()->isAccepted()) {
            throw new TooManyRequestsHttpException(
                600,
                'You have looked round often in the last hour. Come back in a little while, or make an account.',
            );
        }
        $player = $accounts->byEmail($visit->begin()) ?? throw $this->createNotFoundException();
        $security->login($player, 'form_login', 'main');

        return $this->redirectToRoute('sheets');
    }

    /** The unit that the tip's offset is counted in, everywhere. */
    #[Route('/preferences', name: 'preferences', methods: ['POST'])]
    #[IsCsrfTokenValid('preferences')]
    public function prefer(Request $request, EntityManagerInterface $manager): Response
    {
        $account = $this->getUser();
        \assert($account instanceof Account);
        $unit = TipUnit::tryFrom($request->request->getString('tip_unit'));
        $length = LengthUnit::tryFrom($request->request->getString('length_unit', $account->getLengthUnit()->value));
        $speed = SpeedUnit::tryFrom($request->request->getString('speed_unit', $account->getSpeedUnit()->value));
        if (null === $unit || null === $length || null === $speed) {
            throw Refused::because('tipUnit');
        }
        $account->countTipsIn($unit);
        $account->measureIn($length, $speed);
        $account->remindToChalk(max(0, min(20, $request->request->getInt('chalk', $account->getChalkEvery()))));
        $manager->flush();
        // Back to where it was chosen; never to another site.
        $back = $request->request->getString('back');

        return $this->redirect(
            1 === preg_match('#^/[a-z0-9/?=&%._-]*$#iD', $back) && !str_starts_with($back, '//') ? $back : $this->generateUrl('sheets'),
            Response::HTTP_SEE_OTHER,
        );
    }

    #[Route('/password', name: 'password', methods: ['GET', 'POST'])]
    public function password(
        Request $request,
        #[CurrentUser] Account $account,
        UserPasswordHasherInterface $hasher,
        ValidatorInterface $validator,
        EntityManagerInterface $manager,
        RateLimiterFactoryInterface $passwordLimiter,
        Devices $devices,
        Post $post,
    ): Response {
        $error = null;
        if ($request->isMethod('POST')) {
            if (!$this->isCsrfTokenValid('password', $request->request->getString('_token'))) {
                throw new InvalidCsrfTokenException();
            }
            if (!$passwordLimiter->create((string) $account->getId())->consume()->isAccepted()) {
                throw new TooManyRequestsHttpException(3600, 'Too many tries. Come back in an hour.');
            }
            $new = $request->request->getString('new');
            $faults = $validator->validatePropertyValue(Registration::class, 'password', $new);
            if (!$hasher->isPasswordValid($account, $request->request->getString('current'))) {
                $error = 'That is not your password now.';
            } elseif (\count($faults) > 0) {
                $error = (string) $faults[0]?->getMessage();
            } else {
                $account->setPassword($hasher->hashPassword($account, $new));
                $manager->flush();
                $devices->endAll($account, Devices::idOf($request, $account));
                $post->tell($account, $account->getEmail(), 'password');
                $this->addFlash('notice', 'Your password is changed, and every other device is signed out.');

                return $this->redirectToRoute('account', [], Response::HTTP_SEE_OTHER);
            }
        }

        return $this->render('account/password.html.twig', ['error' => $error], new Response(status: null === $error ? 200 : 422));
    }

    #[Route('/register', name: 'register', methods: ['GET', 'POST'])]
    public function register(
        Request $request,
        AccountRepository $accounts,
        UserPasswordHasherInterface $hasher,
        EntityManagerInterface $manager,
        Security $security,
        ClockInterface $clock,
        RateLimiterFactoryInterface $registrationLimiter,
    ): Response {
        $registration = new Registration();
        $form = $this->createForm(RegistrationType::class, $registration)->handleRequest($request);
        if ($form->isSubmitted() && $form->isValid()) {
            if (!$registrationLimiter->create(Network::of($request))->consume()->isAccepted()) {
                throw new TooManyRequestsHttpException(3600, 'Too many accounts were made from here. Try again in an hour.');
            }
            if (null === $accounts->byEmail($registration->email)) {
                $account = new Account($registration->email, $registration->name, $clock->now());
                $account->setPassword($hasher->hashPassword($account, $registration->password));
                try {
                    $manager->persist($account);
                    $manager->flush();
                    $security->login($account, 'form_login', 'main');

                    return $this->redirectToRoute('sheets');
                } catch (UniqueConstraintViolationException) {
                    // Made in the same moment by another request: told like any other address in use.
                }
            }
            $form->get('email')->addError(new FormError('An account with this address cannot be made. If it is yours, sign in.'));
        }

        return $this->render('account/register.html.twig', ['form' => $form]);
    }
}
