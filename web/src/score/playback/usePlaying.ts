import { scoreOf, type Performance } from '@velvet-porch/core/output/sound'
import { measuresFrom, type Stretch } from '@velvet-porch/core/lesson'
import { useCallback, useEffect, useMemo, useRef } from 'react'
import type { MarkedMeasures } from '../sheet/selection.ts'
import type { SheetModel, SheetPosition } from '../sheet/sheetModel.ts'
import { guideTook } from '../../state/guide.ts'
import { player } from './player.ts'

/**
 * Joins a sheet to the player: loads its music, loops what is to be looped, moves its cursor.
 * @param looped marked measures, or a stretch that may begin and end inside a measure
 */
export function usePlaying(
  model: SheetModel | undefined,
  position: SheetPosition | undefined,
  looped: MarkedMeasures | Stretch | undefined,
) {
  const move = useRef<((position: SheetPosition | undefined) => void) | undefined>(undefined)
  const music = useMemo(() => musicOf(model), [model])
  useEffect(() => {
    player.load(music)
    return () => player.stop()
  }, [music])
  const loop = useMemo(() => {
    if (!model || !looped) return undefined
    const stretch = isStretch(looped) ? looped : measuresFrom(model.tune, looped.from, looped.to)
    const { order } = model.unfolded
    const first = order.find((o) => o.measure === stretch.from.measure)
    const last =
      first && order.find((o) => o.measure === stretch.to.measure && o.startTick >= first.startTick)
    return first && last
      ? { from: first.startTick + stretch.from.tick, to: last.startTick + stretch.to.tick }
      : undefined
  }, [model, looped])
  useEffect(() => {
    if (model) player.set({ loop })
  }, [model, loop])
  useEffect(() => {
    if (!model) return
    return player.follow((tick) => move.current?.(tick === undefined ? undefined : writtenSpot(model, tick)))
  }, [model])
  const cursor = useCallback((m: (position: SheetPosition | undefined) => void) => {
    move.current = m
  }, [])
  const toggle = useCallback(() => {
    const ours = player.holds(music)
    if (player.snapshot().playing && ours) return player.stop()
    // Something else was heard in between: a drill, another version.
    if (!ours) {
      player.load(music)
      player.set({ loop })
    }
    if (model?.layer) guideTook('hear')
    const first = position && model?.unfolded.order.find((o) => o.measure === position.measure)
    void player.play(first ? first.startTick + position.tick : 0)
  }, [model, music, loop, position])
  return { toggle, cursor }
}

const isStretch = (looped: MarkedMeasures | Stretch): looped is Stretch => typeof looped.from === 'object'

/** What is heard of a sheet, where there is something to hear. */
export function musicOf(model: SheetModel | undefined): (() => Performance) | undefined {
  if (!model?.layer || !model.setup) return undefined
  const { tune, setup, layer, timeline, unfolded, variants, regions } = model
  return () => scoreOf(tune, setup, layer, timeline, unfolded, variants, regions)
}

/** Where a played tick stands on the page. */
export function writtenSpot(model: SheetModel, tick: number): SheetPosition | undefined {
  const { order } = model.unfolded
  let low = 0
  let high = order.length - 1
  while (low < high) {
    const mid = (low + high + 1) >> 1
    if (order[mid]!.startTick <= tick) low = mid
    else high = mid - 1
  }
  const o = order[low]
  return o && { measure: o.measure, tick: tick - o.startTick }
}
