<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261129220000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Pictures of the table that are kept with a sheet';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            'CREATE TABLE kept_picture (sheet_id BINARY(16) NOT NULL, jpeg MEDIUMBLOB NOT NULL, kept_at DATETIME NOT NULL,
            PRIMARY KEY (sheet_id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci` ENGINE = InnoDB',
        );
        $this->addSql(
            'ALTER TABLE kept_picture ADD CONSTRAINT FK_kept_picture_sheet FOREIGN KEY (sheet_id) REFERENCES rack_sheet (id) ON DELETE CASCADE',
        );
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE kept_picture');
    }
}
