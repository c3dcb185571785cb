<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use Symfony\Component\RateLimiter\RateLimiterFactoryInterface;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use Symfony\Component\Validator\Validator\ValidatorInterface;
use ZigLane\App\Account\AccountCloser;
use ZigLane\App\Account\Devices;
use ZigLane\App\Account\Letters;
use ZigLane\App\Entity\Letter;
use ZigLane\App\EventListener\AfterAnswer;
use ZigLane\App\Form\Registration;
use ZigLane\App\Mail\Post;
use ZigLane\App\Repository\AccountRepository;
use ZigLane\App\Security\Network;

/** Ways back by mail, for who is not signed in: a forgotten password, a new address, an account that was to be deleted. */
final class LetterController extends AbstractController
{
    public function __construct(private readonly Letters $letters, private readonly EntityManagerInterface $manager)
    {
    }

    #[Route('/forgot', name: 'forgot', methods: ['GET'])]
    public function ask(): Response
    {
        return $this->render('account/forgot.html.twig', ['is_sent' => false]);
    }

    /** Always the same answer in the same time: whether there is such an account is looked up when it is on its way. */
    #[Route('/forgot', name: 'forgot_ask', methods: ['POST'])]
    #[IsCsrfTokenValid('forgot')]
    public function send(
        Request $request,
        AccountRepository $accounts,
        RateLimiterFactoryInterface $letterLimiter,
        RateLimiterFactoryInterface $letterToLimiter,
        AfterAnswer $after,
    ): Response {
        $email = mb_strtolower(trim(mb_substr($request->request->getString('email'), 0, 180)));
        if (!$letterLimiter->create('from '.Network::of($request))->consume()->isAccepted()) {
            throw new TooManyRequestsHttpException(3600, 'Too many letters were asked for from here. Come back in an hour.');
        }
        $after->do(function () use ($accounts, $email, $letterToLimiter): void {
            $account = $accounts->byEmail($email);
            if (
                null !== $account && !$account->isDemo() && null === $account->getDeletedAt()
                && $letterToLimiter->create(hash('sha256', $email))->consume()->isAccepted()
            ) {
                $this->letters->send($account, Letter::RESET);
            }
        });

        return $this->render('account/forgot.html.twig', ['is_sent' => true]);
    }

    #[Route('/reset/{word}', name: 'reset', methods: ['GET'])]
    public function askPassword(string $word): Response
    {
        return null === $this->letters->read(Letter::RESET, $word)
            ? $this->over()
            : $this->closed($this->render('account/reset.html.twig', ['word' => $word, 'error' => null]));
    }

    #[Route('/reset/{word}', name: 'reset_do', methods: ['POST'])]
    #[IsCsrfTokenValid('letter')]
    public function reset(
        Request $request, string $word, UserPasswordHasherInterface $hasher, ValidatorInterface $validator, Devices $devices, Post $post,
    ): Response {
        $letter = $this->letters->read(Letter::RESET, $word);
        if (null === $letter) {
            return $this->over();
        }
        $new = $request->request->getString('new');
        $faults = $validator->validatePropertyValue(Registration::class, 'password', $new);
        if (\count($faults) > 0) {
            $page = $this->render(
                'account/reset.html.twig',
                ['word' => $word, 'error' => $faults[0]?->getMessage()],
                new Response(status: 422),
            );

            return $this->closed($page);
        }
        if (!$this->letters->use($letter)) {
            return $this->over();
        }
        $account = $letter->getAccount();
        $account->setPassword($hasher->hashPassword($account, $new));
        $this->manager->flush();
        $devices->endAll($account);
        $post->tell($account, $account->getEmail(), 'password');
        $this->addFlash('notice', 'Your password is changed. Sign in with it.');

        return $this->redirectToRoute('sign_in', [], Response::HTTP_SEE_OTHER);
    }

