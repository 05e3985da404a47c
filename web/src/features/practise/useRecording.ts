import { playedAt, secondOf, withMark, type RecordingMark } from '@velvet-porch/core/studio'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { SheetModel, SheetPosition } from '../../score/sheet/sheetModel.ts'
import { forgetRecording, keepMarks, keepRecording, useKeptRecording } from '../../state/recordings.ts'

/** Slowest and fastest speed of a recording, as a share of its own. */
export const SPEEDS = { least: 0.3, most: 1 }

/**
 * A recording of the teacher's own beside the sheet: slower without another pitch, measures marked in it by hand, looped, the sheet
 * following. It leaves no trace unless it is kept.
 * @param looped measures that are looped, as they are written
 */
export function useRecording(
  model: SheetModel,
  looped: { readonly from: number; readonly to: number } | undefined,
  follow: (position: SheetPosition | undefined) => void,
) {
  const tuneId = model.tune.id
  const kept = useKeptRecording(tuneId)
  const [opened, setOpened] = useState<File>()
  const [own, setOwn] = useState<readonly RecordingMark[]>([])
  const [speed, setSpeed] = useState(1)
  const [playing, setPlaying] = useState(false)
  const [seconds, setSeconds] = useState(0)
  const [failed, setFailed] = useState(false)
  const audio = useRef<HTMLAudioElement>(undefined)
  const sound: Blob | undefined = opened ?? kept?.sound
  const marks = opened ? own : (kept?.marks ?? own)
  const isKept = !opened && kept !== null && kept !== undefined
  const { order } = model.unfolded
  useEffect(() => {
    if (!sound) return undefined
    const url = URL.createObjectURL(sound)
    const element = new Audio(url)
    element.preservesPitch = true
    element.onerror = () => setFailed(true)
    element.onplay = () => setPlaying(true)
    element.onpause = () => setPlaying(false)
    audio.current = element
    setFailed(false)
    setSeconds(0)
    return () => {
      element.pause()
      audio.current = undefined
      URL.revokeObjectURL(url)
      follow(undefined)
    }
  }, [sound, follow])
  useEffect(() => {
    if (audio.current) audio.current.playbackRate = speed
  }, [speed, sound])
  const playedOf = useCallback((measure: number) => order.findIndex((o) => o.measure === measure), [order])
  // While it sounds the sheet follows, and the loop goes back.
  useEffect(() => {
    if (!playing) return undefined
    let frame = requestAnimationFrame(function look() {
      frame = requestAnimationFrame(look)
      const element = audio.current
      if (!element) return
      const begin = looped && secondOf(marks, playedOf(looped.from))
      const end = looped && secondOf(marks, playedOf(looped.to) + 1)
      if (begin !== undefined && end !== undefined && element.currentTime >= end)
        element.currentTime = Math.max(0, begin)
      setSeconds(element.currentTime)
      follow(positionAt(model, playedAt(marks, element.currentTime)))
    })
    return () => cancelAnimationFrame(frame)
  }, [playing, marks, looped, model, playedOf, follow])
  const change = (next: readonly RecordingMark[]) => {
    setOwn(next)
    if (isKept) void keepMarks(tuneId, next)
  }
  return {
    name: opened?.name ?? kept?.name,
    ...{ speed, setSpeed, playing, seconds, failed, marks, isKept },
    open(file: File) {
      setOwn([])
      setOpened(file)
    },
    toggle() {
      const element = audio.current
      if (!element) return
      if (!element.paused) return element.pause()
      const begin = looped && secondOf(marks, playedOf(looped.from))
      if (begin !== undefined) element.currentTime = Math.max(0, begin)
      element.play().catch(() => setFailed(true))
    },
    /** Marks the measure after the last one that was marked as beginning now. */
    mark() {
      const played = (marks.at(-1)?.played ?? -1) + 1
      if (played < order.length && audio.current)
        change(withMark(marks, { played, seconds: audio.current.currentTime }))
    },
    unmark: (played: number) => change(marks.filter((m) => m.played !== played)),
    async keep() {
      if (!opened) return
      await keepRecording(tuneId, opened, own)
      setOpened(undefined)
    },
    async forget() {
      setOpened(undefined)
      setOwn([])
      await forgetRecording(tuneId)
    },
  }
}

export type Recording = ReturnType<typeof useRecording>

/** Where on the written page a played measure stands. */
function positionAt(model: SheetModel, played: number | undefined): SheetPosition | undefined {
  if (played === undefined || played < 0) return undefined
  const own = model.unfolded.order[Math.floor(played)]
  const measure = own && model.tune.measures[own.measure]
  return own && measure && { measure: own.measure, tick: Math.floor((played % 1) * measure.length) }
}
