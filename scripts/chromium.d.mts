export function chromiumPath(): string
export function installChromium(): void
