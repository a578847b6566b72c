import type { MigrationInterface, QueryRunner } from 'typeorm';

/*
 * Migrations only go forward, and every statement may be carried out again: a migration that was killed in its middle
 * is repeated from its beginning at the next start. MariaDB keeps each single definition whole through a kill.
 */

const kitTable = (name: string) => `CREATE TABLE IF NOT EXISTS \`${name}\` (
  \`id\` uuid NOT NULL, \`shop_id\` uuid NOT NULL, \`code\` varchar(80) NOT NULL, \`position\` int NOT NULL, \`details\` longtext NOT NULL,
  UNIQUE INDEX \`uq_${name}_code\` (\`shop_id\`, \`code\`), PRIMARY KEY (\`id\`),
  CONSTRAINT \`fk_${name}_shop\` FOREIGN KEY (\`shop_id\`) REFERENCES \`shop\`(\`id\`) ON DELETE CASCADE ON UPDATE NO ACTION) ENGINE=InnoDB`;

/** The first tables. A mistake is mended by the next migration. */
export class FirstTables1790000000000 implements MigrationInterface {
  name = 'FirstTables1790000000000';

  async up(runner: QueryRunner): Promise<void> {
    const time = 'datetime(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)';
    await runner.query(`CREATE TABLE IF NOT EXISTS \`shop\` (\`id\` uuid NOT NULL, \`name\` varchar(80) NOT NULL, \`version\` int NOT NULL,
      \`settings\` longtext NOT NULL, \`created_at\` ${time}, PRIMARY KEY (\`id\`)) ENGINE=InnoDB`);
    for (const name of ['saw', 'machine', 'allowance']) await runner.query(kitTable(name));
    await runner.query(`CREATE TABLE IF NOT EXISTS \`job\` (\`id\` uuid NOT NULL, \`shop_id\` uuid NOT NULL, \`name\` varchar(120) NOT NULL,
      \`purpose\` varchar(400) NOT NULL, \`version\` int NOT NULL, \`created_at\` ${time}, \`changed_at\` ${time},
      INDEX \`ix_job_shop_changed\` (\`shop_id\`, \`changed_at\`), PRIMARY KEY (\`id\`),
      CONSTRAINT \`fk_job_shop\` FOREIGN KEY (\`shop_id\`) REFERENCES \`shop\`(\`id\`) ON DELETE CASCADE ON UPDATE NO ACTION) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE IF NOT EXISTS \`job_revision\` (\`id\` uuid NOT NULL, \`shop_id\` uuid NOT NULL, \`job_id\` uuid NOT NULL,
      \`version\` int NOT NULL, \`aside\` tinyint NOT NULL DEFAULT 0, \`build\` longtext NOT NULL, \`created_at\` ${time},
      INDEX \`ix_revision_job_version\` (\`job_id\`, \`version\`), PRIMARY KEY (\`id\`),
      CONSTRAINT \`fk_job_revision_shop\` FOREIGN KEY (\`shop_id\`) REFERENCES \`shop\`(\`id\`) ON DELETE CASCADE ON UPDATE NO ACTION,
      CONSTRAINT \`fk_job_revision_job\` FOREIGN KEY (\`job_id\`) REFERENCES \`job\`(\`id\`) ON DELETE CASCADE ON UPDATE NO ACTION) ENGINE=InnoDB`);
  }

  async down(): Promise<void> {
    throw new Error('Migrations only go forward.');
  }
}

/** The rack. */
export class Rack1790100000000 implements MigrationInterface {
  name = 'Rack1790100000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE IF NOT EXISTS \`board\` (\`id\` uuid NOT NULL, \`shop_id\` uuid NOT NULL,
      \`number\` varchar(40) COLLATE "utf8mb4_bin" NOT NULL, \`live\` tinyint NULL, \`species\` varchar(80) NOT NULL,
      \`length_mm\` double NOT NULL, \`width_mm\` double NOT NULL, \`thickness_mm\` double NOT NULL, \`version\` int NOT NULL,
      \`job_id\` uuid NULL, \`details\` longtext NOT NULL, \`history\` longtext NOT NULL,
      \`created_at\` datetime(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
      INDEX \`ix_board_job\` (\`job_id\`), UNIQUE INDEX \`uq_board_number\` (\`shop_id\`, \`live\`, \`number\`), PRIMARY KEY (\`id\`),
      CONSTRAINT \`fk_board_shop\` FOREIGN KEY (\`shop_id\`) REFERENCES \`shop\`(\`id\`) ON DELETE CASCADE ON UPDATE NO ACTION,
      CONSTRAINT \`fk_board_job\` FOREIGN KEY (\`job_id\`) REFERENCES \`job\`(\`id\`) ON DELETE SET NULL ON UPDATE NO ACTION) ENGINE=InnoDB`);
  }

  async down(): Promise<void> {
    throw new Error('Migrations only go forward.');
  }
}

