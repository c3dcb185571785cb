<?php

declare(strict_types=1);

namespace ZigLane\App\Form;

use Symfony\Component\Form\AbstractType;
use Symfony\Component\Form\Extension\Core\Type\EmailType;
use Symfony\Component\Form\Extension\Core\Type\PasswordType;
use Symfony\Component\Form\Extension\Core\Type\TextType;
use Symfony\Component\Form\FormBuilderInterface;
use Symfony\Component\OptionsResolver\OptionsResolver;

/** @extends AbstractType<Registration> */
final class RegistrationType extends AbstractType
{
    public function buildForm(FormBuilderInterface $builder, array $options): void
    {
        $builder
            ->add('name', TextType::class, ['empty_data' => '', 'attr' => ['autocomplete' => 'name']])
            ->add('email', EmailType::class, ['empty_data' => '', 'label' => 'E-mail', 'attr' => ['autocomplete' => 'username']])
            ->add(
                'password',
                PasswordType::class,
                ['empty_data' => '', 'help' => 'At least 10 characters.', 'attr' => ['autocomplete' => 'new-password']],
            );
    }

    public function configureOptions(OptionsResolver $resolver): void
    {
        $resolver->setDefaults(['data_class' => Registration::class]);
    }
}
