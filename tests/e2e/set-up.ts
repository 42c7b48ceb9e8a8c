import { existsSync, mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { accountTree, exchangeRates, foreignBill } from '../../demo/beside-the-bill'
import { writeFocusFile } from '../../demo/focus-file'
import { allocationPlan, people } from '../../demo/organisation'
import { brackwaterCard, larkfieldCard, pierHouseCard } from '../../demo/rate-cards'
import { billsOf, FILES, loadBills } from './site'

/** Writes the demo's files of September to November, as a person has them in a folder, and makes the site that most tests begin with. */
export default async function setUp() {
  mkdirSync(FILES, { recursive: true })
  for (const { file, charges } of billsOf(['2026-09', '2026-10', '2026-11'])) {
    if (!existsSync(join(FILES, file))) await writeFocusFile(join(FILES, file), charges())
  }
  writeFileSync(join(FILES, 'rate-card-brackwater.json'), JSON.stringify(brackwaterCard))
  writeFileSync(join(FILES, 'rate-card-larkfield.json'), JSON.stringify(larkfieldCard))
  writeFileSync(join(FILES, 'rate-card-pier-house.json'), JSON.stringify(pierHouseCard))
  writeFileSync(join(FILES, 'quayside-net-2026-10.csv'), foreignBill())
  writeFileSync(join(FILES, 'exchange-rates.csv'), exchangeRates())
  writeFileSync(join(FILES, 'account-tree.json'), JSON.stringify(accountTree))
  writeFileSync(join(FILES, 'cost-centres.json'), JSON.stringify({ people, plan: allocationPlan }))
  await loadBills()
}