/** Clamps and bottles of glue. */
export class Gluing1790200000000 implements MigrationInterface {
  name = 'Gluing1790200000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const name of ['clamp_set', 'adhesive']) await runner.query(kitTable(name));
  }

  async down(): Promise<void> {
    throw new Error('Migrations only go forward.');
  }
}

/** Receipts of writes; digests and marks of kept builds. */
export class Receipts1790300000000 implements MigrationInterface {
  name = 'Receipts1790300000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE IF NOT EXISTS \`receipt\` (\`write_id\` varchar(64) NOT NULL, \`shop_id\` uuid NOT NULL,
      \`subject\` uuid NOT NULL, \`version\` int NOT NULL, \`answer\` longtext NULL,
      \`created_at\` datetime(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
      INDEX \`ix_receipt_subject\` (\`subject\`, \`version\`), INDEX \`ix_receipt_created\` (\`created_at\`), PRIMARY KEY (\`write_id\`),
      CONSTRAINT \`fk_receipt_shop\` FOREIGN KEY (\`shop_id\`) REFERENCES \`shop\`(\`id\`) ON DELETE CASCADE ON UPDATE NO ACTION) ENGINE=InnoDB`);
    await runner.query(
      'ALTER TABLE `job_revision` ADD COLUMN IF NOT EXISTS `marked` tinyint NOT NULL DEFAULT 0 AFTER `aside`',
    );
    await runner.query(
      'ALTER TABLE `job_revision` ADD COLUMN IF NOT EXISTS `digest` varchar(64) NULL AFTER `build`',
    );
    await runner.query('UPDATE `job_revision` SET `digest` = SHA2(`build`, 256) WHERE `digest` IS NULL');
  }

  async down(): Promise<void> {
    throw new Error('Migrations only go forward.');
  }
}

/** Who made a kept version. */
export class Makers1790400000000 implements MigrationInterface {
  name = 'Makers1790400000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'ALTER TABLE `job_revision` ADD COLUMN IF NOT EXISTS `made_by` varchar(80) NULL AFTER `digest`',
    );
  }

  async down(): Promise<void> {
    throw new Error('Migrations only go forward.');
  }
}

/** What lists show of a job; jobs put away or deleted; the demo shop, and shops that were removed. */
export class Places1790500000000 implements MigrationInterface {
  name = 'Places1790500000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const column of [
      '`tags` longtext NULL',
      '`gist` longtext NULL',
      '`put_away_at` datetime(3) NULL',
      '`deleted_at` datetime(3) NULL',
    ])
      await runner.query(`ALTER TABLE \`job\` ADD COLUMN IF NOT EXISTS ${column}`);
    await runner.query('ALTER TABLE `shop` ADD COLUMN IF NOT EXISTS `demo` tinyint NOT NULL DEFAULT 0');
    await runner.query('ALTER TABLE `shop` ADD COLUMN IF NOT EXISTS `removed_at` datetime(3) NULL');
    // Until now a demo was told from a shop of one's own by nothing but the name it came with.
    await runner.query("UPDATE `shop` SET `demo` = 1 WHERE `name` = 'North Slip shop'");
  }

  async down(): Promise<void> {
    throw new Error('Migrations only go forward.');
  }
}

/** What pages are told of as it happens, and what waits until when. */
export class Events1790600000000 implements MigrationInterface {
  name = 'Events1790600000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE IF NOT EXISTS \`event\` (\`id\` bigint NOT NULL AUTO_INCREMENT, \`shop_id\` uuid NOT NULL,
      \`kind\` varchar(20) NOT NULL, \`subject\` varchar(80) NULL, \`data\` longtext NULL,
      \`created_at\` datetime(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
      INDEX \`ix_event_created\` (\`created_at\`), PRIMARY KEY (\`id\`),
      CONSTRAINT \`fk_event_shop\` FOREIGN KEY (\`shop_id\`) REFERENCES \`shop\`(\`id\`) ON DELETE CASCADE ON UPDATE NO ACTION) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE IF NOT EXISTS \`timer\` (\`job_id\` uuid NOT NULL, \`task\` varchar(160) NOT NULL, \`shop_id\` uuid NOT NULL,
      \`step\` varchar(80) NOT NULL, \`words\` varchar(200) NOT NULL, \`until\` datetime(3) NOT NULL, \`heard_at\` datetime(3) NULL,
      INDEX \`ix_timer_shop_until\` (\`shop_id\`, \`until\`), PRIMARY KEY (\`job_id\`, \`task\`),
      CONSTRAINT \`fk_timer_shop\` FOREIGN KEY (\`shop_id\`) REFERENCES \`shop\`(\`id\`) ON DELETE CASCADE ON UPDATE NO ACTION,
      CONSTRAINT \`fk_timer_job\` FOREIGN KEY (\`job_id\`) REFERENCES \`job\`(\`id\`) ON DELETE CASCADE ON UPDATE NO ACTION) ENGINE=InnoDB`);
  }

  async down(): Promise<void> {
    throw new Error('Migrations only go forward.');
  }
}

