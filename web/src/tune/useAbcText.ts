import { alignIds, keepSuggestions, type AbcSpan, type Problem, type TuneDoc } from '@velvet-porch/core'
import { useCallback, useEffect, useRef, useState } from 'react'
import { editScore } from '../store/openScore.ts'
import { dropDraft, keepDraft, keptDraft } from '../store/draft.ts'
import { readInWorker } from '../worker/benchWorker.ts'

/** A tune as its text now tells it. */
function retold(before: TuneDoc, read: TuneDoc, text: string): TuneDoc {
  const { composer: _, source: __, ...kept } = before
  const { measures, events, tuplets, sections, tempos, composer, source } = read
  return {
    ...kept,
    // An untitled text keeps the name that the tune was given on the Shelf.
    title: /^T:/m.test(text) ? read.title : before.title,
    ...(composer ? { composer } : {}),
    ...(source ? { source } : {}),
    measures,
    events,
    chords: keepSuggestions(before, read),
    tuplets,
    sections,
    tempos,
    abc: { text, spans: [] },
  }
}

/** Notes of a text that are none of those that stood there when it was opened, and those that are gone. */
interface ChangedNotes {
  readonly fresh: number
  readonly gone: number
}

const NONE_CHANGED: ChangedNotes = { fresh: 0, gone: 0 }

/** Notes without a counterpart: all others keep what belongs to them, as fingers, places and locks. */
function changedNotes(before: TuneDoc, after: TuneDoc): ChangedNotes {
  const notes = (tune: TuneDoc) => new Set(tune.events.flatMap((e) => (e.pitch ? [e.id] : [])))
  const [old, now] = [notes(before), notes(after)]
  return {
    fresh: [...now].filter((id) => !old.has(id)).length,
    gone: [...old].filter((id) => !now.has(id)).length,
  }
}

/** Quiet time after a key before the text is read again. */
const READ_AFTER_MS = 250

/**
 * The text of a tune while it is edited. Every readable state becomes one command (ids of what stays are kept); an
 * unreadable one leaves the last tune in place and is kept as text only here.
 */
export function useAbcText(tune: TuneDoc, label: string) {
  const stored = tune.abc?.text ?? ''
  const [draft, setDraft] = useState<string | undefined>(() => keptDraft(tune.id))
  const [problems, setProblems] = useState<readonly Problem[]>([])
  const [readable, setReadable] = useState(true)
  const [spans, setSpans] = useState<readonly AbcSpan[]>([])
  const [aligned, setAligned] = useState(NONE_CHANGED)
  const opened = useRef(tune)
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined)
  const latest = useRef({ tune, draft })
  const lastRead = useRef<string | undefined>(undefined)
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
      if (!fresh) return
      lastRead.current = source
      const aligned = alignIds(before, fresh)
      setSpans(aligned.abc?.spans ?? [])
      if (!store) return
      setAligned(changedNotes(opened.current, aligned))
      await editScore(before.id, label, (score) => ({ ...score, tune: retold(score.tune, aligned, source) }))
    },
    [label],
  )
  useEffect(() => {
    if (draft === undefined && stored !== lastRead.current) void read(stored, false)
  }, [stored, draft, read])
  useEffect(() => {
    // The draft is dropped only when storage has caught up, or the editor would be set back for a moment.
    if (draft === undefined || draft !== stored) return
    setDraft(undefined)
    dropDraft(tune.id)
  }, [draft, stored, tune.id])
  const found = useRef(draft)
  useEffect(() => {
    // A draft that an earlier tab left behind is read as if it had just been typed.
    if (found.current !== undefined) void read(found.current, true)
    found.current = undefined
  }, [read])
  const edit = useCallback(
    (next: string) => {
      if (next === (latest.current.draft ?? latest.current.tune.abc?.text)) return
      setDraft(next)
      keepDraft(latest.current.tune.id, next)
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
  return { text, problems, readable, edit, spans, saved: draft === undefined, aligned }
}