    /** A page first: what only follows links uses up no letter. */
    #[Route('/address/{word}', name: 'address_confirm', methods: ['GET'])]
    public function askAddress(string $word): Response
    {
        $letter = $this->letters->read(Letter::ADDRESS, $word);

        return null === $letter
            ? $this->over()
            : $this->closed($this->render('account/press.html.twig', ['to' => $this->generateUrl('address_do', ['word' => $word]), 'kind' => 'address']));
    }

    #[Route('/address/{word}', name: 'address_do', methods: ['POST'])]
    #[IsCsrfTokenValid('letter')]
    public function move(string $word): Response
    {
        $letter = $this->letters->spend(Letter::ADDRESS, $word);
        if (null === $letter) {
            return $this->over();
        }
        $account = $letter->getAccount();
        $old = $account->getEmail();
        $account->moveTo($letter->getValue());
        try {
            $this->manager->flush();
        } catch (UniqueConstraintViolationException) {
            return $this->over();
        }
        $this->letters->send($account, Letter::BACK, $old);
        $this->addFlash('notice', 'Your address is changed.');

        return $this->redirectToRoute('sign_in', [], Response::HTTP_SEE_OTHER);
    }

    /** From the address that an account had, for a week: whoever moved it away need not have been its owner. */
    #[Route('/back/{word}', name: 'address_back', methods: ['GET'])]
    public function askBack(string $word): Response
    {
        return null === $this->letters->read(Letter::BACK, $word)
            ? $this->over()
            : $this->closed($this->render('account/press.html.twig', ['to' => $this->generateUrl('address_back_do', ['word' => $word]), 'kind' => 'back']));
    }

    /** The old address again; every session and letter ends, and a letter for a new password goes to it. */
    #[Route('/back/{word}', name: 'address_back_do', methods: ['POST'])]
    #[IsCsrfTokenValid('letter')]
    public function moveBack(string $word, Devices $devices): Response
    {
        $letter = $this->letters->spend(Letter::BACK, $word);
        if (null === $letter) {
            return $this->over();
        }
        $account = $letter->getAccount();
        $account->moveTo($letter->getValue());
        // Whoever moved it knew the password: it opens nothing any more.
        $account->setPassword('');
        try {
            $this->manager->flush();
        } catch (UniqueConstraintViolationException) {
            return $this->over();
        }
        $devices->endAll($account);
        $this->letters->send($account, Letter::RESET);
        $this->addFlash('notice', 'The address is as it was, and everybody is signed out. A letter is on its way to it: choose a new password.');

        return $this->redirectToRoute('sign_in', [], Response::HTTP_SEE_OTHER);
    }

    #[Route('/undelete/{word}', name: 'undelete', methods: ['GET'])]
    public function askUndelete(string $word): Response
    {
        return null === $this->letters->read(Letter::UNDELETE, $word)
            ? $this->over()
            : $this->closed($this->render('account/press.html.twig', ['to' => $this->generateUrl('undelete_do', ['word' => $word]), 'kind' => 'undelete']));
    }

    #[Route('/undelete/{word}', name: 'undelete_do', methods: ['POST'])]
    #[IsCsrfTokenValid('letter')]
    public function undelete(string $word, AccountCloser $closer): Response
    {
        $letter = $this->letters->spend(Letter::UNDELETE, $word);
        if (null === $letter) {
            return $this->over();
        }
        $closer->open($letter->getAccount());
        $this->addFlash('notice', 'Your account is open again, with everything in it.');

        return $this->redirectToRoute('sign_in', [], Response::HTTP_SEE_OTHER);
    }

    private function over(): Response
    {
        return $this->render('account/over.html.twig', [], new Response(status: Response::HTTP_NOT_FOUND));
    }

    /** The address of the page is the word: it goes to no other site. */
    private function closed(Response $response): Response
    {
        $response->headers->set('Referrer-Policy', 'no-referrer');

        return $response;
    }
}
