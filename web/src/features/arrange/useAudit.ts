import type { ArrangementDoc, AuditReport, Finding, TuneDoc } from '@velvet-porch/core'
import { useMemo } from 'react'
import { auditInWorker } from '../../workers/benchWorker.ts'
import { useAnswer } from '../../workers/useAnswer.ts'

/** What the independent audit says of a finished arrangement, and its findings by measure index. */
export function useAudit(ready: { readonly tune: TuneDoc; readonly doc: ArrangementDoc } | undefined): {
  readonly report: AuditReport | undefined
  readonly faults: ReadonlyMap<number, readonly Finding[]>
} {
  const { tune, doc } = ready ?? {}
  const { answer: report } = useAnswer(
    'audit',
    auditInWorker,
    tune && doc ? ([tune, doc] as const) : undefined,
  )
  const faults = useMemo(() => {
    const byMeasure = new Map<number, Finding[]>()
    for (const f of report?.findings ?? []) byMeasure.set(f.measure, [...(byMeasure.get(f.measure) ?? []), f])
    return byMeasure
  }, [report])
  return { report, faults }
}
