<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261202170000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Messages say whether they were put off: others are due although the clock is set back.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE work_queue ADD put_off TINYINT(1) NOT NULL DEFAULT 0');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE work_queue DROP put_off');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
