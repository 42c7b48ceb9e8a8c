import type { ValueRef } from '../stores/spend'
import { useSpendActions } from './useSpendActions'
import { useKeys } from '../stores/keys'
import { useSpend } from '../stores/spend'

/** Keys that act on a value while it has the focus: keep, leave out, split, Workings; the menu by its key or right click. */
export function useValueKeys() {
  const spend = useSpend()
  const keys = useKeys()
  const actions = useSpendActions()

  function openMenu(target: ValueRef, element: Element, splitting = false) {
    spend.menu = { target, at: element.getBoundingClientRect(), splitting }
  }

  function onKey(event: KeyboardEvent, target: ValueRef) {
    if (event.ctrlKey || event.metaKey || event.altKey) return
    const element = event.currentTarget as Element
    if (event.key === 'ContextMenu') openMenu(target, element)
    else if (!keys.enabled) return
    else if (event.key === 'k') actions.keep(target)
    else if (event.key === 'l') actions.leaveOut(target)
    else if (event.key === 's') openMenu(target, element, true)
    else if (event.key === 'o') actions.open(target)
    else if (event.key === 'w') void spend.openWorkings(target)
    else return
    event.preventDefault()
  }

  return { openMenu, onKey }
}
