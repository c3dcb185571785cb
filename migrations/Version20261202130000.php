<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261202130000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'A submission is one of its owner: the zip of an account can be taken in by another.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE UNIQUE INDEX rack_sheet_submission_of ON rack_sheet (owner_id, submission)');
        $this->addSql('DROP INDEX rack_sheet_submission ON rack_sheet');
        $this->addSql('ALTER TABLE rack_sheet RENAME INDEX rack_sheet_submission_of TO rack_sheet_submission');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP INDEX rack_sheet_submission ON rack_sheet');
        $this->addSql('CREATE UNIQUE INDEX rack_sheet_submission ON rack_sheet (submission)');
    }
}
