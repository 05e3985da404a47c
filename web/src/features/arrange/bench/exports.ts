import type { Score } from '@velvet-porch/core/document'
import type { Message } from '@velvet-porch/core/messages'
import { download } from '../../../ui/saveAs.ts'
import { fontCss } from '../../../ui/fontCss.ts'

/** What a score is saved as at the bench, by the format's id; a drawing as pixels too. */
export const EXPORTS = [
  'text',
  'musicxml',
  'midi',
  'abc',
  'abc-places',
  'chordpro',
  'svg',
  'png',
  'tune-file',
] as const
export type ExportId = (typeof EXPORTS)[number]

/** Pixels of a picture for each of the drawing. */
const SCALE = 2

/**
 * Saves a score in a format.
 * @returns what of it the format does not keep; undefined where there is nothing in it that the format could hold
 */
export async function exportScore(
  id: ExportId,
  score: Score,
): Promise<readonly Message<'features'>[] | undefined> {
  const { canWrite, featureMessage, FORMATS, leftBehind, tabSvg } = await import('@velvet-porch/core/formats')
  const format = FORMATS.find((f) => f.id === (id === 'png' ? 'svg' : id))
  if (!format?.writes || !canWrite(format, score)) return undefined
  const { tune, arrangement } = score
  if (id === 'svg' || id === 'png') {
    if (!arrangement) return undefined
    const svg = tabSvg({ tune, arrangement }, await fontCss())
    const content = id === 'svg' ? new Blob([svg], { type: format.mime }) : await picture(svg)
    download(`${tune.title}.${id}`, content)
    return leftBehind(format, score).map(featureMessage)
  }
  const { finish } = await import('@velvet-porch/core/turns')
  const content = finish(format.writes.writing(score))
  const part = typeof content === 'string' ? content : new Uint8Array(content)
  download(`${tune.title}.${format.endings[0]!}`, new Blob([part], { type: format.mime }))
  return leftBehind(format, score).map(featureMessage)
}

/** A drawing as a PNG. */
async function picture(svg: string): Promise<Blob> {
  const image = new Image()
  // A page of this app shows no pictures but its own and those in its text.
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`
  await image.decode()
  const canvas = new OffscreenCanvas(image.naturalWidth * SCALE, image.naturalHeight * SCALE)
  const context = canvas.getContext('2d')
  if (!context) throw new Error('This browser draws no pictures.')
  context.drawImage(image, 0, 0, canvas.width, canvas.height)
  return await canvas.convertToBlob({ type: 'image/png' })
}
