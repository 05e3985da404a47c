import { Anchor, Button, Group } from '@mantine/core'
import {
  layerOfMeasures,
  measureNumbers,
  timelineOf,
  type ArrangementDoc,
  type TuneDoc,
  type Variant,
} from '@velvet-porch/core/document'
import type { MeasureRange, EffortVersion } from '@velvet-porch/core/arrange'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { keepAsOssia } from '../arrange/keepAsOssia.ts'
import { ossiaWords } from '../arrange/ossiaWords.ts'
import { EffortVersionList } from '../arrange/EffortVersionList.tsx'
import { useChangeWords } from '../arrange/useChangeWords.ts'
import { useEffortVersions } from '../arrange/useEffortVersions.ts'
import type { PlayerRow } from '../../state/db.ts'
import { change } from '../../state/documents.ts'
import css from './EasierHere.module.css'

/** Another version of measures that is taught for now. */
export type Instead = Pick<Variant, 'name' | 'measures' | 'layer'>

/** Easier versions of a piece: those that are kept, and those that can be found; each to be taught at once, or kept. */
export function EasierHere({
  tune,
  doc,
  range,
  student,
  instead,
  onInstead,
}: {
  tune: TuneDoc
  /** As it is taught to the student, with nothing in place of it. */
  doc: ArrangementDoc
  range: MeasureRange
  student: PlayerRow | undefined
  instead: Instead | undefined
  onInstead: (version: Instead | undefined) => void
}) {
  const { t } = useTranslation()
  const words = useChangeWords()
  const { found, looking, look } = useEffortVersions(tune, doc)
  const measures = tune.measures.slice(range.from, range.to + 1).map((m) => m.id)
  const kept = doc.variants.filter((v) => measures.some((id) => v.measures.includes(id)))
  const here = found && found.range.from === range.from && found.range.to === range.to ? found : undefined
  const easier = here?.now ? here.versions.slice(0, here.versions.indexOf(here.now)) : []
  const places = { numbers: measureNumbers(tune.measures), timeline: timelineOf(tune.measures) }
  const versionOf = (version: EffortVersion): Instead => ({
    name: words(version.changes),
    measures,
    layer: layerOfMeasures(version.layer, new Set(measures)),
  })
  const isTaught = (version: EffortVersion) => instead?.name === words(version.changes)
  const give = (id: string, to: PlayerRow | undefined) =>
    void change(
      'arrangement',
      doc.id,
      to ? t('teach.command.give', { name: to.name }) : t('teach.command.takeBack'),
      (draft) => {
        const own = draft.variants.find((v) => v.id === id)
        if (own) own.when = to ? { student: to.id } : {}
      },
    )
  const keep = (version: EffortVersion) => {
    const what = words(version.changes)
    const when = student ? { student: student.id } : {}
    onInstead(undefined)
    void keepAsOssia(tune, doc.id, version, range, what, t('easier.command.keep', { what }), when)
  }
  const teach = (version: Instead, on: boolean) => (
    <Button
      size="compact-xs"
      variant={on ? 'filled' : 'default'}
      aria-pressed={on}
      onClick={() => onInstead(on ? undefined : version)}
    >
      {t('teach.teachSo')}
    </Button>
  )
  return (
    <section className={css['teach-easier']} data-testid="easier-here">
      <h3>{t('teach.easierTitle')}</h3>
      {kept.length > 0 ? (
        <ul>
          {kept.map((v) => (
            <li key={v.id}>
              {ossiaWords(t, v, places)}
              <Group gap={4} display="inline-flex" ml={8}>
                {student && v.when.student === student.id ? (
                  <>
                    <span className="soft">{t('teach.playsSo', { name: student.name })}</span>
                    <Button size="compact-xs" variant="default" onClick={() => give(v.id, undefined)}>
                      {t('teach.takeBack')}
                    </Button>
                  </>
                ) : (
                  <>
                    {teach(v, instead?.layer === v.layer)}
                    {student ? (
                      <Button size="compact-xs" variant="default" onClick={() => give(v.id, student)}>
                        {t('teach.give', { name: student.name })}
                      </Button>
                    ) : null}
                  </>
                )}
              </Group>
            </li>
          ))}
        </ul>
      ) : null}
      <Group gap={8}>
        <Button size="compact-xs" variant="default" loading={looking} onClick={() => look(range)}>
          {t('teach.lookEasier')}
        </Button>
        <Anchor component={Link} size="xs" to={`/tunes/${tune.id}/arrange?from=${range.from}&to=${range.to}`}>
          {t('teach.easier')}
        </Anchor>
      </Group>
      <span role="status" className="soft">
        {looking ? t('easier.looking') : here && easier.length === 0 ? t('teach.noneEasier') : ''}
      </span>
      {here?.now && easier.length > 0 ? (
        <EffortVersionList
          versions={[...easier, here.now]}
          now={here.now}
          tried={easier.find(isTaught)}
          actions={(version) => (
            <>
              {teach(versionOf(version), isTaught(version))}
              <Button size="compact-xs" variant="default" onClick={() => keep(version)}>
                {student ? t('teach.keepFor', { name: student.name }) : t('easier.keep')}
              </Button>
            </>
          )}
        />
      ) : null}
    </section>
  )
}
