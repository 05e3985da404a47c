import { Button, Group, Modal, NumberInput, Select, Stack, Text } from '@mantine/core'
import type { NoteName } from '@velvet-porch/core/music'
import { TWELVE_BAR_FORMS, twelveBarAbc, type TwelveBarForm } from '@velvet-porch/core/arrange'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'

/** Keys in which a twelve-bar form is offered. */
const TONICS: readonly NoteName[] = [
  { step: 'A', alter: 0 },
  { step: 'B', alter: -1 },
  { step: 'C', alter: 0 },
  { step: 'D', alter: 0 },
  { step: 'E', alter: 0 },
  { step: 'F', alter: 0 },
  { step: 'G', alter: 0 },
]

/** Makes a twelve-bar form: chords without a melody, to be accompanied or to write a tune on. */
export function FormDialog({
  opened,
  onClose,
  onMake,
}: {
  opened: boolean
  onClose: () => void
  onMake: (abc: string) => void
}) {
  const { t } = useTranslation()
  const names = useNames()
  const [tonic, setTonic] = useState(0)
  const [form, setForm] = useState<TwelveBarForm>('slow')
  const [bpm, setBpm] = useState<string | number>(100)
  const tempo = Number(bpm)
  const key = names.note(TONICS[tonic]!)
  return (
    <Modal
      opened={opened}
      onClose={onClose}
      title={t('form.title')}
      closeButtonProps={{ 'aria-label': t('shelf.cancel') }}
    >
      <Stack gap="sm">
        <Text size="sm">{t('form.intro')}</Text>
        <Select
          label={t('form.key')}
          allowDeselect={false}
          value={String(tonic)}
          onChange={(v) => v !== null && setTonic(Number(v))}
          data={TONICS.map((n, i) => ({ value: String(i), label: names.note(n) }))}
        />
        <Select
          label={t('form.form')}
          allowDeselect={false}
          value={form}
          onChange={(v) => v !== null && setForm(v)}
          data={(Object.keys(TWELVE_BAR_FORMS) as TwelveBarForm[]).map((f) => ({
            value: f,
            label: t(`form.forms.${f}`),
          }))}
        />
        <NumberInput label={t('form.tempo')} min={40} max={240} value={bpm} onChange={setBpm} />
        <Group justify="flex-end">
          <Button variant="default" onClick={onClose}>
            {t('shelf.cancel')}
          </Button>
          <Button
            disabled={!(tempo >= 40 && tempo <= 240)}
            onClick={() => onMake(twelveBarAbc(TONICS[tonic]!, form, t('form.name', { key }), tempo))}
          >
            {t('form.make')}
          </Button>
        </Group>
      </Stack>
    </Modal>
  )
}
