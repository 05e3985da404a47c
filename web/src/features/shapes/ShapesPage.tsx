import { SegmentedControl } from '@mantine/core'
import { useTranslation } from 'react-i18next'
import { useSearchParams } from 'react-router'
import { InstrumentBar } from '../../ui/instrument/InstrumentBar.tsx'
import { useInstrument } from '../../ui/instrument/useInstrument.ts'
import { setPrefs, usePrefs } from '../../state/prefs.ts'
import { FindShapes } from './FindShapes.tsx'
import { NameGrip } from './NameGrip.tsx'
import { Progression } from './Progression.tsx'
import css from './ShapesPage.module.css'
import './shapes.module.css'

const TASKS = ['find', 'name', 'path'] as const
type Task = (typeof TASKS)[number]

/** The shape finder: shapes of a chord, the name of a grip, the way through a progression. */
export function ShapesPage() {
  const { t } = useTranslation()
  const instrument = useInstrument()
  const [params] = useSearchParams()
  const asked = params.get('do')
  const task: Task = TASKS.find((x) => x === asked) ?? 'find'
  const { boxes, labels } = usePrefs()
  return (
    <div className="reference">
      <div className="reference-title no-print">
        <h1>{t('shapes.title')}</h1>
        <SegmentedControl
          aria-label={t('shapes.task')}
          data={TASKS.map((x) => ({ value: x, label: t(`shapes.tasks.${x}`) }))}
          value={task}
          onChange={(value) => instrument.set({ do: value })}
        />
        <div className={css['reference-look']}>
          <SegmentedControl
            size="xs"
            aria-label={t('shapes.labels')}
            data={(['fingers', 'notes', 'degrees'] as const).map((x) => ({
              value: x,
              label: t(`shapes.label.${x}`),
            }))}
            value={labels}
            onChange={(value) => setPrefs({ labels: value })}
          />
          <SegmentedControl
            size="xs"
            aria-label={t('shapes.boxes')}
            data={(['upright', 'sideways'] as const).map((x) => ({ value: x, label: t(`shapes.box.${x}`) }))}
            value={boxes}
            onChange={(value) => setPrefs({ boxes: value })}
          />
        </div>
      </div>
      <div className="no-print">
        <InstrumentBar instrument={instrument} />
      </div>
      {task === 'find' ? <FindShapes instrument={instrument} /> : null}
      {task === 'name' ? <NameGrip instrument={instrument} /> : null}
      {task === 'path' ? <Progression instrument={instrument} /> : null}
    </div>
  )
}
