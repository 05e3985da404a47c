import { Button, Group, Select, Text, TextInput } from '@mantine/core'
import { readTasteShape, type TasteShapeProblem } from '@velvet-porch/core/taste'
import { TASTE_FEATURES } from '@velvet-porch/core/document'
import { guitarSetup } from '@velvet-porch/core/instrument'
import { withEntry, type TasteDoc, type TasteSays } from '@velvet-porch/core/taste'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { newId } from '../../newId.ts'
import { changeTaste } from '../../state/tastes.ts'
import { STRENGTHS, useTasteWords } from './useTasteWords.ts'

/** Writes an entry by hand: a like or dislike, or a shape for a chord. */
export function AddEntry({ taste }: { taste: TasteDoc }) {
  const { t } = useTranslation()
  const words = useTasteWords()
  const [like, setLike] = useState<string | null>(null)
  const add = (says: TasteSays) =>
    void changeTaste(taste.id, (doc) =>
      withEntry(doc, { id: newId(), on: true, says, scope: { kind: 'always' }, from: 'hand', cases: [] }),
    )
  return (
    <Group gap="lg" align="end" my="md">
      <Group gap="xs" align="end">
        <Select
          w={290}
          label={t('taste.addLike')}
          value={like}
          onChange={setLike}
          data={TASTE_FEATURES.flatMap((f) =>
            [true, false].map((wanted) => ({ value: `${f} ${wanted}`, label: words.feature(f, wanted) })),
          )}
        />
        <Button
          variant="default"
          disabled={like === null}
          onClick={() => {
            const [name, wanted] = (like ?? '').split(' ')
            const feature = TASTE_FEATURES.find((f) => f === name)
            if (feature)
              add({ kind: 'price', feature, price: wanted === 'true' ? -STRENGTHS.clear : STRENGTHS.clear })
            setLike(null)
          }}
        >
          {t('taste.addPrice')}
        </Button>
      </Group>
      <AddShape onAdd={add} />
    </Group>
  )
}

function AddShape({ onAdd }: { onAdd: (says: TasteSays) => void }) {
  const { t } = useTranslation()
  const [chord, setChord] = useState('')
  const [frets, setFrets] = useState('')
  const [fingers, setFingers] = useState('')
  const [problem, setProblem] = useState<TasteShapeProblem>()
  const add = () => {
    const read = readTasteShape(chord, frets, fingers, guitarSetup())
    setProblem(read.ok ? undefined : read.problem)
    if (!read.ok) return
    onAdd({ kind: 'shape', shape: read.shape })
    setChord('')
    setFrets('')
    setFingers('')
  }
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault()
        add()
      }}
    >
      <Group gap="xs" align="end">
        <TextInput
          w={80}
          label={t('taste.chord')}
          value={chord}
          maxLength={20}
          onChange={(e) => setChord(e.currentTarget.value)}
        />
        <TextInput
          w={150}
          placeholder="320003"
          label={t('taste.frets')}
          value={frets}
          maxLength={30}
          onChange={(e) => setFrets(e.currentTarget.value)}
        />
        <TextInput
          w={170}
          placeholder="320004"
          label={t('taste.fingers')}
          value={fingers}
          maxLength={30}
          onChange={(e) => setFingers(e.currentTarget.value)}
        />
        <Button type="submit" variant="default" disabled={chord.trim() === '' || frets.trim() === ''}>
          {t('taste.addShape')}
        </Button>
      </Group>
      {problem ? (
        <Text size="sm" c="red" role="alert">
          {problem === 'unreadable' ? t('taste.badShape') : t(`taste.fault.${problem}`, { chord })}
        </Text>
      ) : null}
    </form>
  )
}
