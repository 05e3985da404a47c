import { knownIn } from '@velvet-porch/core/invariant'
import { Button, SegmentedControl } from '@mantine/core'
import { regionAt, type ArrangementDoc, type Layer, type TuneDoc } from '@velvet-porch/core/document'
import { stretchByCapo, type MeasureRange, type EffortVersion } from '@velvet-porch/core/arrange'
import { useEffect, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { MarkedMeasures } from '../../score/sheet/selection.ts'
import type { SheetModel, SheetPosition } from '../../score/sheet/sheetModel.ts'
import { keepAsOssia } from './keepAsOssia.ts'
import { EffortVersionList } from './EffortVersionList.tsx'
import { useChangeWords } from './useChangeWords.ts'
import { useEffortVersions } from './useEffortVersions.ts'
import type { BenchArranger } from './useArranger.ts'

interface Props {
  readonly tune: TuneDoc
  readonly doc: ArrangementDoc
  readonly model: SheetModel
  readonly arranger: BenchArranger
  readonly position: SheetPosition | undefined
  readonly marked: MarkedMeasures | undefined
  readonly tried: Layer | undefined
  readonly onTry: (layer: Layer | undefined) => void
}

type Scope = 'measure' | 'marked' | 'section' | 'tune'

/** Versions of a measure, a section or the tune ordered by effort: to be tried, used, or kept as an ossia. */
export function EasierFuller({ tune, doc, model, arranger, position, marked, tried, onTry }: Props) {
  const { t } = useTranslation()
  const words = useChangeWords()
  const [wanted, setScope] = useState<Scope>('tune')
  const { found, looking, look, drop } = useEffortVersions(tune, doc)
  const scopes = scopesOf(tune, doc, position, marked)
  const scope = scopes.has(wanted) ? wanted : 'tune'
  useEffect(() => onTry(undefined), [doc, onTry])
  const now = found?.now
  const use = (version: EffortVersion) => {
    onTry(undefined)
    void arranger.choose(t('easier.command.use', { what: words(version.changes) }), () => ({
      regions: version.regions,
    }))
  }
  const keep = (version: EffortVersion, range: MeasureRange) => {
    onTry(undefined)
    const what = words(version.changes)
    void keepAsOssia(tune, doc.id, version, range, what, t('easier.command.keep', { what }))
  }
  return (
    <details className="reasons" data-testid="easier">
      <summary>{t('easier.title')}</summary>
      <SegmentedControl
        size="xs"
        fullWidth
        mt={6}
        aria-label={t('easier.scope')}
        value={scope}
        onChange={(v) => {
          setScope(v)
          drop()
          onTry(undefined)
        }}
        data={[...scopes.keys()].map((s) => ({
          value: s,
          label: t(`easier.scopes.${s}`, { number: position ? model.numbers[position.measure]! : 0 }),
        }))}
      />
      <Button
        size="compact-xs"
        variant="default"
        mt={6}
        loading={looking}
        onClick={() => look(knownIn(scopes, scope))}
      >
        {t('easier.look')}
      </Button>
      <span role="status" className="soft">
        {looking ? ` ${t('easier.looking')}` : ''}
      </span>
      {found && (found.versions.length < 2 || !now) ? <p>{t('easier.none')}</p> : null}
      {found && now && found.versions.length > 1 ? (
        <EffortVersionList
          versions={found.versions}
          now={now}
          tried={found.versions.find((r) => r.layer === tried)}
          actions={(version) => (
            <>
              <Button
                size="compact-xs"
                variant={version.layer === tried ? 'filled' : 'default'}
                aria-pressed={version.layer === tried}
                onClick={() => onTry(version.layer === tried ? undefined : version.layer)}
              >
                {t('easier.try')}
              </Button>
              <Button size="compact-xs" variant="default" onClick={() => use(version)}>
                {t('easier.use')}
              </Button>
              <Button size="compact-xs" variant="default" onClick={() => keep(version, found.range)}>
                {t('easier.keep')}
              </Button>
            </>
          )}
        />
      ) : null}
      {found && now ? <CapoHelp doc={doc} now={now} range={found.range} tune={tune} /> : null}
    </details>
  )
}

/** The measures that can be asked for, by what is selected. */
function scopesOf(
  tune: TuneDoc,
  doc: ArrangementDoc,
  position: SheetPosition | undefined,
  marked: MarkedMeasures | undefined,
): Map<Scope, MeasureRange> {
  const scopes = new Map<Scope, MeasureRange>()
  if (position) scopes.set('measure', { from: position.measure, to: position.measure })
  if (marked) scopes.set('marked', { from: marked.from, to: marked.to })
  if (position && doc.regions.length > 1) {
    const region = doc.regions[regionAt(tune, doc.regions, tune.measures[position.measure]!.id)]
    const at = (id: string) => tune.measures.findIndex((m) => m.id === id)
    if (region) scopes.set('section', { from: at(region.from), to: at(region.to) })
  }
  scopes.set('tune', { from: 0, to: tune.measures.length - 1 })
  return scopes
}

/** What a higher capo would make of the widest stretch, fret by fret. */
function CapoHelp({
  tune,
  doc,
  now,
  range,
}: {
  tune: TuneDoc
  doc: ArrangementDoc
  now: EffortVersion
  range: MeasureRange
}) {
  const { t } = useTranslation()
  const ids = new Set(tune.measures.slice(range.from, range.to + 1).map((m) => m.id))
  const capos = stretchByCapo(
    doc.setup,
    now.layer.grips.filter((g) => ids.has(g.pos.measure)),
  )
  if (capos.length < 2 || capos[0]!.mm === 0) return null
  return (
    <p className="soft">
      {t('easier.capo', { list: capos.map((c) => t('easier.capoAt', { ...c })).join(', ') })}
    </p>
  )
}
