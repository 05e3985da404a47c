import { groupBy } from 'es-toolkit'
import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core/document'
import type { AuditReport, Finding } from '@velvet-porch/core/audit'
import { useMemo } from 'react'
import { auditInWorker } from '../../workers/benchWorker.ts'
import { useAnswer } from '../../workers/useAnswer.ts'

/** What the independent audit says of a finished arrangement, and its findings by measure index. */
export function useAudit(ready: { readonly tune: TuneDoc; readonly doc: ArrangementDoc } | undefined): {
  readonly report: AuditReport | undefined
  readonly faults: Readonly<Record<number, readonly Finding[]>>
} {
  const { tune, doc } = ready ?? {}
  const { answer: report } = useAnswer(
    'audit',
    auditInWorker,
    tune && doc ? ([tune, doc] as const) : undefined,
  )
  const faults = useMemo(() => groupBy(report?.findings ?? [], (f) => f.measure), [report])
  return { report, faults }
}
