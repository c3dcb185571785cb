<?php

declare(strict_types=1);

namespace ZigLane\Tests\Architecture;

use PHPat\Selector\Selector;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/** Rules that PHPStan checks: which part of the code may know which. */
final class LayersTest
{
    public function testCoreKnowsNeitherApplicationNorFramework(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('ZigLane\Core'))
            ->canOnlyDependOn()
            ->classes(Selector::inNamespace('ZigLane\Core'), Selector::isStandardClass())
            ->because('the computation stands on its own');
    }

    public function testOnlyMotionKnowsItsInternals(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::AllOf(
                Selector::inNamespace('ZigLane'),
                Selector::Not(Selector::inNamespace('ZigLane\Core\Motion')),
                Selector::Not(Selector::inNamespace('ZigLane\Tests')),
            ))
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace('ZigLane\Core\Motion\Internal'))
            ->because('the engine may change behind its interface');
    }

    public function testOnlyThePlannerKnowsItsTables(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::AllOf(
                Selector::inNamespace('ZigLane'),
                Selector::Not(Selector::inNamespace('ZigLane\Core\Plan')),
                Selector::Not(Selector::inNamespace('ZigLane\Tests')),
            ))
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace('ZigLane\Core\Plan\Internal'))
            ->because('a plan is asked for through PlanSearch');
    }

    public function testOnlyFormatsKnowTheirReader(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::AllOf(Selector::inNamespace('ZigLane'), Selector::Not(Selector::inNamespace('ZigLane\Core\Format'))))
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace('ZigLane\Core\Format\Internal'))
            ->because('files are read through their public classes');
    }

    public function testThePhysicsKnowsNothingOfGames(): Rule
    {
        return PHPat::rule()
            ->classes(
                Selector::inNamespace('ZigLane\Core\Motion'),
                Selector::inNamespace('ZigLane\Core\Table'),
                Selector::inNamespace('ZigLane\Core\Position'),
            )
            ->canOnlyDependOn()
            ->classes(
                Selector::inNamespace('ZigLane\Core\Motion'),
                Selector::inNamespace('ZigLane\Core\Table'),
                Selector::inNamespace('ZigLane\Core\Position'),
                Selector::inNamespace('ZigLane\Core\Error'),
                Selector::inNamespace('ZigLane\Core\Fact'),
                Selector::inNamespace('ZigLane\Core\Name'),
                Selector::isStandardClass(),
            )
            ->because('tables and balls are the same in every game, for every player and whatever is asked of them');
    }

    public function testDrawingComputesNoShots(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('ZigLane\App\Drawing'))
            ->shouldNotDependOn()
            ->classes(
                Selector::classname(\ZigLane\Core\Shot\ShotSolver::class),
                Selector::classname(\ZigLane\Core\Motion\EventSimulator::class),
                Selector::inNamespace('ZigLane\App\Controller'),
                Selector::inNamespace('Symfony\Component\HttpFoundation'),
            )
            ->because('a drawing shows what was computed before');
    }

    public function testWordsAreMadeFromFactsAlone(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('ZigLane\App\Words'))
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace('ZigLane\App\Controller'), Selector::inNamespace('ZigLane\App\Entity'))
            ->because('sentences are made from facts alone');
    }
}
