import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { demoDeliveries } from '../demo/deliveries'
import { writeFocusFile, type FileCharge } from '../demo/focus-file'

export type BenchDelivery = { source: string; month: string; files: { name: string; rows: number }[] }

/** The demo company several times over: the same charges with other resources, a file for each copy. */
export async function writeBenchFiles(folder: string, copies: number): Promise<BenchDelivery[]> {
  const list = join(folder, 'deliveries.json')
  if (existsSync(list)) return JSON.parse(readFileSync(list, 'utf8')) as BenchDelivery[]
  mkdirSync(folder, { recursive: true })
  const found: BenchDelivery[] = []
  for (const { source, month, file, charges } of demoDeliveries()) {
    const delivery: BenchDelivery = { source, month, files: [] }
    const own = [...charges()]
    for (let copy = 0; copy < copies; copy++) {
      const name = `${copy}-${file}`
      delivery.files.push({ name, rows: await writeFocusFile(join(folder, name), copyOf(own, copy)) })
    }
    found.push(delivery)
  }
  writeFileSync(list, JSON.stringify(found))
  return found
}

function* copyOf(charges: FileCharge[], copy: number): Generator<FileCharge> {
  for (const charge of charges) {
    if (!copy || !charge.ResourceId) yield charge
    else yield { ...charge, ResourceId: `${charge.ResourceId}-${copy}`, ResourceName: `${charge.ResourceName}-${copy}` }
  }
}
