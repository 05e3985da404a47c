import {
  alignIds,
  keepSuggestions,
  type AbcSpan,
  type Score,
  type TuneDoc,
} from '@velvet-porch/core/document'
import type { Problem } from '@velvet-porch/core/input'
import { tidyTab } from '@velvet-porch/core/edit'
import type { TuneReading } from '@velvet-porch/core/input/abc'
import i18next from 'i18next'
import { useCallback, useEffect, useRef, useState } from 'react'
import { editScore } from '../../state/openScore.ts'
import {
  dropDraft,
  dropStoredDraft,
  keepDraft,
  keptDraft,
  textHash,
  type TextDraft,
} from '../../state/draft.ts'
import { readInWorker } from '../../workers/benchWorker.ts'
import { errorWords } from '../../workers/errorWords.ts'

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
    // A text that has no words for its rests says nothing of those of a song.
    ...(read.song ? { song: read.song } : {}),
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

/** Texts that a draft remembers to have grown from. */
const MOST_ANCESTORS = 20

export type AbcText = ReturnType<typeof useAbcText>

/** A tune as its text now tells it, with a tab in which nothing stands in measures that are gone. */
function withText(score: Score, read: TuneDoc, source: string): Score {
  const tune = retold(score.tune, read, source)
  const { arrangement } = score
  if (!arrangement) return { tune }
  const now = new Set(tune.measures.map((m) => m.id))
  return {
    tune,
    arrangement: score.tune.measures.every((m) => now.has(m.id)) ? arrangement : tidyTab(tune, arrangement),
  }
}

/**
 * The text of a tune while it is edited. Every readable state becomes one command (ids of what stays are kept); an
 * unreadable one leaves the last tune in place and is kept as text only here.
 */
export function useAbcText(tune: TuneDoc, label: string) {
  const stored = tune.abc?.text ?? ''
  const [draft, setDraft] = useState<string>()
  /** Text from an earlier visit that is older than what is stored now: shown on request, never taken by itself. */
  const [older, setOlder] = useState<TextDraft>()
  const [problems, setProblems] = useState<readonly Problem[]>([])
  const [readable, setReadable] = useState(true)
  /** Why the text could not be read at all, though nothing need be wrong with it. */
  const [failed, setFailed] = useState<string>()
  const [spans, setSpans] = useState<readonly AbcSpan[]>([])
  const [aligned, setAligned] = useState(NONE_CHANGED)
  const opened = useRef(tune)
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined)
  const latest = useRef({ tune, draft })
  const lastRead = useRef<string | undefined>(undefined)
  const ancestors = useRef([textHash(stored)])
  useEffect(() => {
    latest.current = { tune, draft }
  })
  const text = draft ?? stored
  const read = useCallback(
    async (source: string, store: boolean) => {
      let reading: TuneReading | undefined
      try {
        reading = (await readInWorker(source))[0]
      } catch (error) {
        setReadable(false)
        setFailed(errorWords(i18next.t, error))
        return
      }
      setFailed(undefined)
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
      ancestors.current = [...ancestors.current, textHash(source)].slice(-MOST_ANCESTORS)
      await editScore(before.id, label, (score) => withText(score, aligned, source))
    },
    [label],
  )
  useEffect(() => {
    if (draft === undefined && stored !== lastRead.current) void read(stored, false)
  }, [stored, draft, read])
  useEffect(() => {
    // The page has caught up; what is kept of the draft goes when storage has.
    if (draft === undefined || draft !== stored) return
    setDraft(undefined)
    // That it failed is shown on the page; the draft stays then.
    dropStoredDraft(tune.id, draft).catch(() => undefined)
  }, [draft, stored, tune.id])
  useEffect(() => {
    let left = false
    keptDraft(tune.id).then(
      (found) => {
        const { tune: now, draft: typed } = latest.current
        if (left || !found || typed !== undefined) return
        const kept = now.abc?.text ?? ''
        if (found.text === kept) return dropDraft(now.id)
        // Storage that is newer wins, unless this text was typed on from what is stored.
        if (found.rev < now.rev && !found.ancestors.includes(textHash(kept)))
          return found.passing ? dropDraft(now.id) : setOlder(found)
        ancestors.current = [...found.ancestors]
        setDraft(found.text)
        latest.current = { tune: now, draft: found.text }
        void read(found.text, true)
      },
      // That storage cannot be read is shown on the page already.
      () => undefined,
    )
    return () => {
      left = true
    }
  }, [tune.id, read])
  const edit = useCallback(
    (next: string) => {
      const { tune: now, draft: typed } = latest.current
      if (next === (typed ?? now.abc?.text)) return
      setDraft(next)
      keepDraft(now.id, { text: next, rev: now.rev, ancestors: ancestors.current })
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
  const takeOlder = useCallback(() => {
    if (!older) return
    setOlder(undefined)
    edit(older.text)
  }, [older, edit])
  const forgetOlder = useCallback(() => {
    setOlder(undefined)
    dropDraft(tune.id)
  }, [tune.id])
  return {
    text,
    problems,
    readable,
    failed,
    edit,
    spans,
    saved: draft === undefined,
    aligned,
    older,
    takeOlder,
    forgetOlder,
  }
}
