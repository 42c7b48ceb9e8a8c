import type { EstimateDocument } from '../../../core/estimate/documents/document-types'
import type { Estimate } from '../../../core/estimate/estimate'
import type { Prices } from '../../../core/estimate/pricing/price-estimate'
import { today } from '../../../shared/today'
import type { Exporter } from '../exporter'
import type { ExportFormat } from '../../../shared/contracts/estimates'
import type { Database, Db } from '../../db/database'
import type { RateCard } from '../../../core/ratecard/rate-card'
import { signedBy } from '../../people'
import { Problem, notFound } from '../../problems/problem'
import { mustFindEstimate } from '../../stores/estimates'
import { findRateCard } from '../../stores/rate-cards'
import { listRates } from '../../stores/rates'
import { listUplifts } from '../../stores/reusable'

const types: Record<ExportFormat, string> = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  pdf: 'application/pdf',
}

/** The cards, uplifts and exchange rates that an estimate is priced with. @throws Problem when a card is not loaded. */
async function pricesFor(db: Db, estimate: Estimate): Promise<Prices> {
  const cards = new Map<string, RateCard>()
  for (const { provider, date, revision } of estimate.cards) {
    const card = await findRateCard(db, provider, date, revision)
    if (!card)
      throw new Problem(
        'conflict',
        'no-rate-card',
        'A rate card is missing',
        `The rate card of ${provider} from ${date}${revision > 1 ? `, revision ${revision},` : ''} is not loaded. Drop it under Sources.`,
      )
    cards.set(provider, card)
  }
  return { cards, uplifts: await listUplifts(db), rates: await listRates(db) }
}

export type Asked = { audience: EstimateDocument['audience']; version: number; scenario: string | null }

/** A version with everything that prices it. @throws Problem when it has no such scenario. */
async function versionOf(db: Db, id: string, { version, scenario }: Asked, who: string) {
  const { estimate } = await mustFindEstimate(db, id, version)
  if (scenario !== null && !estimate.scenarios.some(s => s.id === scenario))
    throw notFound('scenario', `Version ${version} has no scenario «${scenario}».`)
  return { estimate, prices: await pricesFor(db, estimate), facts: { version, preparedOn: today(), preparedBy: signedBy(who), scenario } }
}

type Needed = { database: Database; exporter: Exporter }

/** A version as it leaves the house, as a link keeps it. */
export async function documentOf({ database, exporter }: Needed, id: string, asked: Asked, who: string): Promise<EstimateDocument> {
  const bytes = await exporter.write({ format: 'document', audience: asked.audience, ...(await versionOf(database.db, id, asked, who)) })
  return JSON.parse(new TextDecoder().decode(bytes)) as EstimateDocument
}

/** A version as a file. */
export async function exportEstimate(
  { database, exporter }: Needed,
  id: string,
  { format, ...asked }: Asked & { format: ExportFormat },
  who: string,
) {
  const priced = await versionOf(database.db, id, asked, who)
  const bytes = await exporter.write({ format, audience: asked.audience, ...priced })
  const name =
    priced.estimate.name
      .normalize('NFKD')
      .replace(/[^A-Za-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .toLowerCase() || 'estimate'
  return {
    bytes: Buffer.from(bytes),
    type: types[format],
    fileName: `${name}${asked.audience === 'customer' ? '-customer' : ''}.${format}`,
  }
}
