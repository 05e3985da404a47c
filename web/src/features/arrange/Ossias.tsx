import { present } from '@velvet-porch/core/invariant'
import { ActionIcon, Button, Group, Select, TextInput, Tooltip, type SelectProps } from '@mantine/core'
import { IconSwitchVertical, IconTrash } from '@tabler/icons-react'
import { LEVELS, type ArrangementDoc, type Id, type TuneDoc, type Variant } from '@velvet-porch/core/document'
import { exchanged, keptAsOssia } from '@velvet-porch/core/edit'
import { useState, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import type { MarkedMeasures } from '../../score/sheet/selection.ts'
import type { SheetModel, SheetPosition } from '../../score/sheet/sheetModel.ts'
import { newId } from '../../newId.ts'
import { change } from '../../state/documents.ts'
import { usePlayers } from '../../state/players.ts'
import { ossiaWords } from './ossiaWords.ts'
import css from './Ossias.module.css'

type When = Variant['when']
/** The times at which a version can be played, as the list shows them. */
type Times = NonNullable<SelectProps['data']>

/** The value of a version that is shown on request alone. */
const ASKED = 'asked'

/** When a version is played, as a value of the list: `pass 2`, `level 1`, `student ID`. */
const whenValue = (when: When): string => {
  const [kind, value] = Object.entries(when)[0] ?? []
  return kind === undefined ? ASKED : `${kind} ${value}`
}

function whenOf(value: string): When {
  const [kind, ...rest] = value.split(' ')
  if (value === ASKED) return {}
  const text = rest.join(' ')
  return kind === 'student' ? { student: text } : { [present(kind)]: Number(text) }
}

/** Other versions of measures that were kept: shown on the sheet, given to a pass, a student or a level, dropped. */
export function Ossias({
  tune,
  doc,
  model,
  position,
  marked,
  shown,
  onShow,
}: {
  tune: TuneDoc
  doc: ArrangementDoc
  model: SheetModel
  position: SheetPosition | undefined
  marked: MarkedMeasures | undefined
  shown: Id | undefined
  onShow: (id: Id | undefined) => void
}) {
  const { t } = useTranslation()
  const players = usePlayers()
  const passes = Math.max(1, ...model.unfolded.order.map((o) => o.pass))
  const variants = doc.variants.filter((v) =>
    v.measures.every((id) => tune.measures.some((m) => m.id === id)),
  )
  const range = marked ?? (position && { from: position.measure, to: position.measure })
  if (variants.length === 0 && !range) return null
  const edit = (id: Id, label: string, recipe: (draft: { when: When }) => void) =>
    void change('arrangement', doc.id, label, (draft) => {
      const own = draft.variants.find((v) => v.id === id)
      if (own) recipe(own)
    })
  const nameOf = (student: Id) => players.find((p) => p.id === student)?.name ?? t('easier.someone')
  const whenWords = (when: When): string => {
    if (when.pass !== undefined) return t('easier.passN', { pass: when.pass })
    if (when.level !== undefined) return t('easier.levelN', { level: when.level })
    return when.student === undefined ? t('easier.whenAsked') : nameOf(when.student)
  }
  const item = (when: When) => ({ value: whenValue(when), label: whenWords(when) })
  const numbered = (kind: 'pass' | 'level', most: number) =>
    Array.from({ length: most }, (_, i) => item({ [kind]: i + 1 }))
  // Somebody who is not on record any more is still named.
  const students = (own: Id | undefined) =>
    [...new Set([...players.map((p) => p.id), ...(own === undefined ? [] : [own])])].map((student) =>
      item({ student }),
    )
  const timesFor = (own: When): Times => [
    { value: ASKED, label: t('easier.whenAsked') },
    ...(passes > 1 || own.pass !== undefined
      ? [{ group: t('easier.whenPass'), items: numbered('pass', Math.max(passes, own.pass ?? 1)) }]
      : []),
    ...(players.length > 0 || own.student !== undefined
      ? [{ group: t('easier.whenStudent'), items: students(own.student) }]
      : []),
    { group: t('easier.whenLevel'), items: numbered('level', LEVELS.length) },
  ]
  const put = (label: string, next: (now: ArrangementDoc) => ArrangementDoc) =>
    void change('arrangement', doc.id, label, (draft) => {
      const { base, variants: kept } = next(doc)
      Object.assign(draft, structuredClone({ base, variants: kept }))
    })
  return (
    <details className="reasons" data-testid="ossias" open={variants.length > 0}>
      <summary>{t('easier.ossias')}</summary>
      {range ? (
        <KeepNow
          key={`${range.from} ${range.to}`}
          range={range}
          numbers={model.numbers}
          onKeep={(name) => {
            const ids = tune.measures.slice(range.from, range.to + 1).map((m) => m.id)
            put(t('easier.command.keep', { what: name }), (now) => keptAsOssia(now, ids, name, newId()))
          }}
        />
      ) : null}
      <ul className={css.ossias}>
        {variants.map((v) => (
          <OssiaRow
            key={v.id}
            variant={v}
            model={model}
            times={timesFor(v.when)}
            shown={shown === v.id}
            onShow={(on) => onShow(on ? v.id : undefined)}
            onWhen={(when) =>
              edit(v.id, t('easier.command.when', { when: whenWords(when) }), (own) => (own.when = when))
            }
            onExchange={() => put(t('easier.command.exchange'), (now) => exchanged(tune, now, v.id))}
            onDrop={() =>
              put(t('easier.command.drop'), (now) => ({
                ...now,
                variants: now.variants.filter((x) => x.id !== v.id),
              }))
            }
          />
        ))}
      </ul>
    </details>
  )
}

/** One kept version: shown, given the passes in which it is played, exchanged with what stands, or dropped. */
function OssiaRow({
  variant,
  model,
  times,
  shown,
  onShow,
  onWhen,
  onExchange,
  onDrop,
}: {
  variant: Variant
  model: SheetModel
  times: Times
  shown: boolean
  onShow: (on: boolean) => void
  onWhen: (when: When) => void
  onExchange: () => void
  onDrop: () => void
}) {
  const { t } = useTranslation()
  const hideThen = (act: () => void) => () => {
    if (shown) onShow(false)
    act()
  }
  return (
    <li>
      <div>{ossiaWords(t, variant, model)}</div>
      <Group gap={4} mt={4}>
        <Button
          size="compact-xs"
          variant={shown ? 'filled' : 'default'}
          aria-pressed={shown}
          onClick={() => onShow(!shown)}
        >
          {t(shown ? 'easier.hide' : 'easier.show')}
        </Button>
        <Select
          size="xs"
          w={150}
          aria-label={t('easier.when')}
          allowDeselect={false}
          value={whenValue(variant.when)}
          data={times}
          onChange={(chosen) => onWhen(whenOf(chosen ?? ASKED))}
        />
        <RowAct
          label={t('easier.exchange')}
          icon={<IconSwitchVertical size={15} />}
          onClick={hideThen(onExchange)}
        />
        <RowAct label={t('easier.drop')} icon={<IconTrash size={15} />} onClick={hideThen(onDrop)} />
      </Group>
    </li>
  )
}

function RowAct({ label, icon, onClick }: { label: string; icon: ReactNode; onClick: () => void }) {
  return (
    <Tooltip label={label}>
      <ActionIcon size="sm" variant="subtle" color="plum" aria-label={label} onClick={onClick}>
        {icon}
      </ActionIcon>
    </Tooltip>
  )
}

/** Keeps the measures that stand on the sheet now as an ossia, under a name. */
function KeepNow({
  range,
  numbers,
  onKeep,
}: {
  range: MarkedMeasures
  numbers: readonly number[]
  onKeep: (name: string) => void
}) {
  const { t } = useTranslation()
  const [name, setName] = useState('')
  const [from, to] = [numbers[range.from]!, numbers[range.to]!]
  const what = name.trim() || t('easier.keepHint')
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault()
        onKeep(what)
        setName('')
      }}
    >
      <Group gap={4} wrap="nowrap" mt={6} align="end">
        <TextInput
          size="xs"
          flex={1}
          label={t(from === to ? 'easier.ossiaOne' : 'easier.ossia', { from, to, what: '' })}
          aria-label={t('easier.keepName')}
          placeholder={t('easier.keepHint')}
          value={name}
          onChange={(e) => setName(e.currentTarget.value)}
        />
        <Button size="compact-xs" variant="default" type="submit">
          {t('easier.keepNow')}
        </Button>
      </Group>
    </form>
  )
}
