<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261129040000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Outings, racks that are shot, and their shots; plans for a rack at the table; fits of a log';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE shot_rack (
                game VARCHAR(16) NOT NULL,
                now_rack JSON NOT NULL,
                ended_by VARCHAR(10) DEFAULT NULL,
                balls SMALLINT DEFAULT NULL,
                racks SMALLINT DEFAULT NULL,
                plan LONGTEXT DEFAULT NULL,
                costs JSON DEFAULT NULL,
                deleted_at DATETIME DEFAULT NULL,
                version INT DEFAULT 1 NOT NULL,
                id BINARY(16) NOT NULL,
                kind VARCHAR(10) NOT NULL,
                start_rack JSON NOT NULL,
                started_at DATETIME NOT NULL,
                owner_id BINARY(16) NOT NULL,
                outing_id BINARY(16) NOT NULL,
                sheet_id BINARY(16) DEFAULT NULL,
                INDEX IDX_67B432C57E3C61F9 (owner_id),
                INDEX IDX_67B432C5AF4C7531 (outing_id),
                INDEX IDX_67B432C58B1206A5 (sheet_id),
                INDEX shot_rack_of_owner (owner_id, deleted_at, started_at, id),
                INDEX shot_rack_of_game (owner_id, game, deleted_at, started_at, id),
                PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 ENGINE = InnoDB
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE log_fit (
                id BINARY(16) NOT NULL,
                progress DOUBLE PRECISION NOT NULL,
                answer JSON DEFAULT NULL,
                ended_at DATETIME DEFAULT NULL,
                half_life SMALLINT NOT NULL,
                created_at DATETIME NOT NULL,
                owner_id BINARY(16) NOT NULL,
                INDEX IDX_3FA922907E3C61F9 (owner_id),
                INDEX log_fit_of_owner (owner_id, id),
                PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 ENGINE = InnoDB
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE outing (
                id BINARY(16) NOT NULL,
                played_on DATE NOT NULL,
                place VARCHAR(120) NOT NULL,
                notes LONGTEXT NOT NULL,
                owner_id BINARY(16) NOT NULL,
                INDEX IDX_F2A106257E3C61F9 (owner_id),
                INDEX outing_of_owner (owner_id, played_on),
                PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 ENGINE = InnoDB
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE shot (
                id BINARY(16) NOT NULL,
                game VARCHAR(16) NOT NULL,
                kind VARCHAR(12) NOT NULL,
                shot_at DATETIME NOT NULL,
                ball VARCHAR(2) DEFAULT NULL,
                pocket VARCHAR(2) DEFAULT NULL,
                is_made TINYINT DEFAULT NULL,
                has_position TINYINT DEFAULT NULL,
                is_foul TINYINT NOT NULL,
                make DOUBLE PRECISION DEFAULT NULL,
                guess DOUBLE PRECISION DEFAULT NULL,
                distance DOUBLE PRECISION DEFAULT NULL,
                cut DOUBLE PRECISION DEFAULT NULL,
                speed DOUBLE PRECISION DEFAULT NULL,
                group_bits INT NOT NULL,
                entry JSON NOT NULL,
                number INT NOT NULL,
                owner_id BINARY(16) NOT NULL,
                rack_id BINARY(16) NOT NULL,
                INDEX IDX_AB0788BB7E3C61F9 (owner_id),
                INDEX IDX_AB0788BB8E86A33E (rack_id),
                INDEX shot_of_owner (owner_id, shot_at, id),
                INDEX shot_of_kind (owner_id, kind, shot_at, id),
                INDEX shot_of_game (owner_id, game, shot_at, id),
                INDEX shot_made (owner_id, is_made, shot_at, id),
                UNIQUE INDEX shot_of_rack (rack_id, number),
                PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 ENGINE = InnoDB
            SQL);
        $this->addSql('ALTER TABLE shot_rack ADD CONSTRAINT FK_67B432C57E3C61F9 FOREIGN KEY (owner_id) REFERENCES account (id) ON DELETE CASCADE');
        $this->addSql('ALTER TABLE shot_rack ADD CONSTRAINT FK_67B432C5AF4C7531 FOREIGN KEY (outing_id) REFERENCES outing (id) ON DELETE CASCADE');
        $this->addSql('ALTER TABLE shot_rack ADD CONSTRAINT FK_67B432C58B1206A5 FOREIGN KEY (sheet_id) REFERENCES rack_sheet (id) ON DELETE SET NULL');
        $this->addSql('ALTER TABLE log_fit ADD CONSTRAINT FK_3FA922907E3C61F9 FOREIGN KEY (owner_id) REFERENCES account (id) ON DELETE CASCADE');
        $this->addSql('ALTER TABLE outing ADD CONSTRAINT FK_F2A106257E3C61F9 FOREIGN KEY (owner_id) REFERENCES account (id) ON DELETE CASCADE');
        $this->addSql('ALTER TABLE shot ADD CONSTRAINT FK_AB0788BB7E3C61F9 FOREIGN KEY (owner_id) REFERENCES account (id) ON DELETE CASCADE');
        $this->addSql('ALTER TABLE shot ADD CONSTRAINT FK_AB0788BB8E86A33E FOREIGN KEY (rack_id) REFERENCES shot_rack (id) ON DELETE CASCADE');
        $this->addSql('ALTER TABLE plan_job ADD after_shots SMALLINT DEFAULT NULL, ADD shot_rack_id BINARY(16) DEFAULT NULL, CHANGE sheet_id sheet_id BINARY(16) DEFAULT NULL');
        $this->addSql('ALTER TABLE plan_job ADD CONSTRAINT FK_F7395BA5D059B218 FOREIGN KEY (shot_rack_id) REFERENCES shot_rack (id) ON DELETE CASCADE');
        $this->addSql('CREATE INDEX IDX_F7395BA5D059B218 ON plan_job (shot_rack_id)');
        $this->addSql('ALTER TABLE account ADD uses_log TINYINT DEFAULT 1 NOT NULL, ADD half_life SMALLINT DEFAULT 90 NOT NULL, ADD chalk_every SMALLINT DEFAULT 0 NOT NULL');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DELETE FROM plan_job WHERE sheet_id IS NULL');
        $this->addSql('ALTER TABLE plan_job DROP FOREIGN KEY FK_F7395BA5D059B218');
        $this->addSql('DROP INDEX IDX_F7395BA5D059B218 ON plan_job');
        $this->addSql('ALTER TABLE plan_job DROP after_shots, DROP shot_rack_id, CHANGE sheet_id sheet_id BINARY(16) NOT NULL');
        $this->addSql('ALTER TABLE account DROP uses_log, DROP half_life, DROP chalk_every');
        foreach (['shot', 'shot_rack', 'outing', 'log_fit'] as $table) {
            $this->addSql("DROP TABLE $table");
        }
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
