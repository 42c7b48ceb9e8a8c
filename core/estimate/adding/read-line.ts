import { findSize } from '../../ratecard/find-price'
import { componentKinds } from '../components'
import type { ChoiceField, Field, HoursField, NumberField } from '../components/field'
import { usualInputs, type ComponentKind, type Inputs, type Place } from '../components/kind'
import { waysToPay } from '../estimate'
import { inputText } from '../sheet/input-text'
import { keptText, readTyped } from '../sheet/typed-text'
import { kindScore } from './find-components'
import { sizesLike, type SizeWanted } from './find-size'
import { Decimal } from '../../money/decimal'

/** A line that someone typed, as a row: its kind, the inputs that it gives, what was understood in words, and what was not. */
export type ReadLine = { kind: ComponentKind; inputs: Inputs; understood: string[]; unknown: string[] }

const NUMBER = String.raw`\d+(?:[.,]\d+)*`
const UNIT = String.raw`[kKMGTP]?B(?:\/s)?|[kmgtp]b(?:\/s)?|ms|s|sec|min|h|hours?|%|IOPS|iops`
const SCALE = String.raw`k|K|M|million|bn|billion|thousand`
const patterns = {
  schedule: new RegExp(
    String.raw`\b\d(?:\.\d+)?\s*d(?:ays?)?\s*[x×*]\s*\d+(?:\.\d+)?\s*h(?:ours?)?\b|\balways on\b|\b24\s*[/x×]\s*7\b`,
    'i',
  ),
  vcpu: new RegExp(String.raw`\b(\d+(?:\.\d+)?)\s*v?(?:cpus?|cores?)\b(?:\s*,?\s*(\d+(?:\.\d+)?)\s*gb\b)?`, 'i'),
  shape: new RegExp(String.raw`\b(\d+)\s*[x×]\s*(\d+)\b`),
  times: new RegExp(String.raw`(?:^|\s)[x×]\s*(\d+)\b|\b(\d+)\s*[x×](?=\s|$|\d)`),
  quantity: new RegExp(String.raw`(?<![\w.])(${NUMBER})\s*(?:(${SCALE})(?=\s|$)\s*)?(?:(${UNIT})(?=[\s,;]|$))?`),
}
/** Words that say nothing by themselves. */
const small = new Set(['of', 'with', 'and', 'a', 'an', 'the', 'each', 'in', 'per', 'for', 'month', 'to', 'plus', 'at'])
/** Short words for things, beside those by which kinds are found. */
const shortWords: Record<string, string> = { out: 'outgoing traffic', obj: 'object storage' }

type Left = { text: string }
/** Takes what a pattern finds out of the text. */
function take(left: Left, pattern: RegExp): RegExpExecArray | null {
  const found = pattern.exec(left.text)
  if (found) left.text = `${left.text.slice(0, found.index)} ${left.text.slice(found.index + found[0].length)}`
  return found
}

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
const wordsOf = (text: string) =>
  text
    .toLowerCase()
    .split(/[^\p{L}\p{N}/%-]+/u)
    .filter(word => word && !small.has(word))
/** Fields of kinds that words may name, such as reads or alarms. */
const isNamed = (field: Field, word: string) => {
  const one = word.replace(/s$/, '')
  return (
    one.length > 2 &&
    `${field.label} ${field.name}`
      .toLowerCase()
      .split(/[^a-z]+/)
      .some(known => known.replace(/s$/, '') === one)
  )
}

/** The kind that the words name best, and the words that it took; a word may also name one of its fields. */
function kindOf(words: string[], hasSize: boolean): { kind: ComponentKind; left: string[] } | null {
  const spoken = words.map(word => shortWords[word] ?? word)
  const runs = spoken
    .flatMap((_, from) => spoken.map((__, length) => ({ from, length: length + 1 })))
    .filter(({ from, length }) => from + length <= spoken.length)
  const best = runs
    .flatMap(({ from, length }) =>
      componentKinds.map(kind => ({
        kind,
        from,
        length,
        score: kindScore(kind, spoken.slice(from, from + length).join(' ')) + length * 2,
      })),
    )
    .filter(({ score }) => score >= 42)
    .sort((a, b) => b.score - a.score || a.from - b.from)[0]
  if (best) return { kind: best.kind, left: words.filter((_, at) => at < best.from || at >= best.from + best.length) }
  return hasSize ? { kind: componentKinds[0]!, left: words } : null
}

/**
 * Reads a line such as `2 servers 4 vCPU 16 GB`, `100 GB disk x 2`, `2 TB out`, `database 4x16 200 GB` or `500 GB objects 1 M reads`.
 * @param place whose sizes and choices it may name.
 * @returns null for a line without a number or without a kind: plain words are looked up, not read.
 */
export function readLine(text: string, place: Place): ReadLine | null {
  if (!/\d/.test(text)) return null
  const asSize = readNumbers(text, place, true)
  return asSize && asSize.said.wanted && !sizeFieldOf(asSize.named.kind, place)
    ? assigned(readNumbers(text, place, false), place)
    : assigned(asSize, place)
}

const assigned = (read: ReturnType<typeof readNumbers>, place: Place) => read && assign(read.named, read.said, place)

/**
 * Tells the numbers of a line from its words.
 * @param shapes whether `4 x 16` is the vCPU and memory of a size: for what has no size it is four of sixteen.
 */
