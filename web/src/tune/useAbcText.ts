import { alignIds, type Problem, type TuneDoc } from '@velvet-porch/core'
import { useCallback, useEffect, useRef, useState } from 'react'
import { change } from '../store/documents.ts'
import { readInWorker } from '../work/benchWorker.ts'

/** Quiet time after a key before the text is read again. */
const READ_AFTER_MS = 250

/**
 * The text of a tune while it is edited. Every readable state becomes one command (ids of what stays are kept); an
 * unreadable one leaves the last tune in place and is kept as text only here.
 */
export function useAbcText(tune: TuneDoc, label: string) {
  const stored = tune.abc?.text ?? ''
  const [draft, setDraft] = useState<string>()
  const [problems, setProblems] = useState<readonly Problem[]>([])
  const [readable, setReadable] = useState(true)
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined)
  const latest = useRef({ tune, draft })
  useEffect(() => {
    latest.current = { tune, draft }
  })
  const text = draft ?? stored
  const read = useCallback(
    async (source: string, store: boolean) => {
      const reading = (await readInWorker(source))[0]
      if (!reading) return
      const { tune: before, draft: now } = latest.current
      if (now !== undefined && now !== source) return
      setProblems(reading.problems)
      setReadable(reading.tune !== undefined)
      const fresh = reading.tune
      if (!store || !fresh) return
      await change('tune', before.id, label, (d) => {
        const { id: _, rev: __, schema: ___, ...rest } = alignIds(before, fresh)
        Object.assign(d, {
          composer: undefined,
          ...rest,
          abc: { text: source, spans: rest.abc?.spans ?? [] },
        })
        if (d.composer === undefined) delete d.composer
      })
    },
    [label],
  )
  useEffect(() => {
    if (draft === undefined) void read(stored, false)
  }, [stored, draft, read])
  useEffect(() => {
    // The draft is dropped only when storage has caught up, or the editor would be set back for a moment.
    if (draft !== undefined && draft === stored) setDraft(undefined)
  }, [draft, stored])
  const edit = useCallback(
    (next: string) => {
      if (next === (latest.current.draft ?? latest.current.tune.abc?.text)) return
      setDraft(next)
      latest.current = { ...latest.current, draft: next }
      clearTimeout(timer.current)
      timer.current = setTimeout(() => void read(next, true), READ_AFTER_MS)
    },
    [read],
  )
  useEffect(() => {
    const flush = () => {
      const { draft: unsaved } = latest.current
      clearTimeout(timer.current)
      if (unsaved !== undefined) void read(unsaved, true)
    }
    document.addEventListener('visibilitychange', flush)
    window.addEventListener('pagehide', flush)
    return () => {
      document.removeEventListener('visibilitychange', flush)
      window.removeEventListener('pagehide', flush)
      flush()
    }
  }, [read])
  return { text, problems, readable, edit, saved: draft === undefined }
}
