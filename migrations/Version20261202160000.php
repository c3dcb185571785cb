<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261202160000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Work that waits already is not put into the queue again: messages say what they are about.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE work_queue ADD subject VARCHAR(80) DEFAULT NULL, ADD INDEX work_queue_subject (subject)');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE work_queue DROP subject');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
