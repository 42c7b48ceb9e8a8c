import { behaviours, type CloudState } from './state'
import { escaped, page } from '../page'

/** A control of the page: a button, with what has to be said beside it. Its form's fields are what the state is told. */
const control = (to: string, label: string, fields: string) =>
  `<form method="post" action="${to}">${fields}<button>${escaped(label)}</button></form>`
const hidden = (name: string, value: string) => `<input type="hidden" name="${name}" value="${escaped(value)}">`
const typed = (name: string, label: string, value: string) =>
  `<label>${escaped(label)} <input name="${name}" value="${escaped(value)}"></label> `

/** The page by which a person plays the cloud: its clock, how its next answer goes wrong, what is locked, and who makes something. */
export function controlPage(state: CloudState): string {
  const done = [
    ...Object.entries(state.deletions).map(([id, { day }]) => `${id} deleted on ${day}`),
    ...Object.entries(state.changes).flatMap(([id, all]) => all.map(({ day, to }) => `${id} changed to «${to}» on ${day}`)),
    ...Object.entries(state.schedules).flatMap(([id, all]) => all.map(({ day }) => `${id} given its hours on ${day}`)),
    ...Object.entries(state.tags).flatMap(([id, all]) => all.map(({ day, key, value }) => `${id} tagged ${key} «${value}» on ${day}`)),
    ...state.made.map(({ name, by, at }) => `${name} made by ${by} at ${at}`),
  ]
  const failing = Object.entries(state.failing).filter(([, left]) => left > 0)
  return page(
    'The cloud that plays Brackwater',
    `<p>It is ${state.day}, ${String(state.hour).padStart(2, '0')}:00 there.</p>
<article><h2>Its clock</h2>${(['day', 'week', 'month'] as const).map(time => control('/control', `Next ${time}`, hidden('clock', `next-${time}`))).join('')}</article>
<article><h2>Its next answer</h2><p>${state.next ? `goes wrong: ${escaped(state.next)}` : 'comes as it should'}</p>
${behaviours.map(one => control('/control', `Let it ${one}`, hidden('next', one))).join('')}
${control('/control', 'As it should', hidden('next', ''))}</article>
<article><h2>Many at once</h2><p>${state.inARow ? `${state.inARow} in a row, then one is asked to wait` : 'as many as come'}</p>
${control('/control', 'Set', typed('inARow', 'changes in a row (0 for any)', String(state.inARow)))}</article>
<article><h2>Locked</h2><p>${state.locked.length ? escaped(state.locked.join(', ')) : 'nothing more than it always has'}</p>
${control('/control', 'Lock, or unlock', typed('lock', 'id of a resource', ''))}</article>
<article><h2>Failing</h2><p>${failing.length ? escaped(failing.map(([id, left]) => `${id}, ${left} more times`).join('; ')) : 'nothing'}</p>
${control('/control', 'Let it fail once more', typed('failing', 'id of a resource', ''))}</article>
<article><h2>Somebody makes something</h2>
${control('/control', 'Make a machine in the sandbox', typed('made', 'called', 'trial-new') + typed('by', 'by', 'jon.aske'))}</article>
<article><h2>What is missed</h2><p>${state.isMadeAgain ? 'One in three of what is deleted is made again, three to five days later.' : 'Nothing that is deleted is made again.'}</p>
${control('/control', state.isMadeAgain ? 'Let it be' : 'Let people make it again', hidden('again', state.isMadeAgain ? 'no' : 'yes'))}</article>
<article><h2>What was done</h2>${done.length ? done.map(one => `<p>${escaped(one)}</p>`).join('') : '<p>Nothing yet.</p>'}</article>`,
  )
}

/** What a form of the page asks of the state; null for what it does not have. @param asked a form's fields. */
export function controlled(state: CloudState, asked: URLSearchParams): Partial<CloudState> | null {
  const text = (name: string) => asked.get(name)?.trim() ?? null
  const next = text('next')
  if (next !== null) return { next: behaviours.find(one => one === next) ?? null }
  const inARow = text('inARow')
  if (inARow !== null && /^\d{1,4}$/.test(inARow)) return { inARow: Number(inARow), taken: 0 }
  const again = text('again')
  if (again) return { isMadeAgain: again === 'yes' }
  const lock = text('lock')
  if (lock) return { locked: state.locked.includes(lock) ? state.locked.filter(id => id !== lock) : [...state.locked, lock] }
  const failing = text('failing')
  if (failing) return { failing: { ...state.failing, [failing]: (state.failing[failing] ?? 0) + 1 } }
  const [name, by] = [text('made'), text('by')]
  if (name && by) {
    const at = `${state.day}T${String(state.hour).padStart(2, '0')}:00:00Z`
    return { made: [...state.made, { name, by, size: 'reed-2x4', at }] }
  }
  return null
}
