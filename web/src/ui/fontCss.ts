import figtree from '@fontsource-variable/figtree/files/figtree-latin-wght-normal.woff2?url'
import fraunces from '@fontsource-variable/fraunces/files/fraunces-latin-wght-normal.woff2?url'
import bravura from '@vexflow-fonts/bravura/bravura.woff2?url'
import fira from '@fontsource/fira-mono/files/fira-mono-latin-500-normal.woff2?url'

const FONTS = [
  { family: 'Figtree Variable', weight: '300 900', url: figtree },
  { family: 'Fraunces Variable', weight: '100 900', url: fraunces },
  { family: 'Fira Mono', weight: '500', url: fira },
]

const MUSIC = { family: 'Bravura', weight: '400', url: bravura }

let made: Promise<string> | undefined

/** The fonts of the paper as rules that hold them, for files that must stand alone. */
export const fontCss = (): Promise<string> =>
  (made ??= Promise.all(FONTS.map(rule)).then((rules) => rules.join('')))

/** The same for notes on staves. */
export const musicFontCss = (): Promise<string> => rule(MUSIC)

async function rule({ family, weight, url }: (typeof FONTS)[number]): Promise<string> {
  const bytes = new Uint8Array(await (await fetch(url)).arrayBuffer())
  let binary = ''
  for (const b of bytes) binary += String.fromCharCode(b)
  return `@font-face{font-family:'${family}';font-weight:${weight};src:url(data:font/woff2;base64,${btoa(binary)}) format('woff2')}`
}
