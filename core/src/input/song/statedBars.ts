/** Where the changes of a line fall, as the app writes it into its own ChordPro. */
export interface StatedBars {
  readonly bars: number
  /** True where nobody has said that it is right. */
  readonly guessed: boolean
  /** For each change its bar, from 0, and the share of the bar before it. */
  readonly changes: readonly { readonly bar: number; readonly share: number }[]
}

/**
 * Reads `4; 1 2+1/2 3`: four bars, with changes at the first, in the middle of the second, and at the third; `4?` where that is
 * a guess. Undefined for anything else.
 */
export function statedBars(text: string): StatedBars | undefined {
  const found = /^(\d{1,2})(\?)?\s*(?:;\s*(.*))?$/.exec(text.trim())
  if (!found) return undefined
  const bars = Number(found[1])
  const words = (found[3] ?? '').split(/\s+/).filter(Boolean)
  const changes = words.map((word) => {
    const place = /^(\d{1,2})(?:\+(\d{1,4})\/(\d{1,4}))?$/.exec(word)
    return place
      ? { bar: Number(place[1]) - 1, share: place[2] === undefined ? 0 : Number(place[2]) / Number(place[3]) }
      : { bar: -1, share: 0 }
  })
  const fits = changes.every(({ bar, share }) => bar >= 0 && bar < bars && share < 1)
  return bars > 0 && fits ? { bars, guessed: found[2] === '?', changes } : undefined
}
