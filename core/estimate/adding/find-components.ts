import { meterFacts } from '../../ratecard/meters'
import type { PriceLine, RateCard } from '../../ratecard/rate-card'
import { componentKinds } from '../components'
import type { ComponentKind } from '../components/kind'
import { stemsFor } from './trade-words'

/** How well a text is what someone is looking for; zero for not at all. */
type Score = number

const plain = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()
const singular = (text: string) =>
  text
    .split(' ')
    .map(word => (word.length > 3 && word.endsWith('s') && !word.endsWith('ss') ? word.slice(0, -1) : word))
    .join(' ')

/** A phrase that is the words, begins with them, has all of them, or has words that begin with them: the nearer the better. */
function phraseScore(phrase: string, wanted: string): Score {
  const [has, asked] = [singular(plain(phrase)), singular(plain(wanted))]
  if (has === asked) return 100
  if (has.startsWith(`${asked} `)) return 80
  const words = has.split(' ')
  const parts = asked.split(' ')
  if (parts.every(part => words.includes(part))) return 60
  if (has.startsWith(asked)) return 50
  if (parts.every(part => words.some(word => word.startsWith(part)))) return 40
  return asked.length > 2 && parts.every(part => has.includes(part)) ? 10 : 0
}

/** How well a kind of component is what someone is looking for. */
export function kindScore({ label, words }: ComponentKind, text: string): Score {
  return [label, ...words].reduce((best, phrase, at) => Math.max(best, phraseScore(phrase, text) - Math.min(at, 9) * 0.1), 0)
}

/** How well a line of a rate card is: a line that no kind has a form for comes before one that is a part of one. */
function lineScore(line: PriceLine, text: string, stems: readonly string[]): Score {
  const names = [line.service, `${line.service} ${line.variant ?? ''}`, line.meter.replaceAll('-', ' ')]
  const called = Math.max(...names.map(name => phraseScore(name, text)))
  const meant = stems.some(stem => plain(names.join(' ')).includes(plain(stem))) ? 95 : 0
  const exact = line.sku.toLowerCase() === text.trim().toLowerCase() ? 120 : 0
  const isPart = meterFacts(line.meter) !== undefined
  return Math.max(exact, isPart ? 0 : meant, called * (isPart ? 0.5 : 0.97))
}

/** Something that can be added: a kind of component, or a line of a rate card. */
export type FoundComponent = { score: Score } & ({ is: 'kind'; kind: ComponentKind } | { is: 'line'; line: PriceLine; card: RateCard })

const MOST_LINES = 8

/**
 * What can be added by plain words or the trade's, best match first; all kinds for no words.
 * @param places the cards and the region of each whose lines are looked at.
 */
export function findComponents(text: string, places: readonly { card: RateCard; region: string }[]): FoundComponent[] {
  if (!plain(text)) return componentKinds.map(kind => ({ is: 'kind', kind, score: 0 }))
  const stems = stemsFor(text)
  const kinds = componentKinds.map((kind): FoundComponent => ({ is: 'kind', kind, score: kindScore(kind, text) }))
  const lines = places
    .flatMap(({ card, region }) =>
      card.prices
        .filter(line => line.region === region && line.meter !== 'support-share')
        .map((line): FoundComponent => ({ is: 'line', line, card, score: lineScore(line, text, stems) })),
    )
    .filter(found => found.score > 0)
    .sort((a, b) => b.score - a.score)
    .slice(0, MOST_LINES)
  return [...kinds, ...lines].filter(found => found.score > 0).sort((a, b) => b.score - a.score)
}

/** Kinds found by plain words, best first; all of them for no words. */
export function searchKinds(text: string): ComponentKind[] {
  return findComponents(text, []).flatMap(found => (found.is === 'kind' ? [found.kind] : []))
}
