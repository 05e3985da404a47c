import figtree from '@fontsource-variable/figtree/files/figtree-latin-wght-normal.woff2?url'
import fraunces from '@fontsource-variable/fraunces/files/fraunces-latin-wght-normal.woff2?url'
import fira from '@fontsource/fira-mono/files/fira-mono-latin-500-normal.woff2?url'

const FONTS = [
  { family: 'Figtree Variable', weight: '300 900', url: figtree },
  { family: 'Fraunces Variable', weight: '100 900', url: fraunces },
  { family: 'Fira Mono', weight: '500', url: fira },
]

let made: Promise<string> | undefined

/** The fonts of the paper as rules that hold them, for files that must stand alone. */
export const fontCss = (): Promise<string> =>
  (made ??= Promise.all(FONTS.map(rule)).then((rules) => rules.join('')))

async function rule({ family, weight, url }: (typeof FONTS)[number]): Promise<string> {
  const bytes = new Uint8Array(await (await fetch(url)).arrayBuffer())
  let binary = ''
  for (const b of bytes) binary += String.fromCharCode(b)
  return `@font-face{font-family:'${family}';font-weight:${weight};src:url(data:font/woff2;base64,${btoa(binary)}) format('woff2')}`
}
