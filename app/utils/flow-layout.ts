import { whole } from './format'

/** One band of a flow picture, in pixels: from the right edge of a node to the left edge of another. */
export type FlowBand = { key: string; path: string; tone: string; title: string }
export type FlowNode = { key: string; label: string; x: number; y: number; height: number; amount: number; tone: string }
type Link = { from: string; to: string; amount: number; tone: string }
type Column = { x: number; nodes: { key: string; label: string; tone: string }[] }

const GAP = 9
const NODE_WIDTH = 10

/**
 * Places nodes in columns and bands between them, widths in proportion to money. What flows through a node leaves it with the same
 * width that it came in with. Links that are not above zero are left away.
 */
export function flowLayout(columns: Column[], links: Link[], height: number): { nodes: FlowNode[]; bands: FlowBand[] } {
  const real = links.filter(link => link.amount > 0)
  const through = (key: string) =>
    Math.max(
      real.filter(l => l.from === key).reduce((n, l) => n + l.amount, 0),
      real.filter(l => l.to === key).reduce((n, l) => n + l.amount, 0),
    )
  const used = columns.map(column => ({ ...column, nodes: column.nodes.filter(node => through(node.key) > 0) }))
  const scale = Math.min(
    ...used.map(
      ({ nodes }) =>
        (height - GAP * Math.max(0, nodes.length - 1)) /
        Math.max(
          1,
          nodes.reduce((n, node) => n + through(node.key), 0),
        ),
    ),
  )
  const nodes: FlowNode[] = used.flatMap(({ x, nodes: list }) => {
    let y = 0
    return list.map(({ key, label, tone }) => {
      const node = { key, label, tone, x, y, height: Math.max(1, through(key) * scale), amount: through(key) }
      y += node.height + GAP
      return node
    })
  })
  const at = new Map(nodes.map(node => [node.key, node]))
  const out = new Map<string, number>()
  const into = new Map<string, number>()
  const order = (key: string) => nodes.findIndex(node => node.key === key)
  const bands = [...real]
    .sort((a, b) => order(a.from) - order(b.from) || order(a.to) - order(b.to))
    .flatMap((link): FlowBand[] => {
      const from = at.get(link.from)
      const to = at.get(link.to)
      if (!from || !to) return []
      const width = link.amount * scale
      const y1 = from.y + (out.get(link.from) ?? 0)
      const y2 = to.y + (into.get(link.to) ?? 0)
      out.set(link.from, (out.get(link.from) ?? 0) + width)
      into.set(link.to, (into.get(link.to) ?? 0) + width)
      const x1 = from.x + NODE_WIDTH
      const middle = (x1 + to.x) / 2
      return [
        {
          key: `${link.from}>${link.to}`,
          tone: link.tone,
          title: `${from.label} to ${to.label}: ${whole(link.amount.toFixed(6))}`,
          path: `M${x1},${y1} C${middle},${y1} ${middle},${y2} ${to.x},${y2} L${to.x},${y2 + width} C${middle},${y2 + width} ${middle},${y1 + width} ${x1},${y1 + width}Z`,
        },
      ]
    })
  return { nodes, bands }
}
