import { createHash } from 'node:crypto'
import { contentPolicy } from '../../shared/security-headers'

const inline = /<script(?![^>]*\bsrc=)([^>]*)>([\s\S]*?)<\/script>/g
/** Scripts that a browser runs; data stands in some too. */
const runs = (attributes: string) => !/\btype="application\/json"/.test(attributes)

/** Allows the scripts that stand in the frame of the page by their hashes, and says of no reply what made it. */
export default defineNitroPlugin(nitro => {
  nitro.hooks.hook('render:response', response => {
    const html = typeof response.body === 'string' ? response.body : ''
    const hashes = [...html.matchAll(inline)]
      .filter(([, attributes]) => runs(attributes!))
      .map(([, , script]) => `sha256-${createHash('sha256').update(script!).digest('base64')}`)
    response.headers = { ...response.headers, 'content-security-policy': contentPolicy(hashes) }
    delete response.headers['x-powered-by']
  })
})
