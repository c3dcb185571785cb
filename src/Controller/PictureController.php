<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use ZigLane\App\Camera\KeptPictures;
use ZigLane\App\Camera\TableCamera;
use ZigLane\App\Drawing\TableDrawing;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Practice\DrillCard;
use ZigLane\App\Sheet\LayoutText;
use ZigLane\App\Words\Words;
use ZigLane\Core\Camera\CornerFinder;
use ZigLane\Core\Camera\PictureFile;
use ZigLane\Core\Camera\SeenLayout;
use ZigLane\Core\Camera\UnreadablePicture;
use ZigLane\Core\Error\CoreError;

/** A layout from a picture of the table: its four corners are tapped, the balls are found, and the person says whether they are right. */
final class PictureController extends AbstractController
{
    public function __construct(
        private readonly TableCamera $camera,
        private readonly KeptPictures $pictures,
    ) {
    }

    #[Route('/sheets/{id}/picture', name: 'sheet_picture', methods: ['GET'])]
    public function show(RackSheet $sheet): Response
    {
        return $this->page($sheet);
    }

    /** The picture that is kept with a sheet. */
    #[Route('/sheets/{id}/picture/kept', name: 'sheet_picture_kept', methods: ['GET'])]
    public function kept(RackSheet $sheet): Response
    {
        $kept = $this->pictures->of($sheet) ?? throw $this->createNotFoundException('No picture is kept.');

        return new Response($kept->getJpeg(), headers: ['Content-Type' => 'image/jpeg', 'Cache-Control' => 'private, no-store']);
    }

    #[Route('/sheets/{id}/picture/throw-away', name: 'sheet_picture_throw', methods: ['POST'])]
    #[IsCsrfTokenValid('sheet')]
    public function throwAway(RackSheet $sheet): Response
    {
        $this->pictures->throwAway($sheet);

        return $this->redirectToRoute('sheet_picture', ['id' => $sheet->getId()], Response::HTTP_SEE_OTHER);
    }

    /** Where the paper rings go that mark this layout on a cloth: for the wall, or read at the table. */
    #[Route('/sheets/{id}/marks', name: 'sheet_marks', methods: ['GET'])]
    public function marks(Request $request, RackSheet $sheet): Response
    {
        return $this->render('sheet/marks.html.twig', [
            'sheet' => $sheet,
            'table' => new TableDrawing($sheet->getRack(), HeldScreen::isUpright($request)),
            'spots' => DrillCard::spotsOf($sheet->getRack()->layout, $sheet->getRack()->equipment->table),
        ]);
    }

    #[Route('/sheets/{id}/picture', name: 'sheet_picture_read', methods: ['POST'])]
    #[IsCsrfTokenValid('sheet')]
    public function read(Request $request, RackSheet $sheet, Words $words): Response
    {
        return $this->told($request, $sheet, $words, fn (): array => $this->sent($request));
    }

    /** Where the corner pockets of a picture may be, for the person to see whether they are; null where that is not seen. */
    #[Route('/sheets/{id}/picture/corners', name: 'sheet_picture_corners', methods: ['POST'])]
    #[IsCsrfTokenValid('sheet')]
    public function corners(Request $request, RackSheet $sheet): JsonResponse
    {
        try {
            $image = self::picture($request);
        } catch (CoreError) {
            return new JsonResponse(['corners' => null]);
        }
        $corners = CornerFinder::find($image);

        return new JsonResponse(['corners' => null === $corners ? null : array_map(
            static fn (array $at): array => [round($at[0] / imagesx($image), 4), round($at[1] / imagesy($image), 4)],
            $corners,
        )]);
    }

    /** The same from the camera of the room, where there is one. */
    #[Route('/sheets/{id}/camera', name: 'sheet_camera', methods: ['POST'])]
    #[IsCsrfTokenValid('sheet')]
    public function camera(Request $request, RackSheet $sheet, Words $words): Response
    {
        $table = $sheet->getTable();
        if (null === $table || !$this->camera->hangsOver($table)) {
            throw $this->createNotFoundException();
        }

        return $this->told($request, $sheet, $words, fn (): array => $this->camera->frame($table));
    }

    /** @param \Closure(): array{\GdImage, list<array{float, float}>} $picture */
    private function told(Request $request, RackSheet $sheet, Words $words, \Closure $picture): Response
    {
        $rack = $sheet->getRack();
        try {
            [$image, $corners] = $picture();
            $laid = SeenLayout::in($image, $corners, $rack);
        } catch (CoreError $e) {
            return $this->page($sheet, $words->error($e));
        }
        if ($request->request->getBoolean('keep')) {
            $this->pictures->keep($sheet, $image);
        }

        return $this->render('sheet/seen.html.twig', [
            'sheet' => $sheet,
            'seen' => $laid->laid,
            'unused' => $laid->unused,
            'table' => new TableDrawing($rack->withLayout($laid->layout), HeldScreen::isUpright($request)),
            'lines' => LayoutText::write($laid->layout, $rack->equipment->table),
        ]);
    }

    /** @throws UnreadablePicture If none was sent */
    private static function picture(Request $request): \GdImage
    {
        $file = $request->files->get('picture');
        if (!$file instanceof UploadedFile || !$file->isValid()) {
            throw UnreadablePicture::because('none', ['mib' => intdiv(PictureFile::MAX_BYTES, 1_048_576)]);
        }

        return PictureFile::read($file->getContent());
    }

    private function page(RackSheet $sheet, ?string $error = null): Response
    {
        return $this->render('sheet/picture.html.twig', [
            'sheet' => $sheet, 'error' => $error, 'has_camera' => $this->camera->hangsOver($sheet->getTable()),
            'kept' => $this->pictures->of($sheet),
        ], new Response(status: null === $error ? Response::HTTP_OK : Response::HTTP_UNPROCESSABLE_ENTITY));
    }

    /**
     * What a person sent: a picture and four corners.
     *
     * @return array{\GdImage, list<array{float, float}>}
     *
     * @throws UnreadablePicture If that is not what came
     */
    private function sent(Request $request): array
    {
        $image = self::picture($request);
        $taps = [];
        $typed = json_decode($request->request->getString('corners'), true, 4);
        foreach (\is_array($typed) ? \array_slice($typed, 0, 5) : [] as $tap) {
            if (\is_array($tap) && is_numeric($tap[0] ?? null) && is_numeric($tap[1] ?? null)) {
                // Shares of the picture's width and height.
                $taps[] = [
                    max(0.0, min(1.0, (float) $tap[0])) * imagesx($image),
                    max(0.0, min(1.0, (float) $tap[1])) * imagesy($image),
                ];
            }
        }
        if (4 !== \count($taps)) {
            throw UnreadablePicture::because('corners', ['count' => \count($taps)]);
        }

        return [$image, $taps];
    }
}
