import { present } from '@velvet-porch/core/invariant'
import { Select, Stack, Text, TextInput } from '@mantine/core'
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

interface Props {
  readonly school: School
  readonly hasTwoParts: boolean
  /** True where the section accompanies: other choices count. */
  readonly accompanies: boolean
  readonly onSchool: (school: School, label: string) => void
}

/** Where teachers disagree: what is chosen here changes the result. */
export function SchoolForm({ school, hasTwoParts, accompanies, onSchool }: Props) {
  const { t } = useTranslation()
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
        onChange={(v, label) => {
          const { picking: _, ...rest } = school
          onSchool(v === AS_PLAYER ? rest : { ...rest, picking: v as PickingSchool }, label)
        }}
      />
      <Choice
        label={t('school.strokes')}
        value={school.strokes}
        options={STROKE_RULES.map((v) => [v, t(`school.strokeRules.${v}`)])}
        onChange={(strokes, label) => onSchool({ ...school, strokes: strokes as School['strokes'] }, label)}
      />
      <Choice
        label={t('school.root')}
        value={school.root}
        options={ROOT_RULES.map((v) => [v, t(`school.roots.${v}`)])}
        onChange={(root, label) => onSchool({ ...school, root: root as School['root'] }, label)}
      />
      <BassStrings school={school} onSchool={onSchool} />
      {accompanies ? (
        <>
          <Choice
            label={t('school.runs')}
            value={school.runs ?? BY_LEVEL}
            options={[BY_LEVEL, ...RUN_RULES].map((v) => [v, t(`school.runRules.${v as 'never'}`)])}
            onChange={(v, label) => {
              const { runs: _, ...rest } = school
              onSchool(v === BY_LEVEL ? rest : { ...rest, runs: v as 'never' | 'changes' }, label)
            }}
          />
          <Choice
            label={t('school.liftOff')}
            value={school.liftOff ?? 'never'}
            options={LIFT_RULES.map((v) => [v, t(`school.liftRules.${v}`)])}
            onChange={(v, label) => {
              const { liftOff: _, ...rest } = school
              onSchool(v === 'fast' ? { ...rest, liftOff: 'fast' } : rest, label)
            }}
          />
        </>
      ) : (
        <SoloChoices school={school} hasTwoParts={hasTwoParts} onSchool={onSchool} />
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
function SoloChoices({ school, hasTwoParts, onSchool }: Omit<Props, 'accompanies'>) {
  const { t } = useTranslation()
  return (
    <>
      <Choice
        label={t('school.repeats')}
        value={school.repeats}
        options={(['alike', 'varied'] as const).map((v) => [v, t(`school.repeatRules.${v}`)])}
        onChange={(repeats, label) => onSchool({ ...school, repeats: repeats as School['repeats'] }, label)}
      />
      <Choice
        label={t('school.hand')}
        value={school.hand}
        options={HAND_RULES.map((v) => [v, t(`school.hands.${v}`)])}
        onChange={(hand, label) => onSchool({ ...school, hand: hand as School['hand'] }, label)}
      />
      <Choice
        label={t('school.harmony')}
        value={school.harmony}
        options={(['below', 'above'] as const).map((v) => [v, t(`school.sides.${v}`)])}
        onChange={(harmony, label) => onSchool({ ...school, harmony: harmony as School['harmony'] }, label)}
      />
      {hasTwoParts ? (
        <Choice
          label={t('school.parts')}
          value={school.parts}
          options={(['melody', 'both'] as const).map((v) => [v, t(`school.partRules.${v}`)])}
          onChange={(parts, label) => onSchool({ ...school, parts: parts as School['parts'] }, label)}
        />
      ) : null}
    </>
  )
}

function Choice({
  label,
  value,
  options,
  onChange,
}: {
  label: string
  value: string
  options: readonly (readonly [string, string])[]
  onChange: (value: string, label: string) => void
}) {
  return (
    <Select
      size="xs"
      label={label}
      value={value}
      allowDeselect={false}
      comboboxProps={{ withinPortal: false }}
      data={options.map(([v, l]) => ({ value: v, label: l }))}
      onChange={(v) => v !== null && v !== value && onChange(v, present(options.find(([o]) => o === v))[1])}
    />
  )
}
