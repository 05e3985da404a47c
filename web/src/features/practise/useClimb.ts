import type { LogEntry } from '@velvet-porch/core/lesson'
import { afterRepetition, isAtGoal, newLadder, practisedEntry } from '@velvet-porch/core/studio'
import { useCallback, useEffect, useState } from 'react'
import { player } from '../../score/playback/player.ts'
import { writeEntry } from '../../state/logs.ts'
import type { Practice } from './usePractice.ts'

/** A piece climbs to its goal; what was reached is written into the student's log. */
export function useClimb(
  { lesson, piece, student, unit, today, way }: Practice,
  tempos: readonly number[],
  onWritten: (entry: LogEntry) => void,
) {
  const needed = way.clean
  const { tune } = lesson
  // Tempos of a piece that is written down change: the climb goes on with those it began with.
  const [ladder, setLadder] = useState(() => newLadder(tempos))
  const [tries, setTries] = useState(0)
  const [begun] = useState(() => performance.now())
  const bpm = ladder.tempos[ladder.at]
  const own = tune.tempos[0]?.bpm
  useEffect(() => {
    if (bpm !== undefined) player.set({ tempo: bpm / (own ?? bpm) })
  }, [bpm, own])
  useEffect(() => () => player.set({ tempo: 1 }), [])
  const went = useCallback(
    (wasClean: boolean) => {
      setTries((n) => n + 1)
      setLadder((now) => afterRepetition(now, wasClean, needed))
    },
    [needed],
  )
  const write = async () => {
    const entry = practisedEntry(ladder, needed, {
      day: today,
      piece: piece?.number ?? 0,
      ms: performance.now() - begun,
    })
    await writeEntry(tune.id, student?.id ?? '', unit, entry)
    setTries(0)
    onWritten(entry)
  }
  return { ladder, needed, isDone: isAtGoal(ladder), went, write, canWrite: tries > 0 }
}