/** Notes and photos, beside jobs and boards. */
export class Notes1790700000000 implements MigrationInterface {
  name = 'Notes1790700000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE IF NOT EXISTS \`note\` (\`id\` uuid NOT NULL, \`shop_id\` uuid NOT NULL, \`job_id\` uuid NULL,
      \`board_id\` uuid NULL, \`step\` varchar(80) NULL, \`version\` int NOT NULL, \`content\` longtext NOT NULL,
      \`taken_at\` datetime(3) NOT NULL, \`removed_at\` datetime(3) NULL,
      \`created_at\` datetime(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
      INDEX \`ix_note_job\` (\`job_id\`), INDEX \`ix_note_board\` (\`board_id\`), PRIMARY KEY (\`id\`),
      CONSTRAINT \`fk_note_shop\` FOREIGN KEY (\`shop_id\`) REFERENCES \`shop\`(\`id\`) ON DELETE CASCADE ON UPDATE NO ACTION,
      CONSTRAINT \`fk_note_job\` FOREIGN KEY (\`job_id\`) REFERENCES \`job\`(\`id\`) ON DELETE CASCADE ON UPDATE NO ACTION,
      CONSTRAINT \`fk_note_board\` FOREIGN KEY (\`board_id\`) REFERENCES \`board\`(\`id\`) ON DELETE CASCADE ON UPDATE NO ACTION) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE IF NOT EXISTS \`photo\` (\`note_id\` uuid NOT NULL, \`shop_id\` uuid NOT NULL,
      \`digest\` varchar(64) NOT NULL, \`width_px\` int NOT NULL, \`height_px\` int NOT NULL, \`bytes\` int NOT NULL,
      \`image\` mediumblob NOT NULL, \`small\` mediumblob NOT NULL,
      \`created_at\` datetime(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
      INDEX \`ix_photo_shop\` (\`shop_id\`), PRIMARY KEY (\`note_id\`),
      CONSTRAINT \`fk_photo_shop\` FOREIGN KEY (\`shop_id\`) REFERENCES \`shop\`(\`id\`) ON DELETE CASCADE ON UPDATE NO ACTION,
      CONSTRAINT \`fk_photo_note\` FOREIGN KEY (\`note_id\`) REFERENCES \`note\`(\`id\`) ON DELETE CASCADE ON UPDATE NO ACTION) ENGINE=InnoDB`);
  }

  async down(): Promise<void> {
    throw new Error('Migrations only go forward.');
  }
}

/** The log: lines made of the jobs, and which version of each they were made of. */
export class Log1790800000000 implements MigrationInterface {
  name = 'Log1790800000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE IF NOT EXISTS \`log_line\` (\`id\` bigint NOT NULL AUTO_INCREMENT, \`shop_id\` uuid NOT NULL, \`job_id\` uuid NOT NULL,
      \`line\` varchar(160) NOT NULL, \`kind\` varchar(20) NOT NULL, \`step_kind\` varchar(40) NOT NULL, \`tool\` varchar(80) NULL, \`wood\` varchar(80) NULL,
      \`dimension\` varchar(20) NULL, \`taken_at\` datetime(3) NOT NULL, \`predicted\` double NULL, \`measured\` double NULL, \`likely\` double NULL,
      \`band\` double NULL, \`said\` varchar(300) NOT NULL, \`details\` longtext NOT NULL, \`taught\` longtext NULL,
      INDEX \`ix_log_line_facts\` (\`shop_id\`, \`taken_at\`, \`kind\`, \`step_kind\`, \`tool\`, \`wood\`, \`dimension\`, \`predicted\`, \`measured\`, \`likely\`, \`band\`, \`job_id\`, \`said\`), INDEX \`ix_log_line_kind\` (\`shop_id\`, \`kind\`, \`taken_at\`), INDEX \`ix_log_line_job\` (\`job_id\`), PRIMARY KEY (\`id\`),
      CONSTRAINT \`fk_log_line_shop\` FOREIGN KEY (\`shop_id\`) REFERENCES \`shop\`(\`id\`) ON DELETE CASCADE ON UPDATE NO ACTION,
      CONSTRAINT \`fk_log_line_job\` FOREIGN KEY (\`job_id\`) REFERENCES \`job\`(\`id\`) ON DELETE CASCADE ON UPDATE NO ACTION) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE IF NOT EXISTS \`logged_job\` (\`job_id\` uuid NOT NULL, \`version\` bigint NOT NULL, \`choices\` longtext NOT NULL, PRIMARY KEY (\`job_id\`),
      CONSTRAINT \`fk_logged_job_job\` FOREIGN KEY (\`job_id\`) REFERENCES \`job\`(\`id\`) ON DELETE CASCADE ON UPDATE NO ACTION) ENGINE=InnoDB`);
  }

  async down(): Promise<void> {
    throw new Error('Migrations only go forward.');
  }
}

export const MIGRATIONS = [
  FirstTables1790000000000,
  Rack1790100000000,
  Gluing1790200000000,
  Receipts1790300000000,
  Makers1790400000000,
  Places1790500000000,
  Events1790600000000,
  Notes1790700000000,
  Log1790800000000,
];
