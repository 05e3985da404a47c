import { present } from '@velvet-porch/core/invariant'
import { Button, Group, NumberInput, Select, Stack, TextInput } from '@mantine/core'
import { keyOf, MODES, WHOLE, type Mode, type NoteName } from '@velvet-porch/core/music'
import type { Jump, Provenance, TuneDoc } from '@velvet-porch/core/document'
import { FORM_SIGNS, type EditCommand } from '@velvet-porch/core/edit'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import type { MarkedMeasures } from '../sheet/selection.ts'
import { BarPopover } from './BarPopover.tsx'

interface Props {
  readonly tune: TuneDoc
  readonly range: MarkedMeasures | undefined
  readonly numbers: readonly number[]
  readonly run: (edit: EditCommand) => Promise<boolean>
}

const JUMPS: readonly Jump[] = [
  'daCapo',
  'daCapoAlFine',
  'daCapoAlCoda',
  'dalSegno',
  'dalSegnoAlFine',
  'dalSegnoAlCoda',
]
const SOURCES: readonly Provenance[] = ['source', 'heard', 'guessed', 'choice']
const PASSES = ['1', '2', '3', '1,2', '1,3', '2,3']
const METRES = ['2/4', '3/4', '4/4', '2/2', '3/8', '6/8', '9/8', '12/8', '5/4', '7/8']
const NONE = '-'

/** Section, repeat, endings, signs, metre, key, tempo and source of the chosen measures. */
export function FormMenu({ tune, range, numbers, run }: Props) {
  const { t } = useTranslation()
  return (
    <BarPopover
      label={t('write.form.title')}
      held={
        range
          ? (['section', 'ending', 'jump', 'metre', 'key', 'tempo', 'source', 'writeOut'] as const).map((k) =>
              t(`write.form.${k}`),
            )
          : []
      }
    >
      {() =>
        range ? (
          <FormFields
            key={`${range.from}-${range.to}`}
            tune={tune}
            range={range}
            numbers={numbers}
            run={run}
          />
        ) : (
          t('write.measures.none')
        )
      }
    </BarPopover>
  )
}

type Fields = Props & { readonly range: MarkedMeasures }

function FormFields(props: Fields) {
  const { numbers, range, run } = props
  const { t } = useTranslation()
  return (
    <Stack gap={8} w={300} data-testid="form-menu">
      <strong>
        {range.from === range.to
          ? t('write.measures.one', { number: numbers[range.from]! })
          : t('write.measures.many', { from: numbers[range.from]!, to: numbers[range.to]! })}
      </strong>
      <SectionField {...props} />
      <RepeatAndSigns {...props} />
      <Group gap={6} grow>
        <EndingSelect {...props} />
        <JumpSelect {...props} />
      </Group>
      <Group gap={6} grow>
        <MetreSelect {...props} />
        <KeySelect {...props} />
      </Group>
      <TempoField {...props} />
      <Button size="compact-sm" variant="default" onClick={() => void run({ do: 'writeOut' })}>
        {t('write.form.writeOut')}
      </Button>
      <Group gap={6} grow>
        <SourceSelect {...props} />
        <LengthSelect {...props} />
      </Group>
    </Stack>
  )
}

/** A list that stands inside the menu. */
const LIST = { size: 'xs', allowDeselect: false, comboboxProps: { withinPortal: false } } as const

function SectionField({ tune, range, run }: Fields) {
  const { t } = useTranslation()
  const id = tune.measures[range.from]!.id
  const [section, setSection] = useState(tune.sections.find((s) => s.measure === id)?.name ?? '')
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault()
        void run({ do: 'section', measure: range.from, name: section })
      }}
    >
      <Group gap={6} align="end" wrap="nowrap">
        <TextInput
          size="xs"
          label={t('write.form.section')}
          placeholder={t('write.form.sectionHint')}
          value={section}
          onChange={(e) => setSection(e.currentTarget.value)}
        />
        <Button size="xs" type="submit" variant="default">
          {t('write.form.set')}
        </Button>
      </Group>
    </form>
  )
}

function RepeatAndSigns({ tune, range: { from, to }, run }: Fields) {
  const { t } = useTranslation()
  const last = tune.measures[to]!
  const repeated = tune.measures[from]!.repeatStart || last.repeatEnd > 1
  return (
    <Group gap={6}>
      <Button
        size="compact-sm"
        variant="default"
        onClick={() => void run({ do: 'repeat', from, to, on: !repeated })}
      >
        {t(repeated ? 'write.form.repeatOff' : 'write.form.repeatOn')}
      </Button>
      {FORM_SIGNS.map((sign) => (
        <Button
          key={sign}
          size="compact-sm"
          variant={last[sign] ? 'filled' : 'default'}
          aria-pressed={last[sign] ?? false}
          onClick={() =>
            void run({ do: 'sign', measure: sign === 'segno' ? from : to, sign, on: !last[sign] })
          }
        >
          {t(`write.form.signs.${sign}`)}
        </Button>
      ))}
    </Group>
  )
}

function EndingSelect({ tune, range: { from, to }, run }: Fields) {
  const { t } = useTranslation()
  const { endings } = tune.measures[from]!
  return (
    <Select
      {...LIST}
      label={t('write.form.ending')}
      value={endings.length > 0 ? endings.join(',') : NONE}
      data={[
        { value: NONE, label: t('write.form.noEnding') },
        ...PASSES.map((p) => ({ value: p, label: p })),
      ]}
      onChange={(v) =>
        void run({ do: 'ending', from, to, passes: !v || v === NONE ? [] : v.split(',').map(Number) })
      }
    />
  )
}

