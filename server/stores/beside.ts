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
  /** The plans of closed months that another one than the newest holds for, by month. */
  closed: Record<string, string>
  /** The lookups that count. */
  lookups: { name: string; text: string }[]
  /** Business measures that pools go by, by month and cost centre: a list. */
  measures: string
  /** The organisation's uplifts: a list. */
  uplifts: string
}

const newestCards = 'select distinct on (provider) body::text from rate_card order by provider, valid_from desc, revision desc'
const newestLookups =
  'select name, body::text from (select distinct on (name) name, body from lookup_version order by name, version desc) as newest where body is not null'

const closedPlans =
  'select month, body::text from closed_month join allocation_version v on v.version = settled_version where settled_version < (select max(version) from allocation_version)'

/** Measures that a version of the plan divides a pool by: others have no part in any settlement. */
const usedMeasures = `select m.* from business_measure m where m.name in (
    select pool #>> '{}' from allocation_version v, jsonb_path_query(v.body, '$.**.pools[*] ? (@.method == "measure").measure') as pool)`
const measureMonths = `select json_agg(json_build_object('name', m.name, 'unit', m.unit, 'grain', m.grain, 'tree', m.tree, 'months', (
    select coalesce(json_object_agg(month, counted), '{}'::json) from (
      select month, json_object_agg(centre, json_build_object('sum', trim_scale(total)::text, 'told', told) order by centre) as counted from (
        select substr(v.date, 1, 7) as month, v.centre, sum(v.value) as total, count(*) as told
        from measure_value v where v.measure = m.name group by 1, 2
      ) as sums group by month order by month) as months)
  ) order by m.name)::text as said from (${usedMeasures}) as m`

const upliftSets = `select json_agg(body::jsonb || jsonb_build_object(
    'who', coalesce((select p.name from person p where p.id = who), who), 'setAt', set_at::text) order by id)::text
  from uplift_set`

export async function readBeside(database: Session): Promise<Beside> {
  const [[reference], rates, cards, [plan], lookups, closed, [measures], [uplifts]] = await Promise.all([
    database.query('select body::text from spend_reference where id = 1'),
    ratesText(database),
    database.query(newestCards),
    database.query('select body::text from allocation_version order by version desc limit 1'),
    database.query(newestLookups),
    database.query(closedPlans),
    database.query(measureMonths),
    database.query(upliftSets),
  ])
  return {
    reference: (reference?.[0] as string | undefined) ?? null,
    rates,
    cards: cards.map(([text]) => text as string),
    plan: (plan?.[0] as string | undefined) ?? null,
    closed: Object.fromEntries(closed) as Record<string, string>,
    lookups: lookups.map(([name, text]) => ({ name: name as string, text: text as string })),
    measures: (measures?.[0] as string | null | undefined) ?? '[]',
    uplifts: (uplifts?.[0] as string | null | undefined) ?? '[]',
  }
}

/**
 * Hashes by which it is told whether a month would be settled alike: `beside` of what rules look at beside the charges (aliases, account
 * tree, inherited tags, lookups, business measures that pools go by), `basis` of that with the rates, the uplifts, and the cards that say
 * what these are on.
 */
export async function besideHashes(database: Session): Promise<{ beside: string; basis: string }> {
  const lookups = newestLookups.replace('body::text', 'body')
  const [row] = await database.query(`
    with known as (select coalesce((select body::text from spend_reference where id = 1), '')
        || coalesce((select jsonb_object_agg(name, body)::text from (${lookups}) as counting), '')
        || coalesce((${measureMonths}), '') as said),
      cards as (select json_agg(json_build_array(provider, valid_from, revision) order by provider, valid_from, revision)::text as said
        from rate_card),
      uplifts as (select coalesce((${upliftSets}), '') || coalesce(cards.said, '') as said from cards),
      rates as (select coalesce(json_agg(json_build_array("from", "to", valid_from, rate) order by valid_from, "from", "to"), '[]'::json)::text as said
        from exchange_rate)
    select md5(known.said), md5(known.said || rates.said || uplifts.said) from known, rates, uplifts`)
  const [beside, basis] = row as [string, string]
  return { beside, basis }
}

/** All exchange rates as the JSON text of a list, newest first, with who brought them. */
export async function ratesText(database: Session): Promise<string> {
  const rate = `json_build_object('from', "from", 'to', "to", 'validFrom', valid_from, 'rate', trim_scale(rate)::text, 'who', coalesce((select p.name from person p where p.id = who), who), 'loadedAt', loaded_at::text)`
  const [row] = await database.query(
    `select coalesce(json_agg(${rate} order by valid_from desc, "from", "to"), '[]'::json)::text from exchange_rate`,
  )
  return row![0] as string
}
