import {
  Button,
  Checkbox,
  Group,
  Modal,
  NumberInput,
  SegmentedControl,
  Select,
  TextInput,
} from '@mantine/core'
import { ADULT_SPANS, PICKING_SCHOOLS, type HandSpans } from '@velvet-porch/core/instrument'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { PlayerRow } from '../../state/db.ts'
import { removePlayer, savePlayer } from '../../state/players.ts'
import { StretchTest } from './StretchTest.tsx'
import { errorWords } from '../../workers/errorWords.ts'
import css from './PlayerForm.module.css'

const PAIRS = ['12', '23', '34', '13', '24', '14'] as const

/** A hand: its spans in mm (typed or tried out on the neck), what it may do, how it picks. */
export function PlayerForm({ row, onDone }: { row: PlayerRow; onDone: () => void }) {
  const { t } = useTranslation()
  const [draft, setDraft] = useState(row)
  const [fault, setFault] = useState<string>()
  const [testing, setTesting] = useState(false)
  const known = row.name !== ''
  const change = (part: Partial<PlayerRow>) => setDraft((d) => ({ ...d, ...part }))
  const save = async () => {
    const name = draft.name.trim()
    if (!name) return setFault(t('settings.fault.name'))
    const bad = PAIRS.find((p) => !(draft.spans[p] >= 15 && draft.spans[p] <= 220))
    if (bad) return setFault(t('settings.fault.span', { a: bad[0]!, b: bad[1]!, mm: draft.spans[bad] }))
    const narrow = PAIRS.find((p) => p !== '14' && draft.spans[p] > draft.spans['14'])
    if (narrow) return setFault(t('settings.fault.order', { a: narrow[0]!, b: narrow[1]! }))
    try {
      await savePlayer({ ...draft, name })
      onDone()
    } catch (error) {
      setFault(errorWords(t, error))
    }
  }
  return (
    <Modal
      opened
      onClose={onDone}
      size="lg"
      title={t(known ? 'settings.editTitle' : 'settings.addTitle')}
      closeButtonProps={{ 'aria-label': t('shelf.cancel') }}
    >
      <form
        onSubmit={(event) => {
          event.preventDefault()
          void save()
        }}
      >
        <TextInput
          data-autofocus
          label={t('settings.name')}
          value={draft.name}
          onChange={(event) => change({ name: event.currentTarget.value })}
        />
        <h3 className={css['form-head']}>{t('settings.spans')}</h3>
        <p className="soft">{t('settings.spansHint')}</p>
        <div className={css.spans}>
          {PAIRS.map((pair) => (
            <NumberInput
              key={pair}
              label={t('settings.pair', { a: pair[0]!, b: pair[1]! })}
              suffix=" mm"
              decimalScale={0}
              value={Math.round(draft.spans[pair])}
              onChange={(value) => change({ spans: { ...draft.spans, [pair]: Number(value) } })}
            />
          ))}
        </div>
        <Button size="compact-sm" variant="default" mt="xs" onClick={() => setTesting(!testing)}>
          {t(testing ? 'settings.testClose' : 'settings.test')}
        </Button>
        {testing ? <StretchTest onMeasured={(widest) => change({ spans: scaledSpans(widest) })} /> : null}
        <h3 className={css['form-head']}>{t('settings.techniques')}</h3>
        <Group>
          {(['barre', 'littleFinger', 'thumbOver'] as const).map((k) => (
            <Checkbox
              key={k}
              label={t(`settings.technique.${k}`)}
              checked={draft.techniques[k]}
              onChange={(event) =>
                change({ techniques: { ...draft.techniques, [k]: event.currentTarget.checked } })
              }
            />
          ))}
        </Group>
        <Group mt="sm" align="flex-end">
          <Select
            w={270}
            label={t('settings.school')}
            data={PICKING_SCHOOLS.map((s) => ({ value: s, label: t(`settings.schools.${s}`) }))}
            value={draft.school}
            allowDeselect={false}
            onChange={(value) => change({ school: value ?? 'fingerPerString' })}
          />
          <SegmentedControl
            aria-label={t('settings.handedness')}
            data={(['right', 'left'] as const).map((h) => ({ value: h, label: t(`settings.hand.${h}`) }))}
            value={draft.handedness}
            onChange={(value) => change({ handedness: value })}
          />
        </Group>
        {fault ? (
          <p role="alert" className={css['form-fault']}>
            {fault}
          </p>
        ) : null}
        <Group mt="md" justify="space-between">
          {known ? (
            <Button
              variant="subtle"
              color="red"
              onClick={() => {
                void removePlayer(row.id).then(onDone)
              }}
            >
              {t('settings.remove')}
            </Button>
          ) : (
            <span />
          )}
          <Button type="submit">{t('shelf.save')}</Button>
        </Group>
      </form>
    </Modal>
  )
}

/** The spans of a hand whose widest reach was tried out: all pairs shrink or grow alike. */
function scaledSpans(widest: number): HandSpans {
  const share = widest / ADULT_SPANS['14']
  return Object.fromEntries(
    Object.entries(ADULT_SPANS).map(([pair, mm]) => [pair, Math.round(mm * share)]),
  ) as unknown as HandSpans
}