function JumpSelect({ tune, range: { to }, run }: Fields) {
  const { t } = useTranslation()
  return (
    <Select
      {...LIST}
      label={t('write.form.jump')}
      value={tune.measures[to]!.jump ?? NONE}
      data={[
        { value: NONE, label: t('write.form.noJump') },
        ...JUMPS.map((j) => ({ value: j, label: t(`write.form.jumps.${j}`) })),
      ]}
      onChange={(v) => void run({ do: 'jump', measure: to, jump: v === NONE ? undefined : (v as Jump) })}
    />
  )
}

function MetreSelect({ tune, range: { from }, run }: Fields) {
  const { t } = useTranslation()
  const { num, den } = tune.measures[from]!.metre
  const now = `${num}/${den}`
  return (
    <Select
      {...LIST}
      label={t('write.form.metre')}
      value={now}
      data={[...new Set([now, ...METRES])]}
      onChange={(v) => {
        const [num, den] = (v ?? '4/4').split('/').map(Number)
        void run({ do: 'metre', from, num: present(num), den: present(den) })
      }}
    />
  )
}

function TempoField({ tune, range: { from }, run }: Fields) {
  const { t } = useTranslation()
  const tempo = tune.tempos.findLast((m) => tune.measures.findIndex((x) => x.id === m.pos.measure) <= from)
  const [bpm, setBpm] = useState<string | number>(tempo ? Math.round(tempo.bpm) : 100)
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault()
        const value = Number(bpm)
        if (value >= 20 && value <= 400)
          void run({ do: 'tempo', at: { measure: tune.measures[from]!.id, tick: 0 }, bpm: value })
      }}
    >
      <Group gap={6} align="end" wrap="nowrap">
        <NumberInput
          size="xs"
          label={t('write.form.tempo')}
          min={20}
          max={400}
          value={bpm}
          onChange={setBpm}
        />
        <Button size="xs" type="submit" variant="default">
          {t('write.form.set')}
        </Button>
      </Group>
    </form>
  )
}

function SourceSelect({ tune, range: { from, to }, run }: Fields) {
  const { t } = useTranslation()
  return (
    <Select
      {...LIST}
      label={t('write.form.source')}
      value={tune.measures[from]!.provenance}
      data={SOURCES.map((s) => ({ value: s, label: t(`write.form.sources.${s}`) }))}
      onChange={(v) => v && void run({ do: 'provenance', from, to, provenance: v })}
    />
  )
}

/** How long a measure is: the first one may be a pickup, another one cut short. */
function LengthSelect({ tune, range: { from }, run }: Fields) {
  const { t } = useTranslation()
  const measure = tune.measures[from]!
  const first = from === 0
  return (
    <Select
      {...LIST}
      label={t(first ? 'write.form.pickup' : 'write.form.cut')}
      value={measure.length < measure.nominal ? String(measure.length) : '0'}
      data={shortLengths(measure).map((ticks) => ({
        value: String(ticks),
        label:
          ticks > 0
            ? t('write.form.pickupOf', { count: ticks / (WHOLE / 8) })
            : t(first ? 'write.form.noPickup' : 'write.form.whole'),
      }))}
      onChange={(v) => {
        const ticks = Number(v)
        void run(first ? { do: 'pickup', ticks } : { do: 'cut', measure: from, ticks })
      }}
    />
  )
}

/** Lengths that a short measure may have, in steps of an eighth, with the one that stands; 0 is whole. */
function shortLengths({ nominal, length }: TuneDoc['measures'][number]): number[] {
  const steps = Array.from({ length: Math.ceil(nominal / (WHOLE / 8)) }, (_, i) => i * (WHOLE / 8))
  return [...new Set([...steps, ...(length < nominal ? [length] : [])])].sort((a, b) => a - b)
}

const TONICS: readonly NoteName[] = [
  ...(['C', 'D', 'E', 'F', 'G', 'A', 'B'] as const).map((step) => ({ step, alter: 0 })),
  { step: 'B', alter: -1 },
  { step: 'E', alter: -1 },
  { step: 'A', alter: -1 },
  { step: 'F', alter: 1 },
  { step: 'C', alter: 1 },
]

function KeySelect({ tune, range: { from }, run }: Fields) {
  const { t } = useTranslation()
  const names = useNames()
  const { key } = tune.measures[from]!
  const code = (tonic: NoteName, mode: Mode) => `${tonic.step}${tonic.alter}.${mode}`
  const options = MODES.flatMap((mode) =>
    [...TONICS, key.tonic].map((tonic) => ({ tonic, mode, value: code(tonic, mode) })),
  ).filter((o, i, all) => all.findIndex((p) => p.value === o.value) === i)
  const usable = options.filter((o) => Math.abs(keyOf(o.tonic, o.mode).fifths) <= 7)
  return (
    <Select
      {...LIST}
      label={t('write.form.key')}
      searchable
      value={code(key.tonic, key.mode)}
      data={usable.map((o) => ({ value: o.value, label: names.key(keyOf(o.tonic, o.mode)) }))}
      onChange={(v) => {
        const o = usable.find((x) => x.value === v)
        if (o) void run({ do: 'key', from, key: keyOf(o.tonic, o.mode) })
      }}
    />
  )
}
