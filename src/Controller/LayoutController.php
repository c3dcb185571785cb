<?php

declare(strict_types=1);

namespace ZigLane\App\Controller;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\UnprocessableEntityHttpException;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsCsrfTokenValid;
use ZigLane\App\Drawing\TableDrawing;
use ZigLane\App\Entity\OwnTable;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Repository\OwnTables;
use ZigLane\App\Repository\RackSheetRepository;
use ZigLane\App\Sheet\LayoutText;
use ZigLane\App\Sheet\SheetEditor;
use ZigLane\App\Sheet\SpotText;
use ZigLane\App\Words\Refused;
use ZigLane\App\Words\Words;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Rules\BreakShot;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Rules\RuleOptions;
use ZigLane\Core\Rules\Scattered;
use ZigLane\Core\Rules\Standing;

/** The first station: the balls on the table. Every change is saved as it is made. */
final class LayoutController extends AbstractController
{
    /** Sheets from which a layout can be copied: the latest. */
    private const OTHERS = 30;

    public function __construct(
        private readonly RackSheetRepository $sheets,
        private readonly SheetEditor $editor,
        private readonly Words $words,
        private readonly OwnTables $tables,
    ) {
    }

    #[Route('/sheets/{id}/layout', name: 'sheet_layout', methods: ['GET'])]
    public function show(Request $request, RackSheet $sheet): Response
    {
        return $this->render('sheet/layout.html.twig', $this->view($request, $sheet));
    }

    #[Route('/sheets/{id}/layout', name: 'sheet_change', methods: ['POST'])]
    #[IsCsrfTokenValid('sheet')]
    public function change(Request $request, RackSheet $sheet): Response
    {
        $input = $request->request;
        $version = $input->getInt('version');
        $table = $sheet->getRack()->equipment->table;
        try {
            match ($input->getString('change')) {
                'undo' => $this->editor->goTo($sheet, $sheet->getStep() - 1, $version),
                'redo' => $this->editor->goTo($sheet, $sheet->getStep() + 1, $version),
                'clear' => $this->editor->layOut($sheet, Layout::empty(), $version),
                'mirror' => $this->editor->layOut($sheet, $sheet->getRack()->layout->mirrored($table), $version),
                'turn' => $this->editor->layOut($sheet, $sheet->getRack()->layout->turned($table), $version),
                'typed' => $this->editor->layOut($sheet, LayoutText::read($input->getString('lines'), $table), $version),
                'random' => $this->editor->layOut($sheet, $this->scattered($sheet, $input->getInt('count', 6)), $version),
                'copied' => $this->editor->layOut($sheet, $this->copied($sheet, $input->getString('of')), $version),
                'broken' => $this->editor->afterBreak($sheet, $this->broken($sheet), $version),
                'table' => $this->editor->onTable($sheet, $this->tableNamed($sheet, $input->getString('table')), $version),
                'fourteen' => $this->editor->layOut($sheet, self::fourteen($sheet->getRack()), $version),
                'rules' => $this->editor->ruledBy(
                    $sheet,
                    RuleOptions::of(array_values(array_filter($input->all('rules'), is_string(...)))),
                    new Standing(
                        max(0, min(2, $input->getInt('foulsInARow'))),
                        max(0, min(2, $input->getInt('otherFouls'))),
                        $input->getBoolean('pushOut'),
                        $input->getBoolean('mayPass'),
                    ),
                    $version,
                ),
                default => $this->editor->layOut(
                    $sheet,
                    $this->changed($sheet, $input->getString('change'), SpotText::ball($input->getString('ball')), $input->getString('at')),
                    $version,
                ),
            };
        } catch (CoreError|UnprocessableEntityHttpException $e) {
            return $this->render(
                'sheet/desk.html.twig',
                [...$this->view($request, $sheet), 'error' => $this->words->error($e)],
                new Response(status: 422),
            );
        }
        if (!$request->headers->has('HX-Request')) {
            return $this->redirectToRoute(
                'sheet_layout',
                ['id' => $sheet->getId(), 'ball' => $input->getString('ball') ?: null],
                Response::HTTP_SEE_OTHER,
            );
        }

        return $this->render('sheet/desk.html.twig', $this->view($request, $sheet));
    }

