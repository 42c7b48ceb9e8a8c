// Writes the JSON Schemas of the product's own file formats: `npx tsx scripts/write-schemas.ts`. A test holds them against the code.
import { writeFileSync } from 'node:fs'
import { formatSchemas } from './format-schemas'

for (const [name, schema] of Object.entries(formatSchemas()))
  writeFileSync(`docs/formats/${name}.schema.json`, JSON.stringify(schema, null, 2) + '\n')