function readNumbers(text: string, place: Place, shapes: boolean): { named: NonNullable<ReturnType<typeof kindOf>>; said: Said } | null {
  const left: Left = { text: text.trim() }
  const size = place.card.serverSizes
    .map(s => s.size)
    .sort((a, b) => b.length - a.length)
    .find(name => new RegExp(`(^|[\\s,;])${escaped(name)}($|[\\s,;])`, 'i').test(left.text))
  if (size) take(left, new RegExp(escaped(size), 'i'))
  const way = waysToPay.find(name => name !== 'on-demand' && left.text.toLowerCase().includes(name)) ?? null
  if (way) take(left, new RegExp(escaped(way), 'i'))
  const schedule = take(left, patterns.schedule)?.[0] ?? null
  const vcpu = take(left, patterns.vcpu)
  const shape = vcpu || size || !shapes ? null : take(left, patterns.shape)
  const wanted: SizeWanted | null = vcpu
    ? { vcpu: new Decimal(vcpu[1]!), memoryGb: vcpu[2] ? new Decimal(vcpu[2]) : null }
    : shape
      ? { vcpu: new Decimal(shape[1]!), memoryGb: new Decimal(shape[2]!) }
      : null
  const times = take(left, patterns.times)
  const quantities: { text: string; unit: boolean; next: string }[] = []
  for (let found = take(left, patterns.quantity); found; found = take(left, patterns.quantity)) {
    quantities.push({ text: found[0].trim(), unit: found[3] !== undefined, next: wordsOf(left.text.slice(found.index))[0] ?? '' })
  }
  const named = kindOf(wordsOf(left.text), wanted !== null || size !== undefined)
  if (!named) return null
  return { named, said: { size: size ?? null, wanted, way, schedule, times: times ? (times[1] ?? times[2]!) : null, quantities } }
}

type Said = {
  size: string | null
  wanted: SizeWanted | null
  way: string | null
  schedule: string | null
  times: string | null
  quantities: { text: string; unit: boolean; next: string }[]
}

/** The choice of a kind that names sizes of servers. */
const sizeFieldOf = (kind: ComponentKind, place: Place) =>
  kind.fields.find(
    (f): f is ChoiceField =>
      f.type === 'choice' &&
      f.column === 'size' &&
      f.meter !== undefined &&
      f.options(place.card, place.region).some(option => findSize(place.card, option)),
  )

function assign({ kind, left }: { kind: ComponentKind; left: string[] }, said: Said, place: Place): ReadLine {
  const inputs: Inputs = {}
  const unknown: string[] = []
  const rest = [...left]
  const at = <F extends Field>(column: string) => kind.fields.find((f): f is F => f.column === column)
  const sizeField = sizeFieldOf(kind, place)
  const put = (field: Field | undefined, text: string, options: readonly string[] | null = null) => {
    const read = field && inputs[field.name] === undefined ? readTyped(field, text, options) : null
    if (field && read && 'value' in read) inputs[field.name] = keptText(field, text, options)
    else unknown.push(text)
  }
  if (said.size) put(sizeField, said.size)
  if (said.wanted) {
    const found = sizeField
      ? sizesLike(said.wanted, sizeField.options(place.card, place.region), place.card, place.region, sizeField.meter!)[0]
      : undefined
    if (found) put(sizeField, found)
    else
      unknown.push(
        [said.wanted.vcpu && `${said.wanted.vcpu.toFixed()} vCPU`, said.wanted.memoryGb && `${said.wanted.memoryGb.toFixed()} GB`]
          .filter(Boolean)
          .join(' '),
      )
  }
  if (said.way) put(at('pays'), said.way)
  if (said.schedule) put(at<HoursField>('runs'), said.schedule)
  if (said.times) put(at('count'), said.times)
  for (const { text, unit, next } of said.quantities) {
    const field = kind.fields.find(
      (f): f is NumberField =>
        f.type === 'number' && next !== '' && rest.includes(next) && isNamed(f, next) && inputs[f.name] === undefined,
    )
    if (field) {
      put(field, text)
      const taken = rest.indexOf(next)
      if (taken >= 0) rest.splice(taken, 1)
    } else if (/h(ours?)?$|%$/.test(text) && at('runs')) put(at('runs'), text)
    else if (unit || !at<NumberField>('count') || inputs[at('count')!.name] !== undefined)
      put(at('amount') ?? kind.fields.find(f => f.type === 'number' && f.unit), text)
    else put(at('count'), text)
  }
  const isSaid = (word: string) => kind.fields.some(field => inputs[field.name] !== undefined && isNamed(field, word))
  for (const word of rest.filter(one => !isSaid(one))) {
    const choice = kind.fields.find(
      (f): f is ChoiceField =>
        f.type === 'choice' &&
        inputs[f.name] === undefined &&
        f.options(place.card, place.region).some(option => option.toLowerCase() === word),
    )
    if (choice) put(choice, word, choice.options(place.card, place.region))
    else unknown.push(word)
  }
  const complete = usualInputs(kind, place.card, place.region, inputs)
  const understood = kind.fields.flatMap(field =>
    inputs[field.name] === undefined
      ? []
      : [field.type === 'choice' ? sizeWords(complete[field.name]!, place) : `${field.label} ${inputText(field, inputs[field.name]!)}`],
  )
  return { kind, inputs, understood, unknown }
}

function sizeWords(value: string, { card }: Place): string {
  const size = findSize(card, value)
  return size ? [value, `${size.vcpu} vCPU`, `${size.memoryGb} GB`, size.architecture].filter(Boolean).join(', ') : value
}