    /** Fourteen balls racked beside the cue ball and the one ball that lies outside the rack. */
    private static function fourteen(Rack $rack): Layout
    {
        $outside = $rack->layout;
        foreach ($rack->objectBalls() as $ball) {
            $outside = Racking::isInOutline($rack->layout->spot($ball), $rack->equipment) ? $outside->without($ball) : $outside;
        }
        $racked = $rack->game->rules()->countsBalls && 1 === $outside->without(Ball::Cue)->count()
            ? Racking::fourteen($outside, $rack->equipment)
            : null;

        return $racked ?? throw Refused::because('fourteen');
    }

    private function scattered(RackSheet $sheet, int $count): Layout
    {
        $rack = $sheet->getRack();

        return Scattered::balls($rack->game, $count, $rack->equipment, new Randomness(random_int(1, 2 ** 30)));
    }

    /** The balls of another sheet of the same player, where they lie in diamonds; those that this game does not use stay away. */
    private function copied(RackSheet $sheet, string $of): Layout
    {
        $other = $this->sheets->ownedBy($sheet->getOwner(), $of)?->getRack() ?? throw Refused::because('noSheet');
        $layout = $other->layout->onTable($other->equipment->table, $sheet->getRack()->equipment->table);
        foreach ($layout->balls() as $ball) {
            $layout = Ball::Cue === $ball || $sheet->getRack()->game->uses($ball) ? $layout : $layout->without($ball);
        }

        return $layout;
    }

    /** The rack broken by its player. */
    private function broken(RackSheet $sheet): Rack
    {
        $rack = $sheet->getRack();
        $break = BreakShot::play($rack->game, $rack->equipment, $rack->player, new Randomness(random_int(1, 2 ** 30)));

        return $break->rackAfter($rack->game, $rack->equipment, $rack->player, $rack->rules);
    }

    private function tableNamed(RackSheet $sheet, string $id): OwnTable
    {
        return $this->tables->ownedBy($sheet->getOwner(), $id) ?? throw Refused::because('noTable');
    }

    private function changed(RackSheet $sheet, string $change, Ball $ball, string $at): Layout
    {
        $rack = $sheet->getRack();

        return match ($change) {
            'place' => $rack->layout->with($ball, SpotText::spot($at, $rack->equipment->table)),
            'rail' => $rack->layout->with($ball, (new LayoutRules($rack->equipment))->frozenToNearestRail($rack->layout->spot($ball))),
            'off' => $rack->layout->without($ball),
            default => throw Refused::because('change'),
        };
    }

    /** @return array<string, mixed> */
    private function view(Request $request, RackSheet $sheet): array
    {
        $rack = $sheet->getRack();
        $selected = Ball::named($request->request->getString('ball') ?: $request->query->getString('ball'));

        return [
            'sheet' => $sheet,
            'table' => new TableDrawing($rack, HeldScreen::isUpright($request)),
            'tray' => array_values(array_filter(
                [Ball::Cue, ...$rack->game->balls()],
                static fn (Ball $ball): bool => !$rack->layout->has($ball),
            )),
            'selected' => null !== $selected && $rack->game->uses($selected) ? $selected->label() : '',
            'can_undo' => $sheet->getStep() > $this->sheets->firstStep($sheet),
            'can_redo' => $sheet->getStep() < $this->sheets->lastStep($sheet),
            'own_tables' => $this->tables->all($sheet->getOwner()),
            'others' => array_values(array_filter(
                $this->sheets->ofOwner($sheet->getOwner(), self::OTHERS),
                static fn (RackSheet $other): bool => !$other->getId()->equals($sheet->getId()),
            )),
            'error' => null,
        ];
    }
}
