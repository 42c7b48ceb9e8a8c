import { disk } from './disk'
import { internetTransfer } from './internet-transfer'
import type { ComponentKind } from './kind'
import { objectStorage } from './object-storage'
import { server } from './server'

/** Every kind of component, in the order in which they are offered. */
export const componentKinds: readonly ComponentKind[] = [server, disk, objectStorage, internetTransfer]

export function findKind(kind: string): ComponentKind | undefined {
  return componentKinds.find(k => k.kind === kind)
}

/** Kinds found by plain words, best first; all of them for no words. */
export function searchKinds(text: string): ComponentKind[] {
  const words = text.trim().toLowerCase().split(/\s+/).filter(Boolean)
  if (!words.length) return [...componentKinds]
  const score = ({ label, words: known }: ComponentKind) => {
    const all = [label.toLowerCase(), ...known]
    return words.every(word => all.some(k => k.includes(word))) ? (all.some(k => k.startsWith(words.join(' '))) ? 2 : 1) : 0
  }
  return componentKinds.map(kind => ({ kind, score: score(kind) })).filter(f => f.score > 0).sort((a, b) => b.score - a.score).map(f => f.kind)
}
