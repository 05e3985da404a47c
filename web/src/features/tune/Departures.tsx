import {
  departures,
  measureNumbers,
  type Departure,
  type Measure,
  type TuneDoc,
} from '@velvet-porch/core/document'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { openingOf } from '../../state/documents.ts'
import type { SheetPosition } from '../../score/sheet/sheetModel.ts'
import { useStored } from '../../state/useStored.ts'

/** Most departures that are listed; the rest is counted. */
const LISTED = 40

/** Where the tune departs from what came in, and where each measure comes from. */
export function Departures({
  tune,
  onPosition,
}: {
  tune: TuneDoc
  onPosition: (position: SheetPosition) => void
}) {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  return (
    <details className="reasons" data-testid="departures" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary>{t('tune.departures.title')}</summary>
      {open ? <Open tune={tune} onPosition={onPosition} /> : null}
    </details>
  )
}

function Open({ tune, onPosition }: { tune: TuneDoc; onPosition: (position: SheetPosition) => void }) {
  const { t } = useTranslation()
  const opening = useStored(() => openingOf(tune.id), [tune.id, tune.rev])
  const found = useMemo(() => (opening ? departures(opening, tune) : undefined), [opening, tune])
  const sources = useMemo(() => sourcesOf(tune), [tune])
  if (!found) return null
  const words = ({ what }: Departure) =>
    typeof what === 'string'
      ? t(`tune.departures.${what}`)
      : what.map((w) => t(`tune.departures.${w}`)).join(', ')
  return (
    <>
      <p>
        {found.length === 0 ? t('tune.departures.none') : t('tune.departures.count', { count: found.length })}
      </p>
      <ul className="problems">
        {found.slice(0, LISTED).map((d) => (
          <li key={`${d.number}.${d.measure ?? 'gone'}`}>
            <button
              disabled={d.measure === undefined}
              onClick={() => d.measure !== undefined && onPosition({ measure: d.measure, tick: 0 })}
            >
              <strong>{t('sheet.measure', { number: d.number })}</strong> {words(d)}
            </button>
          </li>
        ))}
      </ul>
      {found.length > LISTED ? (
        <small>{t('arrange.audit.more', { count: found.length - LISTED })}</small>
      ) : null}
      <p>
        {sources.map((s) => t(`tune.departures.from.${s.provenance}`, { measures: s.measures })).join('; ')}.
      </p>
    </>
  )
}

/** Runs of measures by where they come from. */
function sourcesOf(tune: TuneDoc) {
  const numbers = measureNumbers(tune.measures)
  const runs: { provenance: Measure['provenance']; from: number; to: number }[] = []
  tune.measures.forEach((m, i) => {
    const last = runs.at(-1)
    if (last?.provenance === m.provenance) last.to = numbers[i]!
    else runs.push({ provenance: m.provenance, from: numbers[i]!, to: numbers[i]! })
  })
  return runs.map(({ provenance, from, to }) => ({
    provenance,
    measures: from === to ? String(from) : `${from}–${to}`,
  }))
}
