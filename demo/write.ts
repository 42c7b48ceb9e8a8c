// Writes the demo's files into a folder: charges of every source and month, rate cards, estimates, patterns, own charges, cost centres with rules, people.
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { demoDeliveries } from './deliveries'
import { demoEstimates } from './estimates'
import { writeFocusFile } from './focus-file'
import { allocationPlan, people } from './organisation'
import { brackwaterCard, larkfieldCard, pierHouseCard } from './rate-cards'
import { demoPatterns, demoUplifts } from './reusable'

const folder = process.argv[2] ?? '.data/demo-files'
mkdirSync(folder, { recursive: true })
const json = (name: string, value: unknown) => writeFileSync(join(folder, name), JSON.stringify(value, null, 1) + '\n')
json('rate-card-brackwater.json', brackwaterCard)
json('rate-card-larkfield.json', larkfieldCard)
json('rate-card-pier-house.json', pierHouseCard)
json('patterns.json', demoPatterns)
json('own-charges.json', demoUplifts)
json('estimates.json', demoEstimates)
json('cost-centres.json', { people, plan: allocationPlan })
let rows = 0
const listed: { source: string, file: string, month: string, rows: number }[] = []
for (const { source, file, month, charges } of demoDeliveries()) {
  const count = await writeFocusFile(join(folder, file), charges())
  rows += count
  listed.push({ source, file, month, rows: count })
}
json('deliveries.json', listed)
console.log(`${listed.length} files with ${rows} charges in ${folder}`)
