import { groupBy } from 'es-toolkit'
import type { ArrangementDoc, Variant } from '../../document/arrangement.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { Turns } from '../../turns.ts'
import { withVariant } from '../../document/variants.ts'
import type { Alongside } from './alongsideChoice.ts'
import type { LessonStep } from './lessonStep.ts'
import { stepping } from './lessonSteps.ts'

/** Another version of measures that is played on one pass, and where it stands in the tune, both ends included. */
export interface PassVersion {
  readonly variant: Variant
  readonly pass: number
  readonly from: number
  readonly to: number
}

/** The versions of measures that are played on one pass, in the order of the tune; those of measures that are gone are left out. */
export function passVersions(
  tune: Pick<TuneDoc, 'measures'>,
  { variants }: Pick<ArrangementDoc, 'variants'>,
): PassVersion[] {
  const indexOf = new Map(tune.measures.map((m, i) => [m.id, i]))
  return variants
    .flatMap((variant): PassVersion[] => {
      const { pass } = variant.when
      const own = variant.measures.flatMap((id) => indexOf.get(id) ?? [])
      if (pass === undefined || own.length === 0 || own.length < variant.measures.length) return []
      return [{ variant, pass, from: Math.min(...own), to: Math.max(...own) }]
    })
    .sort((a, b) => a.to - b.to || a.pass - b.pass)
}

/**
 * The steps of a tab, and right behind the measures that are played otherwise on one pass the steps of that pass. These go on
 * from the measure before; what follows them goes on as if they had not been.
 */
export function* stepsOfAllPasses(
  tune: TuneDoc,
  doc: Pick<ArrangementDoc, 'base' | 'setup' | 'transposed' | 'variants'>,
  alongside?: Alongside,
): Turns<LessonStep[]> {
  const plain = yield* stepping(tune, doc, alongside)
  const versions = passVersions(tune, doc)
  if (versions.length === 0) return plain
  const otherwise: { to: number; steps: LessonStep[] }[] = []
  for (const { variant, pass, from, to } of versions) {
    const all = yield* stepping(tune, { ...doc, base: withVariant(doc.base, variant) }, alongside)
    const own = all.filter((s) => s.measure >= from && s.measure <= to)
    otherwise.push({ to, steps: own.map((s) => ({ ...s, pass })) })
  }
  const behind = (measure: number) => otherwise.filter((o) => o.to === measure).flatMap((o) => o.steps)
  const own = groupBy(plain, (s) => s.measure)
  return tune.measures.flatMap((_, measure) => [...(own[measure] ?? []), ...behind(measure)])
}
