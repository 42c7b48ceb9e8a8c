/** Whether one text becomes the other by one letter put in, taken out, exchanged, or two neighbours swapped; equal ones too. */
export function oneSlip(a: string, b: string): boolean {
  if (a === b) return true
  if (Math.abs(a.length - b.length) > 1) return false
  let start = 0
  while (start < a.length && a[start] === b[start]) start++
  const rest = (text: string, from: number) => text.slice(from)
  return (
    rest(a, start + 1) === rest(b, start + 1) ||
    rest(a, start + 1) === rest(b, start) ||
    rest(a, start) === rest(b, start + 1) ||
    (a[start] === b[start + 1] && a[start + 1] === b[start] && rest(a, start + 2) === rest(b, start + 2))
  )
}
