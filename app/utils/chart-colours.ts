/** The colours of the theme that is on, read from the tokens: charts draw on their own and cannot use variables. */
export function chartColours() {
  const style = getComputedStyle(document.documentElement)
  const token = (name: string) => style.getPropertyValue(`--${name}`).trim()
  return {
    hues: Array.from({ length: 8 }, (_, i) => token(`c${i + 1}`)),
    rest: token('rest'),
    line: token('line'),
    lineStrong: token('line-strong'),
    ink: token('ink'),
    ink2: token('ink-2'),
    ink3: token('ink-3'),
    paper: token('paper'),
    raised: token('paper-raised'),
    act: token('act'),
    sans: token('sans'),
    serif: token('serif'),
  }
}
