import type { TuneDoc } from '@velvet-porch/core/document'
import { useCallback, useEffect, useMemo, useRef } from 'react'
import { SystemText } from './SystemText.tsx'
import { partIn, textOfSystem } from './textOfSystem.ts'
import type { AbcText } from './useAbcText.ts'

/** The part of the text that each system shows, to be written beneath it; undefined where it cannot be found. */
export function useSystemText(shown: TuneDoc, { text, spans, edit }: AbcText, numbers: readonly number[]) {
  // A text in several voices, or one that a pen wrote anew, does not say where its systems stand.
  const parted = spans.length > 0 && shown.events.every((e) => e.voice === 0)
  const latest = useRef({ shown, text, spans })
  useEffect(() => {
    latest.current = { shown, text, spans }
  })
  const partOf = useCallback((from: number, to: number) => {
    const now = latest.current
    const range = textOfSystem(now.shown, now.text, now.spans, from, to)
    return range && partIn(now.text, range)
  }, [])
  const under = useMemo(
    () =>
      parted
        ? (from: number, to: number) => (
            <SystemText from={from} to={to} number={numbers[from]!} partOf={partOf} onText={edit} />
          )
        : undefined,
    [parted, numbers, partOf, edit],
  )
  return under
}
