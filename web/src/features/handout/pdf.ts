import { escaped, paperCss, printCss, type HandoutDoc } from '@velvet-porch/core/output/handout'
import { download } from '../../ui/saveAs.ts'
import { fontCss, musicFontCss } from '../../ui/fontCss.ts'

/**
 * Has the server print pages as PDF and hands it to the browser as a download.
 * @throws Error in words that say what to do instead
 */
export async function savePdf(title: string, handout: HandoutDoc, pages: readonly string[]): Promise<void> {
  const music = handout.layers.staff ? await musicFontCss() : ''
  const css = `${await fontCss()}${music}${paperCss(handout)}${printCss(handout)}`
  const reply = await fetch('/api/pdf', {
    method: 'POST',
    headers: { 'Content-Type': 'text/html' },
    body: `<title>${escaped(title)}</title><style>${css}</style>${pages.join('')}`,
  })
  if (!reply.ok) {
    const said = (await reply.json().catch(() => ({}))) as { error?: string }
    throw new Error(said.error ?? `The server answered ${reply.status}.`)
  }
  download(`${title}.pdf`, await reply.blob())
}

/** True where the server makes PDFs; false where it does not, or does not answer. */
export async function canSavePdf(): Promise<boolean> {
  try {
    const reply = await fetch('/api/pdf')
    return reply.ok && ((await reply.json()) as { available?: boolean }).available === true
  } catch {
    return false
  }
}
