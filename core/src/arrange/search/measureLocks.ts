import type { Region } from '../../document/arrangement.ts'
import { isLockOf, type Lock } from '../../document/locks.ts'
import type { TuneDoc } from '../../document/tune.ts'

/** A measure keeps the style and level that it was locked in, whatever its section changes to. */
export function withLockedMeasures(
  tune: TuneDoc,
  regions: readonly Region[],
  locks: readonly Lock[],
): readonly Region[] {
  const kept = locks.filter(isLockOf('measure')).filter((l) => tune.measures.some((m) => m.id === l.target))
  return [
    ...regions,
    ...kept.map((l): Region => {
      const { style, level, school, ornament } = l.value
      return {
        from: l.target,
        to: l.target,
        style,
        level,
        ...(school ? { school } : {}),
        ...(ornament === undefined ? {} : { ornament }),
      }
    }),
  ]
}
