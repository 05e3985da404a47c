import { present } from '@velvet-porch/core/invariant'
import { Button, Group, Text } from '@mantine/core'
import { IconArrowLeft, IconPrinter } from '@tabler/icons-react'
import { plainName } from '@velvet-porch/core/music'
import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core/document'
import { writtenOut } from '@velvet-porch/core/edit'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useParams } from 'react-router'
import { PageFoot } from '../../../ui/PageFoot.tsx'
import { WholeTune } from '../../../ui/TuneGate.tsx'
import { NoTab } from '../../lesson/NoTab.tsx'
import { useAsPlayed } from '../../arrange/useAsPlayed.ts'
import { Sheet } from '../../../score/sheet/Sheet.tsx'
import { useNames } from '../../../ui/names/useNames.ts'
import { keysOf, sheetModel } from '../../../score/sheet/sheetModel.ts'
import { guideTook } from '../../../state/guide.ts'
import { usePrefs } from '../../../state/prefs.ts'
import { useArrangement, useTune } from '../../../state/useTune.ts'
import css from './PrintPage.module.css'

/** The page as it goes on paper: title, tuning, capo, staff and tab; no system is broken across pages. */
export function PrintPage() {
  const { t } = useTranslation()
  const id = present(useParams().id)
  const opened = useTune(id)
  const doc = useArrangement(id)
  return (
    <WholeTune opened={opened}>
      {(tune) =>
        doc === undefined ? null : doc === null ? (
          <NoTab tuneId={id} text={t('print.nothing')} />
        ) : (
          <PrintSheet tune={tune} doc={doc} />
        )
      }
    </WholeTune>
  )
}

function PrintSheet({ tune, doc }: { tune: TuneDoc; doc: ArrangementDoc }) {
  const { t } = useTranslation()
  const names = useNames()
  const { sheet } = usePrefs()
  const view = useMemo(() => ({ perLine: sheet.perLine, printing: true }), [sheet.perLine])
  const { played } = useAsPlayed(tune, doc, false)
  const model = useMemo(() => {
    const out = sheet.form === 'out' ? writtenOut({ tune, arrangement: played }) : undefined
    const plain = sheet.durations === 'plain'
    return out ? sheetModel(out.tune, out.arrangement, plain) : sheetModel(tune, played, plain)
  }, [tune, played, sheet.form, sheet.durations])
  const capo = doc.setup.capo[0]!
  const tuning = [...doc.setup.tuning]
    .reverse()
    .map((m) => names.note(plainName(m, false)))
    .join(' ')
  const keys = keysOf(model, names)
  const tempo = tune.tempos[0]!
  const print = () => {
    guideTook('print')
    window.print()
  }
  return (
    <main className={`on-paper ${css['print-page']}`} data-mantine-color-scheme="light">
      <PageFoot title={tune.title} />
      <Group className="no-print" mb="md" justify="space-between">
        <Button
          component={Link}
          to={`/tunes/${tune.id}/arrange`}
          variant="default"
          leftSection={<IconArrowLeft size={16} />}
        >
          {t('print.back')}
        </Button>
        <Text size="sm">{t('print.hint')}</Text>
        <Button leftSection={<IconPrinter size={16} />} onClick={print}>
          {t('print.go')}
        </Button>
      </Group>
      <article className={css['print-sheet']}>
        <header className={css['print-head']}>
          <h1>{tune.title}</h1>
          {tune.composer ? <div>{tune.composer}</div> : null}
          <div className={css['print-meta']}>
            <span>
              {t('sheet.tuning', { tuning })} · {t('tune.tempo', { bpm: Math.round(tempo.bpm) })}
            </span>
            <span>{capo > 0 ? t('sheet.capoShapes', { capo, key: keys.sounding }) : keys.sounding}</span>
          </div>
        </header>
        <Sheet model={model} layers={sheet} view={view} />
        <footer className={css['print-foot']}>{t('sheet.fileNote')}</footer>
      </article>
    </main>
  )
}
