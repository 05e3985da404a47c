import type { TuneDoc } from '@velvet-porch/core/document'
import type { AuditReport } from '@velvet-porch/core/audit'
import { useTranslation } from 'react-i18next'
import { measureNumbers } from '@velvet-porch/core/document'
import type { SheetPosition } from '../../score/sheet/sheetModel.ts'
import { say } from '../../texts/say.ts'
import arrangeCss from './arrange.module.css'

/** Most findings that are listed; the rest is counted. */
const LISTED = 6

/** What the independent audit says of the tab: all in order, or each finding with a way to its measure. */
export function AuditLine({
  tune,
  report,
  onPosition,
}: {
  tune: TuneDoc
  report: AuditReport | undefined
  onPosition: (position: SheetPosition) => void
}) {
  const { t } = useTranslation()
  if (!report) return null
  if (report.findings.length === 0) {
    return (
      <p className={arrangeCss.audit} data-testid="audit">
        {report.melodyNotes === 0
          ? t('arrange.audit.okBacking', { roots: report.rootsInBass, changes: report.harmonyChanges })
          : report.harmonyChanges > 0
            ? t('arrange.audit.ok', { roots: report.rootsInBass, changes: report.harmonyChanges })
            : t('arrange.audit.okAlone')}
      </p>
    )
  }
  const numbers = measureNumbers(tune.measures)
  return (
    <details className="reasons" data-testid="audit">
      <summary>{t('arrange.audit.bad', { count: report.findings.length })}</summary>
      <ul className="problems">
        {report.findings.slice(0, LISTED).map((f, i) => (
          <li key={i}>
            <button onClick={() => onPosition({ measure: f.measure, tick: 0 })}>
              <strong>{t('sheet.measure', { number: numbers[f.measure]! })}</strong> {say(t, f.says)}
            </button>
          </li>
        ))}
      </ul>
      {report.findings.length > LISTED ? (
        <small>{t('arrange.audit.more', { count: report.findings.length - LISTED })}</small>
      ) : null}
    </details>
  )
}
