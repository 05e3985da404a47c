import { SegmentedControl, Stack, Text } from '@mantine/core'
import { EXPRESSION_PARTS, EXPRESSIONS, type ExpressionPart, type TabNote } from '@velvet-porch/core/document'
import type { ExpressionEdit } from '@velvet-porch/core/edit'
import { useId } from 'react'
import { useTranslation } from 'react-i18next'
import { BarPopover } from './BarPopover.tsx'
import type { OnTargets } from './targets.ts'

/** States at a note how it and what follows is played: loudness, touch, place, pace. */
export function ExpressionMenu({ notes, onTargets }: { notes: readonly TabNote[]; onTargets: OnTargets }) {
  const { t } = useTranslation()
  return (
    <BarPopover
      label={t('write.express.button')}
      size="compact-xs"
      held={EXPRESSION_PARTS.map((part) => t(`write.express.part.${part}`))}
    >
      {() => (
        <Stack gap={6} data-testid="expression">
          <Text size="xs" c="dimmed">
            {t('write.express.hint')}
          </Text>
          {EXPRESSION_PARTS.map((part) => (
            <Part key={part} part={part} notes={notes} onTargets={onTargets} />
          ))}
        </Stack>
      )}
    </BarPopover>
  )
}

const NOTHING = 'nothing'

function Part({
  part,
  notes,
  onTargets,
}: {
  part: ExpressionPart
  notes: readonly TabNote[]
  onTargets: OnTargets
}) {
  const { t } = useTranslation()
  const id = useId()
  const first = notes[0]?.[part]
  const alike = notes.every((n) => n[part] === first)
  return (
    <div>
      <Text size="sm" id={id}>
        {t(`write.express.part.${part}`)}
      </Text>
      <SegmentedControl
        size="xs"
        aria-labelledby={id}
        value={alike ? (first ?? NOTHING) : ''}
        onChange={(chosen) =>
          void onTargets('express', (those) =>
            those.map(
              (n) =>
                ({
                  do: 'express',
                  note: n.id,
                  part,
                  value: chosen === NOTHING ? undefined : chosen,
                }) as ExpressionEdit,
            ),
          )
        }
        data={[NOTHING, ...EXPRESSIONS[part]].map((value) => ({
          value,
          label: value === NOTHING ? t('write.express.none') : t(`sheet.said.${value as 'pp'}`),
        }))}
      />
    </div>
  )
}
