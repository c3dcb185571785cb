<?php

declare(strict_types=1);

namespace ZigLane\App\Form;

use Symfony\Component\Form\AbstractType;
use Symfony\Component\Form\Extension\Core\Type\ChoiceType;
use Symfony\Component\Form\Extension\Core\Type\EnumType;
use Symfony\Component\Form\Extension\Core\Type\HiddenType;
use Symfony\Component\Form\Extension\Core\Type\TextType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\OptionsResolver\OptionsResolver;
use Symfony\Component\Translation\TranslatableMessage;
use ZigLane\App\Entity\OwnTable;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Table\TableSize;

/** @extends AbstractType<NewSheet> */
final class NewSheetType extends AbstractType
{
    public function buildForm(FormBuilderInterface $builder, array $options): void
    {
        $builder
            ->add(
                'name',
                TextType::class,
                ['empty_data' => '', 'attr' => ['placeholder' => 'Thursday rack, six left', 'autocomplete' => 'off', 'autofocus' => true]],
            )
            ->add(
                'game',
                EnumType::class,
                ['class' => Game::class, 'expanded' => true, 'choice_label' => static fn (Game $game): string => 'name.game.'.$game->value],
            )
            ->add(
                'size',
                EnumType::class,
                [
                    'class' => TableSize::class,
                    'expanded' => true,
                    'label' => 'Table',
                    'choice_label' => static fn (TableSize $size): TranslatableMessage => new TranslatableMessage(
                        'name.size',
                        ['feet' => $size->value],
                    ),
                ],
            )
            ->add('submission', HiddenType::class, ['empty_data' => '']);
        if ([] !== $options['tables']) {
            $builder->add('table', ChoiceType::class, [
                'choices' => $options['tables'],
                'choice_label' => 'name',
                'choice_value' => static fn (?OwnTable $table): string => (string) $table?->getId(),
                'required' => false,
                'placeholder' => 'a usual one of that size',
                'label' => 'Or a table of yours',
            ]);
        }
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setDefaults(['data_class' => NewSheet::class, 'tables' => []]);
    }
}
