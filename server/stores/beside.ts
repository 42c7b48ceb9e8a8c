import type { Session } from '../db/database'

/** What is known beside the charges, as JSON texts: whoever needs it reads them in a thread of their own. */
export type Beside = {
  /** Aliases, the account tree, inherited tags, own words for SKUs; null before anyone has said anything. */
  reference: string | null
  /** Exchange rates: a list, newest first. */
  rates: string
  /** The newest rate card of each provider. */
  cards: string[]
  /** The newest plan of cost centres; null before there is one. */
  plan: string | null
  /** The lookups that count. */
  lookups: { name: string; text: string }[]
}

const newestCards = 'select distinct on (provider) body::text from rate_card order by provider, valid_from desc, revision desc'
const newestLookups =
  'select name, body::text from (select distinct on (name) name, body from lookup_version order by name, version desc) as newest where body is not null'

export async function readBeside(database: Session): Promise<Beside> {
  const [[reference], rates, cards, [plan], lookups] = await Promise.all([
    database.query('select body::text from spend_reference where id = 1'),
    ratesText(database),
    database.query(newestCards),
    database.query('select body::text from allocation_version order by version desc limit 1'),
    database.query(newestLookups),
  ])
  return {
    reference: (reference?.[0] as string | undefined) ?? null,
    rates,
    cards: cards.map(([text]) => text as string),
    plan: (plan?.[0] as string | undefined) ?? null,
    lookups: lookups.map(([name, text]) => ({ name: name as string, text: text as string })),
  }
}

/** All exchange rates as the JSON text of a list, newest first, with who brought them. */
export async function ratesText(database: Session): Promise<string> {
  const rate = `json_build_object('from', "from", 'to', "to", 'validFrom', valid_from, 'rate', trim_scale(rate)::text, 'who', coalesce((select p.name from person p where p.id = who), who), 'loadedAt', loaded_at::text)`
  const [row] = await database.query(
    `select coalesce(json_agg(${rate} order by valid_from desc, "from", "to"), '[]'::json)::text from exchange_rate`,
  )
  return row![0] as string
}
