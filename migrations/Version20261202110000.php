<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261202110000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Which worker has or keeps a message and how often it was taken; why work was given up; which look is the newest.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            'ALTER TABLE work_queue ADD taken INT NOT NULL DEFAULT 0, ADD taken_by VARCHAR(100) DEFAULT NULL,'
            .' ADD kept_by VARCHAR(100) DEFAULT NULL',
        );
        $this->addSql('ALTER TABLE own_table ADD has_camera TINYINT(1) DEFAULT 0 NOT NULL');
        $this->addSql(<<<'SQL'
            CREATE TABLE given_up (
                about BINARY(16) NOT NULL,
                why VARCHAR(20) NOT NULL,
                seconds INT NOT NULL,
                at DATETIME NOT NULL,
                PRIMARY KEY (about)
            ) DEFAULT CHARACTER SET utf8mb4 ENGINE = InnoDB
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE looks_asked (
                view CHAR(24) CHARACTER SET ascii NOT NULL,
                number BIGINT NOT NULL,
                at DATETIME NOT NULL,
                INDEX looks_asked_at (at),
                PRIMARY KEY (view)
            ) DEFAULT CHARACTER SET utf8mb4 ENGINE = InnoDB
            SQL);
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE own_table DROP has_camera');
        $this->addSql('DROP TABLE looks_asked');
        $this->addSql('DROP TABLE given_up');
        $this->addSql('ALTER TABLE work_queue DROP taken, DROP taken_by, DROP kept_by');
    }
}
