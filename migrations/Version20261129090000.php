<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261129090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Sessions and limits in the database, so that several machines share them; what each account has used of the workers';
    }

    public function up(Schema $schema): void
    {
        // As Symfony's PdoSessionHandler and DoctrineDbalAdapter want them.
        $this->addSql(<<<'SQL'
            CREATE TABLE sessions (
                sess_id VARBINARY(128) NOT NULL,
                sess_data BLOB NOT NULL,
                sess_lifetime INT UNSIGNED NOT NULL,
                sess_time INT UNSIGNED NOT NULL,
                INDEX sess_lifetime_idx (sess_lifetime),
                PRIMARY KEY (sess_id)
            ) DEFAULT CHARACTER SET utf8mb4 ENGINE = InnoDB
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE cache_items (
                item_id VARBINARY(255) NOT NULL,
                item_data MEDIUMBLOB NOT NULL,
                item_lifetime INT UNSIGNED DEFAULT NULL,
                item_time INT UNSIGNED NOT NULL,
                PRIMARY KEY (item_id)
            ) DEFAULT CHARACTER SET utf8mb4 ENGINE = InnoDB
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE work_used (
                party VARCHAR(60) NOT NULL,
                in_minute DATETIME NOT NULL,
                seconds DOUBLE PRECISION NOT NULL,
                INDEX work_used_in (in_minute),
                PRIMARY KEY (party, in_minute)
            ) DEFAULT CHARACTER SET utf8mb4 ENGINE = InnoDB
            SQL);
        $this->addSql('ALTER TABLE work_queue ADD INDEX work_queue_party (queue, party)');
        $this->addSql('ALTER TABLE plan_job ADD active_at DATETIME(6) DEFAULT NULL');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE plan_job DROP active_at');
        $this->addSql('ALTER TABLE work_queue DROP INDEX work_queue_party');
        $this->addSql('DROP TABLE work_used');
        $this->addSql('DROP TABLE cache_items');
        $this->addSql('DROP TABLE sessions');
    }
}
