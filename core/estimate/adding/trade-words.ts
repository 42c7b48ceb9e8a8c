/**
 * Words of the trade for things that only a rate card's own lines price: each with the stems by which such lines name their service or
 * meter. (Common practice, no source.)
 */
const tradeWords: { words: readonly string[]; stems: readonly string[] }[] = [
  { words: ['cache', 'caching', 'in-memory store'], stems: ['cache', 'memory store'] },
  { words: ['queue', 'queues', 'message queue', 'messaging', 'messages'], stems: ['queue', 'messag'] },
  { words: ['vpn', 'virtual private network', 'site-to-site', 'tunnel'], stems: ['vpn', 'tunnel'] },
  { words: ['firewall', 'packet filter', 'web firewall'], stems: ['firewall'] },
  { words: ['dns', 'domain', 'domain names', 'name server', 'name service'], stems: ['dns', 'name service', 'domain'] },
  { words: ['ip', 'ip address', 'public ip', 'static ip', 'address', 'addresses'], stems: ['address'] },
  { words: ['kubernetes', 'k8s', 'container cluster', 'cluster', 'containers'], stems: ['cluster', 'kubernetes', 'container'] },
  { words: ['gpu', 'gpus', 'graphics', 'graphics card', 'accelerator'], stems: ['gpu', 'graphics', 'accelerat'] },
  { words: ['certificate', 'certificates', 'tls', 'ssl'], stems: ['certificate'] },
  { words: ['key', 'keys', 'key management', 'secrets', 'encryption keys'], stems: ['key'] },
  { words: ['cdn', 'content delivery', 'edge delivery'], stems: ['delivery'] },
  { words: ['warehouse', 'data warehouse', 'analytics', 'query'], stems: ['warehouse', 'analytics'] },
  { words: ['search', 'full-text search', 'text search', 'search engine'], stems: ['text search', 'search-node'] },
]

/** Stems that a rate card line may have for what someone is looking for. */
export function stemsFor(text: string): readonly string[] {
  const wanted = text.trim().toLowerCase()
  const exact = tradeWords.find(({ words }) => words.includes(wanted))
  return (exact ?? tradeWords.find(({ words }) => wanted.length > 2 && words.some(word => word.startsWith(wanted))))?.stems ?? []
}
