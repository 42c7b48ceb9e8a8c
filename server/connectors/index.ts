import { cloudConnector, type CloudConnector } from './cloud-connector'

/** Connections that are set up, by name. A cloud is connected by its address in the environment. */
export function connectors(): Record<string, CloudConnector> {
  const { BRACKWATER_URL } = process.env
  return { ...(BRACKWATER_URL && { brackwater: cloudConnector('Brackwater Cloud', BRACKWATER_URL.replace(/\/$/, '')) }) }
}
