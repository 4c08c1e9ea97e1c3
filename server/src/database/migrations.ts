import type { Knex } from 'knex'

/** The database's history, oldest first. Entries are never changed once they have landed. */
const MIGRATIONS: readonly (Knex.Migration & { readonly name: string })[] = [
  {
    name: '001_projects_and_parts',
    async up(knex) {
      await knex.schema.createTable('projects', (table) => {
        table.string('id').primary()
        table.string('name').notNullable()
        table.string('created_at').notNullable()
        table.string('updated_at').notNullable()
        table.string('deleted_at')
      })
      await knex.schema.createTable('parts', (table) => {
        table.string('id').primary()
        table
          .string('project_id')
          .notNullable()
          .references('projects.id')
          .onDelete('CASCADE')
          .index()
        table.string('name').notNullable()
        table.integer('revision').notNullable()
        table.text('document').notNullable()
        table.text('summary').notNullable()
        table.string('created_at').notNullable()
        table.string('updated_at').notNullable()
        table.string('deleted_at')
      })
    },
    async down(knex) {
      await knex.schema.dropTable('parts')
      await knex.schema.dropTable('projects')
    },
  },
  {
    name: '002_materials',
    async up(knex) {
      await knex.schema.createTable('materials', (table) => {
        table.string('id').primary()
        table.string('name').notNullable()
        table.double('density').notNullable()
        table.string('colour').notNullable()
        table.string('look').notNullable()
      })
    },
    async down(knex) {
      await knex.schema.dropTable('materials')
    },
  },
  {
    name: '003_releases',
    async up(knex) {
      await knex.schema.createTable('releases', (table) => {
        table.string('id').primary()
        table.string('part_id').notNullable().references('parts.id').onDelete('CASCADE')
        table.string('mark').notNullable()
        table.text('words').notNullable()
        table.string('released_at').notNullable()
        table.text('document').notNullable()
        table.text('sheets').notNullable()
        // In base64: all that is stored is text, which can be saved out of a damaged file.
        table.text('pdf').notNullable()
        table.unique(['part_id', 'mark'])
      })
    },
    async down(knex) {
      await knex.schema.dropTable('releases')
    },
  },
  {
    name: '004_title_blocks',
    async up(knex) {
      await knex.schema.createTable('title_blocks', (table) => {
        table.string('name').primary()
        table.text('document').notNullable()
        table.string('updated_at').notNullable()
      })
    },
    async down(knex) {
      await knex.schema.dropTable('title_blocks')
    },
  },
]

export const migrationSource: Knex.MigrationSource<(typeof MIGRATIONS)[number]> = {
  getMigrations: () => Promise.resolve([...MIGRATIONS]),
  getMigrationName: (migration) => migration.name,
  getMigration: (migration) => Promise.resolve(migration),
}
