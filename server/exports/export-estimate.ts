import { makeDocument, type EstimateDocument } from '../../core/estimate/document'
import type { Estimate } from '../../core/estimate/estimate'
import type { Prices } from '../../core/estimate/price-estimate'
import type { ExportFormat } from '../../shared/contracts/estimates'
import type { Db } from '../db/client'
import { Problem } from '../http/problem'
import type { Services } from '../services'
import { mustFindEstimate } from '../stores/estimates'
import { findRateCard } from '../stores/rate-cards'
import { listUplifts } from '../stores/reusable'

const types: Record<ExportFormat, string> = { csv: 'text/csv; charset=utf-8', xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', pdf: 'application/pdf' }

/** The cards and own charges that an estimate is priced with. @throws Problem when a card is not loaded. */
export async function pricesFor(db: Db, estimate: Estimate): Promise<Prices> {
  const cards = new Map<string, NonNullable<Awaited<ReturnType<typeof findRateCard>>>>()
  for (const { provider, date } of estimate.cards) {
    const card = await findRateCard(db, provider, date)
    if (!card) throw new Problem(409, 'no-rate-card', 'A rate card is missing', `The rate card of ${provider} from ${date} is not loaded. Drop it under Sources.`)
    cards.set(provider, card)
  }
  return { cards, uplifts: await listUplifts(db) }
}

/** A version with everything that prices it. */
async function versionOf(db: Db, id: string, version: number, who: string) {
  const { estimate } = await mustFindEstimate(db, id, version)
  return { estimate, prices: await pricesFor(db, estimate), facts: { version, preparedOn: new Date().toISOString().slice(0, 10), preparedBy: who } }
}

/** A version as it leaves the house. */
export async function documentOf(db: Db, id: string, version: number, audience: EstimateDocument['audience'], who: string): Promise<EstimateDocument> {
  const { estimate, prices, facts } = await versionOf(db, id, version, who)
  return makeDocument(estimate, prices, audience, facts)
}

/** A version as a file. */
export async function exportEstimate({ database, exporter }: Pick<Services, 'database' | 'exporter'>, id: string, { format, audience, version }: { format: ExportFormat, audience: EstimateDocument['audience'], version: number }, who: string) {
  const priced = await versionOf(database.db, id, version, who)
  const bytes = await exporter.write({ format, audience, ...priced })
  const name = priced.estimate.name.normalize('NFKD').replace(/[^A-Za-z0-9]+/g, '-').replace(/^-|-$/g, '').toLowerCase() || 'estimate'
  return { bytes: Buffer.from(bytes), type: types[format], fileName: `${name}${audience === 'customer' ? '-customer' : ''}.${format}` }
}
