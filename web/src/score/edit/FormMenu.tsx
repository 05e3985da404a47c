import { Button, Group, NumberInput, Select, Stack, TextInput } from '@mantine/core'
import {
  FORM_SIGNS,
  keyOf,
  MODES,
  WHOLE,
  type EditCommand,
  type Jump,
  type Mode,
  type NoteName,
  type Provenance,
  type TuneDoc,
} from '@velvet-porch/core'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import type { MarkedMeasures } from '../sheet/Sheet.tsx'
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
    <BarPopover label={t('write.form.title')}>
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

function FormFields({ tune, range, numbers, run }: Props & { range: MarkedMeasures }) {
  const { t } = useTranslation()
  const { from, to } = range
  const first = tune.measures[from]!
  const last = tune.measures[to]!
  const own = tune.sections.find((s) => s.measure === first.id)?.name ?? ''
  const [section, setSection] = useState(own)
  const tempo = tune.tempos.findLast((m) => tune.measures.findIndex((x) => x.id === m.pos.measure) <= from)
  const [bpm, setBpm] = useState<string | number>(tempo ? Math.round(tempo.bpm) : 100)
  const repeated = first.repeatStart || last.repeatEnd > 1
  return (
    <Stack gap={8} w={300} data-testid="form-menu">
      <strong>
        {from === to
          ? t('write.measures.one', { number: numbers[from]! })
          : t('write.measures.many', { from: numbers[from]!, to: numbers[to]! })}
      </strong>
      <form
        onSubmit={(e) => {
          e.preventDefault()
          void run({ do: 'section', measure: from, name: section })
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
      <Group gap={6} grow>
        <Select
          size="xs"
          label={t('write.form.ending')}
          value={first.endings.length > 0 ? first.endings.join(',') : NONE}
          data={[
            { value: NONE, label: t('write.form.noEnding') },
            ...PASSES.map((p) => ({ value: p, label: p })),
          ]}
          allowDeselect={false}
          comboboxProps={{ withinPortal: false }}
          onChange={(v) =>
            void run({ do: 'ending', from, to, passes: !v || v === NONE ? [] : v.split(',').map(Number) })
          }
        />
        <Select
          size="xs"
          label={t('write.form.jump')}
          value={last.jump ?? NONE}
          data={[
            { value: NONE, label: t('write.form.noJump') },
            ...JUMPS.map((j) => ({ value: j, label: t(`write.form.jumps.${j}`) })),
          ]}
          allowDeselect={false}
          comboboxProps={{ withinPortal: false }}
          onChange={(v) => void run({ do: 'jump', measure: to, jump: v === NONE ? undefined : (v as Jump) })}
        />
      </Group>
      <Group gap={6} grow>
        <Select
          size="xs"
          label={t('write.form.metre')}
          value={`${first.metre.num}/${first.metre.den}`}
          data={[...new Set([`${first.metre.num}/${first.metre.den}`, ...METRES])]}
          allowDeselect={false}
          comboboxProps={{ withinPortal: false }}
          onChange={(v) => {
            const [num, den] = (v ?? '4/4').split('/').map(Number)
            void run({ do: 'metre', from, num: num!, den: den! })
          }}
        />
        <KeySelect tune={tune} from={from} run={run} />
      </Group>
      <form
        onSubmit={(e) => {
          e.preventDefault()
          const value = Number(bpm)
          if (value >= 20 && value <= 400)
            void run({ do: 'tempo', at: { measure: first.id, tick: 0 }, bpm: value })
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
      <Button size="compact-sm" variant="default" onClick={() => void run({ do: 'writeOut' })}>
        {t('write.form.writeOut')}
      </Button>
      <Group gap={6} grow>
        <Select
          size="xs"
          label={t('write.form.source')}
          value={first.provenance}
          data={SOURCES.map((s) => ({ value: s, label: t(`write.form.sources.${s}`) }))}
          allowDeselect={false}
          comboboxProps={{ withinPortal: false }}
          onChange={(v) => v && void run({ do: 'provenance', from, to, provenance: v })}
        />
        {from === 0 ? (
          <Select
            size="xs"
            label={t('write.form.pickup')}
            value={first.length < first.nominal ? String(first.length) : '0'}
            data={shortLengths(first).map((ticks) => ({
              value: String(ticks),
              label:
                ticks === 0
                  ? t('write.form.noPickup')
                  : t('write.form.pickupOf', { count: ticks / (WHOLE / 8) }),
            }))}
            allowDeselect={false}
            comboboxProps={{ withinPortal: false }}
            onChange={(v) => void run({ do: 'pickup', ticks: Number(v) })}
          />
        ) : (
          <Select
            size="xs"
            label={t('write.form.cut')}
            value={first.length < first.nominal ? String(first.length) : '0'}
            data={shortLengths(first).map((ticks) => ({
              value: String(ticks),
              label:
                ticks === 0
                  ? t('write.form.whole')
                  : t('write.form.pickupOf', { count: ticks / (WHOLE / 8) }),
            }))}
            allowDeselect={false}
            comboboxProps={{ withinPortal: false }}
            onChange={(v) => void run({ do: 'cut', measure: from, ticks: Number(v) })}
          />
        )}
      </Group>
    </Stack>
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

function KeySelect({ tune, from, run }: Pick<Props, 'tune' | 'run'> & { from: number }) {
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
      size="xs"
      label={t('write.form.key')}
      searchable
      value={code(key.tonic, key.mode)}
      data={usable.map((o) => ({ value: o.value, label: names.key(keyOf(o.tonic, o.mode)) }))}
      allowDeselect={false}
      comboboxProps={{ withinPortal: false }}
      onChange={(v) => {
        const o = usable.find((x) => x.value === v)
        if (o) void run({ do: 'key', from, key: keyOf(o.tonic, o.mode) })
      }}
    />
  )
}
