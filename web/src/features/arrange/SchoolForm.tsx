import { present } from '@velvet-porch/core/invariant'
import { Stack, Text, TextInput } from '@mantine/core'
import { GUITAR, PICKING_SCHOOLS, type PickingSchool } from '@velvet-porch/core/instrument'
import {
  bassOrdersText,
  HAND_RULES,
  LIFT_RULES,
  readBassOrders,
  ROOT_RULES,
  RUN_RULES,
  STROKE_RULES,
  type School,
} from '@velvet-porch/core/document'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { LookSelect } from '../../ui/LookSelect.tsx'

interface Props {
  readonly school: School
  readonly hasTwoParts: boolean
  /** True where the section accompanies: other choices count. */
  readonly accompanies: boolean
  readonly onSchool: (school: School, label: string) => void
  /** A school that is looked at before it is taken; undefined once none is. */
  readonly onLook: (school: School | undefined) => void
}

/** Where teachers disagree: what is chosen here changes the result. */
export function SchoolForm({ school, hasTwoParts, accompanies, onSchool, onLook }: Props) {
  const { t } = useTranslation()
  const taken = { onSchool, onLook }
  const AS_PLAYER = 'player'
  const BY_LEVEL = 'level'
  return (
    <Stack gap={6}>
      <Text size="sm">{t('school.intro')}</Text>
      <Choice
        label={t('school.picking')}
        value={school.picking ?? AS_PLAYER}
        options={[AS_PLAYER, ...PICKING_SCHOOLS].map((v) => [
          v,
          t(`school.pickings.${v as PickingSchool | 'player'}`),
        ])}
        schoolOf={(v) => {
          const { picking: _, ...rest } = school
          return v === AS_PLAYER ? rest : { ...rest, picking: v as PickingSchool }
        }}
        {...taken}
      />
      <Choice
        label={t('school.strokes')}
        value={school.strokes}
        options={STROKE_RULES.map((v) => [v, t(`school.strokeRules.${v}`)])}
        schoolOf={(v) => ({ ...school, strokes: v as School['strokes'] })}
        {...taken}
      />
      <Choice
        label={t('school.root')}
        value={school.root}
        options={ROOT_RULES.map((v) => [v, t(`school.roots.${v}`)])}
        schoolOf={(v) => ({ ...school, root: v as School['root'] })}
        {...taken}
      />
      <BassStrings school={school} onSchool={onSchool} />
      {accompanies ? (
        <>
          <Choice
            label={t('school.runs')}
            value={school.runs ?? BY_LEVEL}
            options={[BY_LEVEL, ...RUN_RULES].map((v) => [v, t(`school.runRules.${v as 'never'}`)])}
            schoolOf={(v) => {
              const { runs: _, ...rest } = school
              return v === BY_LEVEL ? rest : { ...rest, runs: v as 'never' | 'changes' }
            }}
            {...taken}
          />
          <Choice
            label={t('school.liftOff')}
            value={school.liftOff ?? 'never'}
            options={LIFT_RULES.map((v) => [v, t(`school.liftRules.${v}`)])}
            schoolOf={(v) => {
              const { liftOff: _, ...rest } = school
              return v === 'fast' ? { ...rest, liftOff: 'fast' } : rest
            }}
            {...taken}
          />
        </>
      ) : (
        <SoloChoices school={school} hasTwoParts={hasTwoParts} {...taken} />
      )}
      <Text size="xs" c="dimmed">
        {t('school.handHint')}
      </Text>
    </Stack>
  )
}

/** The strings that the thumb takes under chords, as a teacher says them: C 5 4 6 4. Taken when the field is left. */
function BassStrings({ school, onSchool }: Pick<Props, 'school' | 'onSchool'>) {
  const { t } = useTranslation()
  const known = bassOrdersText(school.bassStrings ?? [])
  const [written, write] = useState<string>()
  const read = readBassOrders(written ?? known, GUITAR.strings)
  const take = () => {
    if (written === undefined || !read.ok) return
    write(undefined)
    const text = bassOrdersText(read.orders)
    if (text === known) return
    const { bassStrings: _, ...rest } = school
    onSchool(
      read.orders.length > 0 ? { ...rest, bassStrings: read.orders } : rest,
      text || t('school.bassFree'),
    )
  }
  return (
    <TextInput
      size="xs"
      label={t('school.bassStrings')}
      description={t('school.bassHint')}
      placeholder="C 5 4 6 4, G 6 4"
      value={written ?? known}
      error={read.ok ? undefined : t(`school.bassProblem.${read.problem}`, { word: read.word })}
      onChange={(e) => write(e.currentTarget.value)}
      onBlur={take}
      onKeyDown={(e) => {
        if (e.key === 'Enter') take()
      }}
    />
  )
}

/** What only matters where the tune is played. */
function SoloChoices({ school, hasTwoParts, ...taken }: Omit<Props, 'accompanies'>) {
  const { t } = useTranslation()
  return (
    <>
      <Choice
        label={t('school.repeats')}
        value={school.repeats}
        options={(['alike', 'varied'] as const).map((v) => [v, t(`school.repeatRules.${v}`)])}
        schoolOf={(v) => ({ ...school, repeats: v as School['repeats'] })}
        {...taken}
      />
      <Choice
        label={t('school.hand')}
        value={school.hand}
        options={HAND_RULES.map((v) => [v, t(`school.hands.${v}`)])}
        schoolOf={(v) => ({ ...school, hand: v as School['hand'] })}
        {...taken}
      />
      <Choice
        label={t('school.harmony')}
        value={school.harmony}
        options={(['below', 'above'] as const).map((v) => [v, t(`school.sides.${v}`)])}
        schoolOf={(v) => ({ ...school, harmony: v as School['harmony'] })}
        {...taken}
      />
      {hasTwoParts ? (
        <Choice
          label={t('school.parts')}
          value={school.parts}
          options={(['melody', 'both'] as const).map((v) => [v, t(`school.partRules.${v}`)])}
          schoolOf={(v) => ({ ...school, parts: v as School['parts'] })}
          {...taken}
        />
      ) : null}
    </>
  )
}

function Choice({
  label,
  value,
  options,
  schoolOf,
  onSchool,
  onLook,
}: Pick<Props, 'onSchool' | 'onLook'> & {
  label: string
  value: string
  options: readonly (readonly [string, string])[]
  /** The school with an option taken. */
  schoolOf: (value: string) => School
}) {
  return (
    <LookSelect
      size="xs"
      label={label}
      value={value}
      allowDeselect={false}
      comboboxProps={{ withinPortal: false }}
      data={options.map(([v, l]) => ({ value: v, label: l }))}
      onLook={(v) => onLook(v === undefined || v === value ? undefined : schoolOf(v))}
      onChange={(v) =>
        v !== null && v !== value && onSchool(schoolOf(v), present(options.find(([o]) => o === v))[1])
      }
    />
  )
}
