import type { WrittenPart } from './readSong.ts'

/** Words without what differs between two ways of writing them down. */
const plainWords = ({ lines }: WrittenPart): string =>
  lines
    .filter((l) => l.kind === 'sung')
    .map((l) =>
      l.text
        .toLowerCase()
        .replace(/[^\p{L}\d]+/gu, ' ')
        .trim(),
    )
    .join('\n')

/**
 * Names for parts that have none: words that come again are the chorus, all others verses, counted; a part that is played
 * alone has no name to be guessed. A kind that is named without a number, and has several, is counted too.
 */
export function namedParts(parts: readonly WrittenPart[]): WrittenPart[] {
  const unnamed = parts.filter((p) => p.name === '')
  const counts = new Map<string, number>()
  for (const p of unnamed) {
    const words = plainWords(p)
    if (words.trim() !== '') counts.set(words, (counts.get(words) ?? 0) + 1)
  }
  const hasChorus = parts.some((p) => p.kind === 'chorus')
  const isVerse = (p: WrittenPart) =>
    p.name === '' && plainWords(p).trim() !== '' && (hasChorus || (counts.get(plainWords(p)) ?? 0) < 2)
  const verses = parts.filter((p) => p.kind === 'verse' && (isVerse(p) || /^verse$/i.test(p.name)))
  const taken = parts.filter((q) => q.kind === 'verse' && /\d/.test(q.name)).length
  // A single part of words needs no name.
  const single = parts.filter((p) => plainWords(p).trim() !== '').length < 2
  return parts.map((p) => {
    const words = plainWords(p)
    if (verses.includes(p) && verses.length + taken > 1) {
      return { ...p, name: `Verse ${taken + verses.indexOf(p) + 1}` }
    }
    if (p.name !== '') return p
    if (single || words.trim() === '') return p
    if (!hasChorus && (counts.get(words) ?? 0) > 1) return { ...p, kind: 'chorus', name: 'Chorus' }
    return { ...p, name: 'Verse' }
  })
}
