<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Columns and indexes are called and typed as the mapping has them. */
final class Version20261128230000 extends AbstractMigration
{
    private const INDEXES = [
        'plan_block' => ['idx_3e1d6f1bbe04ea9', 'IDX_D0BDD2DEBE04EA9'],
        'plan_job' => ['idx_9b4dde8b8b1206a5', 'IDX_F7395BA58B1206A5'],
    ];

    public function getDescription(): string
    {
        return 'The tables are just those of the mapping';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE layout_step CHANGE rack rack JSON NOT NULL');
        $this->addSql('ALTER TABLE rack_sheet CHANGE rack rack JSON NOT NULL, CHANGE shot shot JSON DEFAULT NULL, CHANGE later later JSON NOT NULL');
        foreach (self::INDEXES as $table => [$old, $new]) {
            $this->addSql("ALTER TABLE $table RENAME INDEX $old TO $new");
        }
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE layout_step CHANGE rack rack LONGTEXT NOT NULL');
        $this->addSql('ALTER TABLE rack_sheet CHANGE rack rack LONGTEXT NOT NULL, CHANGE shot shot LONGTEXT DEFAULT NULL, CHANGE later later LONGTEXT NOT NULL');
        foreach (self::INDEXES as $table => [$old, $new]) {
            $this->addSql("ALTER TABLE $table RENAME INDEX $new TO $old");
        }
    }
}
